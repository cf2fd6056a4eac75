/** Ways of putting things right, in words: on buttons, in lists of choices, and why something waits. */
import { nameOf, parentOf } from '../listing/entry';
import type { ByHand } from '../planners/repair/documents';
import type { Way } from '../planners/repair/option';
import type { RepairState } from '../planners/repair/repair';

interface Taken {
  readonly way: Way;
  readonly to: string | null;
  readonly value: string | null;
}

const placed = (path: string): string => (path === '' ? 'the project’s root' : path);

/** `to` is the other project's folder and the path in it. */
function sendingWords(to: string, path: string): string {
  const [project = '', ...rest] = to.split('/');
  const inside = rest.join('/');
  const as = nameOf(inside) === nameOf(path) ? '' : ` as ${nameOf(inside)}`;
  return `It belongs to ${project}: move to ${placed(parentOf(inside))}${as}`;
}

/** What one way does, as an act: "Rename to …", "Move to …". `path` is where the thing is now. */
export function wayWords({ way, to, value }: Taken, path: string): string {
  const name = nameOf(to ?? '');
  const folder = placed(parentOf(to ?? ''));
  switch (way) {
    case 'make':
      return 'Make it';
    case 'write-note':
      return `Write ${name}, to be filled in`;
    case 'rename':
      return `Rename to ${name}`;
    case 'take-number':
      return `It belongs here: rename to ${name}`;
    case 'move-to-project':
      return sendingWords(value ?? '', path);
    case 'known-code':
      return `${value ?? ''} is meant: rename to ${name}`;
    case 'next-version':
      return `${value ?? ''} becomes ${name}`;
    case 'another-name':
      if (value === 'own') return 'Another name…';
      return value === null || value === 'free' ? `Rename to ${name}` : `${value} becomes ${name}`;
    case 'planned-name':
      return `It is meant to be ${to ?? ''}`;
    case 'move':
      return name === nameOf(path) ? `Move to ${folder}` : `Move to ${folder} as ${name}`;
    case 'move-contents':
      return 'Move what is in it to where it belongs';
    case 'move-up':
      return `Move what is in it up into ${to ?? ''}`;
    case 'to-older':
      return `Move to ${folder}`;
    case 'replace':
      return `Let it take the place of ${name}`;
    case 'keep-this':
      return `Keep ${value ?? ''}`;
    case 'set-aside':
      return 'Set it aside';
    case 'clear':
      return 'Clear it';
    case 'point':
      return value === null ? 'Point to the file' : `Point to ${value}`;
    case 'accept':
      return 'Leave it as it is';
  }
}

/** What a way does besides, where that is not plain from its name. */
export const WAY_NOTES: Readonly<Partial<Record<Way, string>>> = {
  'write-note': 'The note is empty: somebody who knows the terms must fill it in.',
  'move-to-project': 'Folders that it needs there are made. Undoing this change brings it back.',
  'planned-name': 'Where that folder is there already, the two are put together.',
  'move-contents': 'Each file goes to the folder that takes it. The folder itself goes once nothing is left in it.',
  'move-up': 'The inner folder goes once nothing is left in it.',
  replace: 'The file that lies there now is kept: in the folder for older ones, else with this change.',
  'keep-this': 'The others are set aside, and what refers to them leads to this one.',
  'set-aside': 'It is kept with this change, and comes back when that is undone.',
  clear: 'A program made it and can make it again. It is kept with this change, and comes back when that is undone.',
  accept: 'Accept the finding for a reason and until a day: nothing changes on the disk.',
};

export const REPAIR_STATE_WORDS: Readonly<Record<RepairState, string>> = {
  ready: 'Chosen',
  ask: 'Need an answer',
  left: 'Left as they are',
  'by-hand': 'To do by hand',
  clash: 'In each other’s way',
  gone: 'Gone meanwhile',
  held: 'Waiting until it is quiet',
  elsewhere: 'On another volume',
};

export const REPAIR_STATE_REASONS: Readonly<Record<RepairState, string>> = {
  ready: 'It is put right with the rest.',
  ask: 'There is more than one way, or none that is sure: choose one.',
  left: 'You left it out. It stays as it is, and is found again.',
  'by-hand': 'No program can know what is meant here. What to do is said with the finding.',
  clash: 'The place it would get is wanted twice, or somebody has it already. It stays until that is settled.',
  gone: 'It is not there any more. The next check says so too.',
  held: 'It was written a moment ago, or a program has it open. Look again in a few minutes.',
  elsewhere: 'It lies on another volume, and is not put right from here yet.',
};

const BY_HAND: Readonly<Record<ByHand['why'], string>> = {
  'not-utf-8': 'its text is not UTF-8',
  'too-large': 'it is too large to be written anew',
  unreadable: 'it cannot be read',
  'frames-part': 'its frames do not stay one sequence',
  'folder-of-renamed': 'it means a folder whose files get other names',
  'root-unknown': 'it is a whole path, and where the new project lies there is not known',
  'other-project': 'its file goes to another project, or it does itself',
  'other-format': 'only its program can write it anew',
};

export const byHandWords = ({ why }: ByHand): string => BY_HAND[why];
