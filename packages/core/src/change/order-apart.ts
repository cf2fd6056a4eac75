import { clashKey } from '../portable/name';
import type { Change, Step } from './change';
import { folderOf } from './place';

/**
 * Files that only get other names, none of them another's: most plans of many lines are so, and need no tree. `null`
 * where it is not so simple.
 */
export function orderApart(changes: readonly Change[]): readonly Step[] | null {
  const places = new Set<string>();
  const steps: Extract<Step, { do: 'move' }>[] = [];
  const root = changes[0]?.before?.root;
  for (const { id, entry, before, after, content } of changes) {
    if (entry !== 'file' || before === null || after === null || content !== null) return null;
    if (before.root !== root || after.root !== root) return null;
    places.add(clashKey(before.path));
    places.add(clashKey(after.path));
    steps.push({ id, do: 'move', from: before, at: after });
  }
  // Every name is there once, before and after taken together, and none is another's folder: no order can matter.
  const apart =
    places.size === 2 * steps.length && steps.every((step) => !places.has(clashKey(folderOf(step.at).path)));
  return apart ? steps : null;
}
