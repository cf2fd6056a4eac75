/** Batches in words: what stood in the way, and what a line does. */
import type { Change } from '../change/change';
import { HOME, isSamePlace, type Place } from '../change/place';
import { join } from '../listing/entry';

/** What happened at a place, and what to do. Codes of the core and of disks alike. */
const HINDRANCES: Readonly<Record<string, string>> = {
  gone: 'is not there any more',
  ENOENT: 'is not there any more',
  'other-kind': 'is something else than it was',
  ENOTDIR: 'stands where a folder is needed',
  changed: 'was changed since',
  ECHANGED: 'was written to while it was copied',
  taken: 'is taken: something of that name is there already',
  EEXIST: 'is taken: something of that name is there already',
  'name-taken': 'would be the name of two in one folder',
  'changed-twice': 'would be changed twice',
  'into-itself': 'would lie in itself',
  'folder-gone': 'would lie in a folder that is not there by then',
  EINVAL: 'would lie in itself',
  ENOTFILE: 'is no plain file',
  EFBIG: 'is too large to be read',
  ENOTEMPTY: 'is not empty any more',
  EACCES: 'may not be changed: permission is missing',
  EPERM: 'may not be changed: permission is missing',
  EROFS: 'is on a read-only volume',
  ENOSPC: 'does not fit: the volume is full',
  EDQUOT: 'does not fit: the volume is full',
  ELOOP: 'is reached by a link, and links are not followed',
  EREFUSED: 'would lead out of the project',
  EVERIFY: 'was not copied byte for byte',
  CANCELLED: 'was next when it was stopped',
  EBUSY: 'is in use',
  ETXTBSY: 'is in use',
  EIO: 'cannot be read or written: the disk fails',
  ESTALE: 'cannot be reached: the volume went away',
  ENOTCONN: 'cannot be reached: the volume went away',
};

export function hindranceWords(code: string, path: string): string {
  return `${path === '' ? 'The project’s folder' : path} ${HINDRANCES[code] ?? `cannot be changed (${code})`}.`;
}

const UNREAD: Readonly<Record<string, string>> = {
  ENOTFILE: 'it is no plain file',
  EFBIG: 'it is too large',
  EACCES: 'permission is missing',
  EPERM: 'permission is missing',
  EIO: 'the disk fails',
};

/** Why a file cannot be read. */
export const unreadWords = (code: string): string => UNREAD[code] ?? `the system says ${code}`;

/** What a batch is about, as `what` of its intents. */
const ABOUT: Readonly<Record<string, string>> = {
  grow: 'Extended',
  change: 'Changed',
  edition: 'Took another edition',
  intake: 'Files brought in',
  checksums: 'Checksums laid beside',
  undo: 'Undone',
  'take-back': 'Taken back',
  add: 'Added to a folder',
  adopt: 'Adopted',
  repair: 'Put right',
  carry: 'Carried over',
};

export const batchWords = (what: string): string => ABOUT[what] ?? what;

/** Where a change says an entry is, as a person reads it: in the project's folder by its path, else with its volume. */
export function placeWords({ root, path }: Place): string {
  if (root === HOME) return path;
  // Another project's folder is known by its volume and its name.
  return root.includes('/') ? join(root, path) : `${root}: ${path}`;
}

export function changeLine({ entry, before, after, content }: Change): string {
  if (before === null) return `${entry === 'folder' ? 'make' : 'write'} ${after === null ? '' : placeWords(after)}`;
  const was = placeWords(before);
  if (after === null) return `take back ${was}`;
  const rewritten = content === null ? '' : ', written anew';
  return isSamePlace(before, after) ? `rewrite ${was}` : `move ${was} → ${placeWords(after)}${rewritten}`;
}
