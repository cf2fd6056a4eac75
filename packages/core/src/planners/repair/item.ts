/** The files of one finding: one, or all frames of a sequence, and what they are called otherwise. */
import { join, nameOf, parentOf } from '../../listing/entry';
import type { Act, RepairCase } from './option';

const NUMBER = /(\d+)(\.[A-Za-z0-9]+)$/;

/** A frame's name without its number; `null` where it has none. */
const cut = (name: string): string | null => {
  const without = name.replace(NUMBER, '#$2');
  return without === name ? null : without;
};

/** Names of all files that the finding is about, as they are in its folder now; the first is the finding's own. */
export function namesOfItem({ finding, listing, file }: RepairCase): readonly string[] {
  if (listing === null || file === null) return [];
  const isSequence = typeof finding.params.frames === 'number' || finding.related.length > 0;
  const without = isSequence ? cut(file.name) : null;
  if (without === null) return [file.name];
  return [
    file.name,
    ...listing.files.flatMap(({ name }) => (name !== file.name && cut(name) === without ? [name] : [])),
  ];
}

/** All of them called as the first one is to be; `null` where the new name has no place for a frame. */
export function renamedItem(names: readonly string[], first: string): readonly (readonly [string, string])[] | null {
  const [name, ...others] = names;
  if (name === undefined) return null;
  if (others.length === 0) return [[name, first]];
  const number = NUMBER.exec(first);
  if (number === null) return null;
  const [head, width, tail] = [first.slice(0, number.index), number[1]?.length ?? 0, number[2]];
  return names.map((old) => {
    const frame = Number(NUMBER.exec(old)?.[1] ?? 0);
    return [old, `${head}${String(frame).padStart(width, '0')}${tail}`];
  });
}

/** The whole item to another folder, or under another name in its own. */
export function movedItem(c: RepairCase, folder: string, name: string): readonly Act[] | null {
  const from = parentOf(c.finding.path);
  const pairs = renamedItem(namesOfItem(c), name);
  if (pairs === null) return null;
  const acts = pairs.flatMap(([old, now]): Act[] =>
    join(from, old) === join(folder, now)
      ? []
      : [{ do: 'move', entry: 'file', from: join(from, old), to: join(folder, now) }],
  );
  return acts.length === 0 ? null : acts;
}

/** A name that nothing in the folder has: with a number behind its stem. */
export function freeName(name: string, taken: ReadonlySet<string>): string {
  const dot = name.lastIndexOf('.') > 0 ? name.lastIndexOf('.') : name.length;
  for (let n = 2; ; n++) {
    const other = `${name.slice(0, dot)}-${n}${name.slice(dot)}`;
    if (!taken.has(other.toLowerCase())) return other;
  }
}

export const takenIn = (c: RepairCase): ReadonlySet<string> =>
  new Set([...(c.listing?.files.map((f) => f.name) ?? []), ...(c.listing?.folders ?? [])].map((n) => n.toLowerCase()));

export const ownName = ({ finding }: RepairCase): string => nameOf(finding.path);
