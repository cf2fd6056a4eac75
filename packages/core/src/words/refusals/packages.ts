/** What is refused of packages. */
const NOTHING = 'Nothing was changed.';

export const PACKAGE_REFUSALS = {
  'no-document': (p: { readonly path: string }) => `There is no document ${p.path} in this project. ${NOTHING}`,
  'no-package': () => 'There is no such package.',
  'nothing-to-pack': () => `Nothing was chosen that can go. ${NOTHING}`,
  'package-there': (p: { readonly path: string; readonly volume: string }) =>
    `${p.path} is there already on ${p.volume}, or another package is on its way there. Give this one another name. ${NOTHING}`,
  'package-in-project': (p: { readonly number: string }) =>
    `That folder lies in the project ${p.number}, or holds it: a package lies outside of what projects have. ${NOTHING}`,
  'package-over': () => 'This package is done, or nobody is at it. Nothing was stopped.',
  'package-under-way': () => `Somebody is at this package, or it is done. ${NOTHING}`,
  'package-not-done': () => 'This package is not finished. Wait until it is.',
  'package-is-folder': () => 'This package is a folder: pack it as a zip to send it by a link.',
  'package-changed': () => 'The project changed after the plan was shown. Look at it once more; nothing was packed.',
  'not-archived': () => `Only a project that is packed for the archive can be freed or brought back. ${NOTHING}`,
  'package-not-whole': () => `The package was read again and is not whole. ${NOTHING}`,
  'not-in-package': (p: { readonly path: string; readonly count: number }) =>
    `${p.count === 1 ? 'One file is' : `${p.count} files are`} not in the package, or changed since it was made, such as ${p.path}. Pack the project once more. ${NOTHING}`,
  'still-set-aside': (p: { readonly files: number }) =>
    `${p.files === 1 ? 'One file is' : `${p.files} files are`} set aside in this project, and in no package. Bring them back by undoing, or free their space first. ${NOTHING}`,
  'back-taken': (p: { readonly folder: string; readonly volume: string }) =>
    `${p.folder} is there on ${p.volume}: nothing needs to be brought back, or something else has its place. ${NOTHING}`,
  'part-taken': (p: { readonly folder: string; readonly volume: string }) =>
    `Something is called ${p.folder} on ${p.volume}. Take it away first, or choose another volume. ${NOTHING}`,
  'day-past': () => 'This day is over, or more than a year away. Choose another.',
  'word-wrong': () => 'This is not the word that goes with the link. Ask who sent it.',
} as const;
