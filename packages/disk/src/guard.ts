/**
 * No way out of a volume. A path is taken only in parts that were checked, from a root that is what it was, and never
 * through a link:
 * every folder on the way is looked at before it is entered.
 */
import { accessSync, constants, lstatSync, realpathSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import { failure, type Result, success } from '@nesting/core';
import { codeOf } from '@nesting/core/change';
import { relPathOf } from '@nesting/core/listing';

export interface GuardFault {
  readonly code: 'root-missing' | 'path-refused' | 'path-link' | 'path-missing';
  readonly path: string;
  readonly detail: string;
}

/** The absolute path of something inside `root`; faults for anything that would lead out of it. */
export function inside(root: string, relative: string): Result<string, GuardFault> {
  const checked = relPathOf(relative);
  if (!checked.ok) return failure([{ code: 'path-refused', path: relative, detail: checked.faults[0] ?? '' }]);
  let at: string;
  try {
    at = realpathSync(root);
  } catch (error) {
    return failure([{ code: 'root-missing', path: root, detail: codeOf(error) }]);
  }
  for (const part of checked.value === '' ? [] : checked.value.split('/')) {
    at = join(at, part);
    try {
      if (lstatSync(at).isSymbolicLink()) return failure([{ code: 'path-link', path: relative, detail: part }]);
    } catch (error) {
      return failure([{ code: 'path-missing', path: relative, detail: codeOf(error) }]);
    }
  }
  return success(at);
}

export interface VolumeState {
  readonly state: 'ready' | 'read-only' | 'missing';
  readonly freeBytes: number | null;
}

/** Whether a volume's root is there, may be written to, and has room. */
export function volumeState(root: string): VolumeState {
  try {
    if (!lstatSync(realpathSync(root)).isDirectory()) return { state: 'missing', freeBytes: null };
    const stats = statfsSync(root);
    const freeBytes = stats.bavail * stats.bsize;
    try {
      accessSync(root, constants.W_OK | constants.X_OK);
      return { state: 'ready', freeBytes };
    } catch {
      return { state: 'read-only', freeBytes };
    }
  } catch {
    return { state: 'missing', freeBytes: null };
  }
}
