/**
 * Version chains: names of one convention that differ in their version, and in its state, alone. Versions are numbers,
 * or letters (`A` … `Z`, `AA`); states are words in an order, such as *draft* and *issued*.
 */
import type { Reading, ReadValue } from './pattern/field';
import type { CompiledConvention } from './pattern/ops';
import { readName } from './read/read';

export type Version = number | string;

/** How far a version is: by its number or letter, and then by its state. */
export function versionRank({ states }: Pick<CompiledConvention, 'states'>, reading: Reading): number {
  if (reading.version === undefined) return 0;
  const state = states === null ? 0 : Math.max(0, states.words.indexOf(String(reading[states.field] ?? '')));
  return ordinal(reading.version) + state / (1 + (states?.words.length ?? 0));
}

/** Values of a version that begins: of its states the first, where the name carries one. */
export function withFirstState<V>(
  { states }: Pick<CompiledConvention, 'states'>,
  values: Readonly<Record<string, V>>,
): Readonly<Record<string, V | string>> {
  const first = states?.words[0];
  return states === null || first === undefined ? values : { ...values, [states.field]: first };
}

/** Frames and extensions may differ within what one version is. */
const WITHIN_VERSION: ReadonlySet<string> = new Set(['frame']);

/**
 * The version after all those that names with these values have, whatever their extension and frame; the first where
 * there are none. A later state of the newest one is no new version: A is issued after it was a draft.
 */
export function nextVersion(convention: CompiledConvention, values: Reading, names: Iterable<string>): Version | null {
  const slot = convention.slots.find((s) => s.field === 'version');
  if (slot === undefined) return null;
  const apart = new Set([...WITHIN_VERSION, 'ext', ...(convention.states === null ? [] : [convention.states.field])]);
  const key = keyOf(values, apart);
  const like: Version = slot.domain.kind === 'letters' ? (slot.domain.upper ? 'A' : 'a') : 1;
  let last = 0;
  for (const name of names) {
    const reading = readName(convention, name);
    if (reading !== null && keyOf(reading, apart) === key) last = Math.max(last, versionRank(convention, reading));
  }
  const newest = Math.floor(last);
  const isLater = newest > 0 && versionRank(convention, { ...values, version: newest }) > last;
  return versionAt(isLater ? newest : newest + 1, like);
}

function keyOf(reading: Reading, without: ReadonlySet<string>): string {
  const held = Object.entries(reading).filter(([field]) => field !== 'version' && !without.has(field));
  return JSON.stringify(held.sort(([a]: [string, ReadValue], [b]: [string, ReadValue]) => (a < b ? -1 : 1)));
}

/** 1, 2, 3 … for numbers and for `A`, `B` … `Z`, `AA`. */
export function ordinal(version: Version): number {
  if (typeof version === 'number') return version;
  return [...version.toUpperCase()].reduce((n, letter) => n * 26 + letter.charCodeAt(0) - 64, 0);
}

/** The version of that ordinal, in the manner of `like`. */
export function versionAt(n: number, like: Version | undefined): Version {
  if (typeof like !== 'string') return n;
  let text = '';
  for (let rest = n; rest > 0; rest = Math.floor((rest - 1) / 26))
    text = String.fromCharCode(65 + ((rest - 1) % 26)) + text;
  return like === like.toLowerCase() ? text.toLowerCase() : text;
}
