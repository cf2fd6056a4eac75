/** A template file and the starter files beside it, as they are taken into an installation. */

import { LIMITS } from '@nesting/core';
import { starterPaths, type Template } from '@nesting/core/template';
import { inRoot, readPlain } from '@nesting/disk';
import { Refused } from '../world';

/**
 * The starter files a template names, from beside it; a path that leads out of the folder is refused. For programs of
 * one act: it reads in the thread that asks.
 */
export function startersBeside(folder: string, template: Template): Map<string, Uint8Array> {
  return inRoot(
    { base: folder, folder: '' },
    (beside) =>
      new Map(
        starterPaths(template).map((from) => {
          try {
            return [from, readPlain(beside, from, LIMITS.starterBytes)];
          } catch (_error) {
            throw new Refused('starter-missing', { path: from });
          }
        }),
      ),
  );
}
