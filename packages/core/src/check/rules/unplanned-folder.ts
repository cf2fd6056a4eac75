import { nameOf } from '../../listing/entry';
import type { Rule } from '../rule';

/** A folder no rule knows. What is in it is not judged: its place is the cause. */
export const unplannedFolder: Rule = {
  code: 'unplanned-folder',
  scope: 'folder',
  judge: ({ listing, state }) =>
    state.kind === 'unplanned' ? { path: listing.path, params: { name: nameOf(listing.path), files: listing.files.length, folders: listing.folders.length } } : null,
};
