import { elementAt } from '../../element';
import type { Registers, Value } from '../../name/pattern/field';
import type { Instance, Known, ListMade } from './derived';
import type { Seen } from './tree';

/** `26014_QHT_harbour-lights` says its number, client and title by itself. */
export function guessKnown(root: string, given: Known, registers: Registers): Known {
  const parts = root.split('_');
  const number = given.number ?? parts.find((p) => /^\d{3,8}$/.test(p));
  const client = given.client ?? parts.find((p) => registers.clients.some((c) => c.code === p));
  const rest = parts.filter((p) => p !== number && p !== client);
  const title =
    given.title ?? (rest.length === 1 && number !== undefined ? elementAt(rest, 0).replace(/-/g, ' ') : undefined);
  return { ...given, number, client, title };
}

export const same = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean =>
  a.size === b.size && [...a].every((x) => b.has(x));

/** What all instances hold, each name once. */
export function mergeSeen(instances: readonly Instance[]): Seen {
  const [first] = instances;
  if (instances.length === 1 && first !== undefined) return first.seen;
  const folders = new Map<string, Seen[]>();
  for (const { seen } of instances)
    for (const child of seen.folders) folders.set(child.name, [...(folders.get(child.name) ?? []), child]);
  return {
    name: first?.seen.name ?? '',
    folders: [...folders]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([name, all]) =>
        all.length === 1
          ? elementAt(all, 0)
          : {
              name,
              folders: mergeSeen(all.map((seen) => ({ seen, entries: {}, path: '' }))).folders,
              files: all.flatMap((s) => s.files),
            },
      ),
    files: instances.flatMap(({ seen }) => seen.files),
  };
}

export function entriesValue({ within, by }: ListMade): Value {
  if (within === null) return [...new Set([...by.values()].flatMap((set) => [...set]))];
  return Object.fromEntries([...by].map(([outer, set]) => [outer, [...set]]));
}

export const plural = (word: string): string => (/[^aeiou]y$/.test(word) ? `${word.slice(0, -1)}ies` : `${word}s`);

export const nameless = (pattern: string): string => pattern.replace(/\{[^}]*\}/g, '');
