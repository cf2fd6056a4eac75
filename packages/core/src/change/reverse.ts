/**
 * Changes, reversed: to undo is to order these anew, never to run steps backwards. What was made is taken back, what
 * was moved goes home, what was
 * rewritten gets its old content; what was taken back comes again.
 */
import { join } from '../listing/entry';
import type { Change, Expected } from './change';
import { KEPT, keptName } from './journal';

/** A change as it was done: where its entry is now, and what the file was when the batch ended. */
export interface Done {
  readonly change: Change;
  /** Otherwise than `after` only where the batch stopped half way; `null` where it is taken back. */
  readonly at: string | null;
  /** Whether its content was written, or replaced. */
  readonly written: boolean;
  readonly left?: Expected | undefined;
}

/** `folder` is the batch's own, from the root; contents that were replaced or taken back are kept in it. */
export function reverseChanges(done: readonly Done[], folder: string): Change[] {
  return done.flatMap(({ change, at, written, left }): Change[] => {
    const { key, what, before } = change;
    if (at === null && before === null) return [];
    const kept = { kind: 'set-aside', path: join(join(folder, KEPT), keptName(key)) } as const;
    // What was written is only taken back, or written over, while it is as it was left.
    const expects = what === 'file' && written && left !== undefined ? { expects: left } : {};
    if (at === null) return [{ key, what, before: null, after: before, content: what === 'file' ? kept : null }];
    const content = written && before !== null ? kept : null;
    // What stayed while its folder went away must be told to stay once more, when that folder comes back.
    if (before === at && content === null && change.before !== change.after) return [];
    return [{ key, what, before: at, after: before, content, ...expects }];
  });
}
