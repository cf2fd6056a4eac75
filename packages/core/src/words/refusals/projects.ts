/** Projects, their names, checks and changes: what is refused of them. */
import type { Coded } from '../../result';
import { hindranceWords } from '../batches';
import { wordsFor } from '../findings';

interface Folder {
  readonly folder: string;
}
interface OnVolume extends Folder {
  readonly volume: string;
}
interface Named {
  readonly name: string;
}
const because = ({ code, params }: Coded): string => wordsFor(code, params);
const NOTHING = 'Nothing was changed.';

const ARTISTS = {
  edition: () => 'Another edition is not an artist’s to take.',
  renames: () => 'Artists add entries and folders, and rename nothing.',
  field: (what: string) => `${what} is not an artist’s to change.`,
  takes: (what: string) => `Entries of ${what} are added here, and none taken away.`,
  folder: (what: string) => `${what} is not an artist’s to make.`,
} as const;

export const PROJECT_REFUSALS = {
  'no-project': () => 'There is no such project.',
  'no-line': () => 'There is no such line.',
  'project-gone': () => 'The project was made, and is gone again.',
  'not-running': () => 'This project is not running, or has no folder just now. Nothing was changed.',
  'project-changed': (p: { readonly number: string }) =>
    `Somebody else changed ${p.number} since you opened it. ${NOTHING} Look at it anew.`,
  'folder-taken': (p: Folder) => `${p.folder} is another project's folder. ${NOTHING}`,
  'folder-exists': (p: OnVolume & { readonly stayed: readonly string[] }) =>
    `A folder ${p.folder} exists already on ${p.volume}. ${p.stayed.length === 0 ? 'Nothing was left behind.' : `These could not be taken back: ${p.stayed.slice(0, 5).join(', ')}.`}`,
  'no-folder': (p: OnVolume) => `There is no folder ${p.folder} on ${p.volume}. ${NOTHING}`,
  'not-there': (p: OnVolume) => `In ${p.folder} on ${p.volume} there is no folder of this project. ${NOTHING}`,
  'is-original': () => 'This is the project’s own folder: say first that the other one is.',
  'same-volume': (p: { readonly volume: string }) =>
    `${p.volume} is the project's own volume: nothing is redirected to it. ${NOTHING}`,
  'key-used': () => `This key was used for something else. ${NOTHING}`,
  'plan-refused': (p: { readonly at: string; readonly because: Coded }) =>
    `${p.at === '' ? '' : `${p.at}: `}${because(p.because)} ${NOTHING}`,
  'starter-missing': (p: { readonly path: string }) =>
    `The starter file ${p.path} is not there. Give it, or take it out. ${NOTHING}`,

  'no-convention': (p: { readonly convention: string; readonly folder: string }) =>
    `No convention “${p.convention}” holds in ${p.folder}.`,
  'name-taken': (p: Named) => `${p.name} is there already, and this convention has no version to tell two apart.`,
  'name-held': (p: Named & { readonly by: string }) => `${p.name} was given to ${p.by} a moment ago.`,
  'values-missing': (p: { readonly because: readonly Coded[] }) => p.because.map(because).join(' '),
  'name-unreadable': (p: Named) => `${p.name} could not be read back by its own convention.`,

  'check-over': () => 'This check has ended already.',
  'cannot-go-on': () => 'This check cannot go on: it has ended, or nothing of it was kept. Check again.',
  'root-unreadable': (p: { readonly system: string }) => `The project's folder cannot be read (${p.system}).`,
  'taken-over': () => 'Somebody else has taken this check over.',
  'never-checked': () => 'This project was never checked.',
  'ended-already': () => 'This day is over: choose one to come, or none. Nothing was accepted.',
  nobody: (p: { readonly initials: string }) => `Nobody here has the initials ${p.initials}. ${NOTHING}`,
  nothing: (p: Named) => `${p.name} has nothing to put right.`,
  'not-yours': (p: { readonly findings: number }) => `${p.findings} of these findings are somebody else’s. ${NOTHING}`,
  'not-yours-to-give': () => `Coordinators give findings to other people. ${NOTHING}`,
  'not-your-change': () => `Somebody else asked for this change. ${NOTHING}`,

  'disk-changed': () =>
    'The disk or the rules changed since this plan was shown. Nothing was changed; the plan is made anew.',
  'plan-stale': (p: { readonly system: string; readonly path: string; readonly more: number }) =>
    `${hindranceWords(p.system, p.path)}${p.more > 0 ? ` And ${p.more} more.` : ''} ${NOTHING}`,
  'artist-not-allowed': (p: { readonly why: keyof typeof ARTISTS; readonly what: string }) =>
    `${ARTISTS[p.why](p.what)} A coordinator does that. ${NOTHING}`,
  'asker-left': () => `Whoever asked for this change has left. ${NOTHING}`,
  'no-change': () => 'There is no such change.',
  'batch-open': () =>
    'Another change of this project is under way, or stopped half way. Nothing was changed; look at its changes.',
  'batch-paused': (p: { readonly why: string }) =>
    `${p.why} Finish the change once the way is free, or take it back; where neither can be, close it.`,
  'batch-not-paused': () => `This change is not stopped half way. ${NOTHING}`,
  'batch-not-done': () => `Only what was done can be undone. ${NOTHING}`,
  'no-journal': () => `The journal of this change is not there. ${NOTHING}`,
  'line-unknown': (p: { readonly line: string }) => `${p.line} is no line of this change that is left. ${NOTHING}`,
  'no-proposal': () => 'There is no such proposal.',
  'no-later-repair': () => 'No plan waits that is called so: it has begun, or was taken back.',
  'hour-past': () => `That hour is past. ${NOTHING}`,
  'proposal-over': () => `Somebody has settled this proposal already. ${NOTHING}`,
  'carry-into-itself': () => `A project is not carried over to itself, other than as its next revision. ${NOTHING}`,
  'no-revisions': (p: { readonly number: string }) =>
    `The template of ${p.number} calls none of its lists its revisions, or the list has no such entry. ${NOTHING}`,
  'nothing-to-carry': () => `Nothing was chosen that can come along. ${NOTHING}`,
  'heap-in-project': (p: { readonly number: string }) =>
    `That folder lies in ${p.number}, or holds it: what a project has is put right there, not brought. ${NOTHING}`,
  'heap-unread': () => `Nobody has looked through that folder for this project yet. ${NOTHING}`,
  'no-upload': () => 'There is nothing of that to be sent any more: it is whole, or was ended.',
  'uploads-full': () =>
    'You have begun to send as much as one can at once. Go on with it, or leave the rest of it. Nothing was sent.',
  'no-inbox': (p: { readonly volume: string }) =>
    `Loose material does not arrive on ${p.volume}: a coordinator says in the list of volumes where it does. Nothing was sent.`,
  'zip-unusable': (p: { readonly path: string; readonly why: string }) =>
    `${p.path} cannot be unpacked: ${p.why}. ${NOTHING}`,
  'zip-under-way': (p: { readonly path: string }) => `Somebody is unpacking ${p.path}. ${NOTHING}`,
  'name-not-sent': (p: Named & { readonly because: Coded }) =>
    `${p.name} cannot lie on the server. ${because(p.because)} Nothing was sent.`,
  'file-gone': (p: { readonly path: string }) => `${p.path} is not there any more. ${NOTHING}`,
  'file-not-shown': (p: { readonly path: string }) => `${p.path} is too large to be shown here. ${NOTHING}`,
  'nothing-to-bring': () => `Nothing was chosen that can be brought. ${NOTHING}`,
  'no-way': () => 'No way is kept that is called so.',
  'ways-full': () => `As many ways are kept with this template as there can be. ${NOTHING}`,
  'nothing-to-repair': () => `Nothing was chosen that can be put right. ${NOTHING}`,
  'not-yours-to-repair': (p: { readonly number: string }) =>
    `In ${p.number} artists put right by themselves only what is theirs, where the template allows it. ${NOTHING}`,
  'number-other': (p: { readonly number: string }) =>
    `The number of this project is another one than ${p.number === '' ? 'nothing' : p.number}. Nothing was freed.`,
  'nothing-to-undo': () => 'Nothing of this change is left to be undone.',
  'taken-back': () => 'This change was begun, and taken back or closed since.',
  'gave-up': () => `This change ended early three times before it began. ${NOTHING}`,
  'not-begun': () => `The change could not begin. ${NOTHING}`,
  'could-not-begin': (p: { readonly system: string }) => `The change could not begin (${p.system}). ${NOTHING}`,
  'batch-forgotten': () => `Nobody knows any more what this change was to be. ${NOTHING}`,
  /** Kept by an earlier version of the program. */
  'told-before': (p: { readonly sentence: string }) => p.sentence,
  // Why a change stopped half way.
  'half-way': (p: { readonly system: string; readonly path: string; readonly done: number; readonly all: number }) =>
    `${hindranceWords(p.system, p.path)} ${p.done.toLocaleString('en')} of ${p.all.toLocaleString('en')} steps are done.`,
  'name-left': (p: { readonly system: string; readonly path: string }) =>
    `${hindranceWords(p.system, p.path)} All else is done.`,
  hindered: (p: { readonly system: string; readonly path: string }) => hindranceWords(p.system, p.path),
  'folder-lost': (p: { readonly system: string }) =>
    `The project’s folder cannot be reached${p.system === '' ? '' : ` any more (${p.system})`}.`,
  'volume-was-away': () => 'The volume was away when this was to be settled.',
  'at-command-line': () => 'Somebody is at this change just now, at the command line of a machine.',
  stopped: () => `This change was stopped before it began. ${NOTHING}`,
} as const;
