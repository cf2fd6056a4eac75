import { rule } from '../rule';

/** A folder that must exist and does not. What it should hold is not missing on its own account. */
export const missingFolder = rule({
  code: 'missing-folder',
  weight: 'must',
  about: 'folder',
  params: { name: 'text', purpose: 'text' },
  remedy: { act: 'make' },
  end: ({ folders }) =>
    folders.missing.map((line) => ({
      path: line.path,
      subject: line.key,
      params: { name: line.name, purpose: line.folder?.purpose ?? '' },
    })),
});
