/** A folder's listing as a check and a plan see it: folders that are one document stand among the files. */
import { type FolderListing, join } from '@nesting/core/listing';
import { documentsAsFiles, type Inside, type ProjectRules } from '@nesting/core/project';
import type { Tree } from './roots/tree';
import { listFolder, type Unseen } from './walk';

export function listItems(
  tree: Tree,
  rules: ProjectRules,
  path: string,
  unseen: (unseen: Unseen) => void,
): FolderListing | null {
  const listing = listFolder(tree, path, unseen);
  if (listing === null || !rules.documents.anyFolders) return listing;
  return documentsAsFiles(rules.isDocumentFolder, listing, (document) => insideOf(tree, document, unseen));
}

function insideOf(tree: Tree, document: string, unseen: (unseen: Unseen) => void): Inside {
  let [size, modified] = [0, 0];
  const queue = [document];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(tree, path, unseen);
    for (const file of listing?.files ?? []) {
      size += file.size;
      modified = Math.max(modified, file.modified);
    }
    for (const name of listing?.folders ?? []) queue.push(join(path, name));
  }
  return { size, modified };
}
