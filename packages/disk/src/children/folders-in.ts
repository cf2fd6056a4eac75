import { type FolderListing, join } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import type { Tree } from '../roots/tree';
import { listFolder, type Unseen } from '../walk';

/** File by file: a folder that is one document is copied as what is in it. */
export function* foldersIn(tree: Tree, unseen: (one: Unseen) => void = () => undefined): Generator<FolderListing> {
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(tree, path, unseen);
    if (listing !== null) yield listing;
    for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
  }
}
