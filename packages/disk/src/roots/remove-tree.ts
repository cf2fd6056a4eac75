/** Removes a folder of the program's own with all that is in it. Links in it go themselves; they lead nowhere. */
import { readdirSync, rmdirSync, unlinkSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import type { Root } from './root';

/** Nothing there is fine. */
export function removeTree(root: Root, path: string): void {
  try {
    remove(root, path);
  } catch (error) {
    if (codeOf(error) !== 'ENOENT') throw error;
  } finally {
    root.forget();
  }
}

function remove(root: Root, path: string): void {
  let names: string[];
  try {
    names = readdirSync(root.folder(path).self);
  } catch (error) {
    if (codeOf(error) !== 'ENOTDIR' && codeOf(error) !== 'ELOOP') throw error;
    unlinkSync(root.at(path));
    return;
  }
  for (const name of names) remove(root, join(path, name));
  rmdirSync(root.at(path));
}
