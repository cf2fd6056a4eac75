/** Folders beside the project's own that loose files are brought from, and copied to once more. */
import { HOME, type RootId, rootIdOf } from '@nesting/core/change';
import { inRoot, type Root } from '@nesting/disk';
import type { Options } from './input';
import { requireFolder } from './project-folder';

/** What a batch knows the loose files by. */
export const HEAP = rootIdOf('heap');
/** What a batch knows the second copies by. */
export const SECOND = rootIdOf('second');

/** Opened for the work; those that were not named are not there for it. */
export function withBroughtRoots<T>(
  home: string,
  { from, second }: Pick<Options, 'from' | 'second'>,
  work: (roots: ReadonlyMap<RootId, Root>) => T,
): T {
  const named: readonly (readonly [RootId, string | undefined])[] = [
    [HOME, home],
    [HEAP, from],
    [SECOND, second],
  ];
  const open = (at: number, roots: ReadonlyMap<RootId, Root>): T => {
    const next = named[at];
    if (next === undefined) return work(roots);
    const [id, base] = next;
    if (base === undefined) return open(at + 1, roots);
    if (id !== HOME) requireFolder(base);
    return inRoot({ base, folder: '' }, (root) => open(at + 1, new Map([...roots, [id, root]])));
  };
  return open(0, new Map());
}
