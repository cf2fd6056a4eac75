/** A template file and the starter files beside it, as they are taken into an installation. */
import { readFileSync } from 'node:fs';
import type { FolderNode, Starter, Template } from '@nesting/core/template';
import { inside } from '@nesting/disk';
import { Refused } from '../world';

/** The starter files a template names, from beside it; a path that leads out of the folder is refused. */
export function startersBeside(folder: string, { root, blocks }: Template): Map<string, Uint8Array> {
  const starters = new Map<string, Uint8Array>();
  const take = ({ from }: Starter): void => {
    const path = inside(folder, from);
    if (!path.ok)
      throw new Refused(
        422,
        'starter-missing',
        `The starter file ${from} is not beside the template (${path.faults[0]?.code}).`,
      );
    starters.set(from, readFileSync(path.value));
  };
  const walk = (node: FolderNode): void => {
    node.starters?.forEach(take);
    node.folders?.forEach(walk);
  };
  walk(root);
  for (const block of blocks ?? []) block.folders.forEach(walk);
  return starters;
}
