/**
 * Changes, reversed: to undo is to order these anew, never to run steps backwards. What was made is taken back, what
 * was moved goes home, what was rewritten gets its old content; what was taken back comes again.
 */
import type { Change, Expected } from './change';
import { isSamePlace, type Place } from './place';

/** A change as it was done: where its entry is now, and what the file was when the batch ended. */
export interface Done {
  readonly change: Change;
  /** Otherwise than `after` only where the batch stopped half way; `null` where it is taken back. */
  readonly at: Place | null;
  /** Where its old content, or all of it, is kept. */
  readonly kept: Place | null;
  /** Whether its content was written, or replaced. */
  readonly isWritten: boolean;
  readonly left?: Expected | undefined;
}

export function reverseChanges(done: readonly Done[]): Change[] {
  return done.flatMap(({ change, at, kept, isWritten, left }): Change[] => {
    const { id, subject, group, entry, before } = change;
    if (at === null && before === null) return [];
    const same = { id, subject, group, entry };
    const old = kept === null ? null : ({ kind: 'set-aside', from: kept } as const);
    // What was written is only taken back, or written over, while it is as it was left.
    const expects = entry === 'file' && isWritten && left !== undefined ? { expects: left } : {};
    if (at === null) return [{ ...same, before: null, after: before, content: old }];
    // A folder that was set aside whole, and came back whole, goes whole again.
    const isWhole = before === null && entry === 'folder' && change.content !== null && { isWhole: true };
    const content = isWritten && before !== null ? old : null;
    // What stayed while its folder went away must be told to stay once more, when that folder comes back.
    const isHome = before !== null && isSamePlace(before, at) && content === null;
    const wasToStay = before !== null && change.after !== null && isSamePlace(before, change.after);
    if (isHome && !wasToStay) return [];
    return [{ ...same, before: at, after: before, content, ...expects, ...isWhole }];
  });
}
