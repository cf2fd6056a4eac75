/**
 * Version chains: names of one convention that differ in their version alone. Versions are numbers, or letters (`A` …
 * `Z`, `AA`).
 */
import type { Reading, ReadValue } from './pattern/field';
import type { CompiledConvention } from './pattern/ops';
import { readName } from './read/read';

export type Version = number | string;

export interface Chain {
  /** What all names of the chain share: the same for the same values, whatever their order. */
  readonly key: string;
  /** Oldest first; two files may claim one version. */
  readonly versions: readonly { readonly version: Version; readonly names: readonly string[] }[];
  readonly latest: Version;
  /** Versions absent between the first and the latest. */
  readonly gaps: readonly Version[];
}

/** Frames and extensions may differ within what one version is. */
const WITHIN_VERSION: ReadonlySet<string> = new Set(['frame']);

export function chainsOf(convention: CompiledConvention, names: Iterable<string>): Chain[] {
  const chains = new Map<string, Map<number, { version: Version; names: string[] }>>();
  for (const name of names) {
    const reading = readName(convention, name);
    const version = reading === null ? undefined : versionIn(reading);
    if (reading === null || version === undefined) continue;
    const key = keyOf(reading, WITHIN_VERSION);
    const chain = chains.get(key) ?? new Map<number, { version: Version; names: string[] }>();
    chains.set(key, chain);
    const held = chain.get(ordinal(version));
    if (held) held.names.push(name);
    else chain.set(ordinal(version), { version, names: [name] });
  }
  return [...chains].map(([key, chain]) => finished(key, chain)).sort((a, b) => (a.key < b.key ? -1 : 1));
}

/** Gaps are listed up to this many: a chain of 1 and 2026 has no two thousand versions missing. */
const MOST_GAPS = 100;

function finished(key: string, chain: ReadonlyMap<number, { version: Version; names: string[] }>): Chain {
  const ordered = [...chain].sort(([a], [b]) => a - b);
  const versions = ordered.map(([, held]) => ({ version: held.version, names: held.names.sort() }));
  const gaps: Version[] = [];
  ordered.forEach(([n], i) => {
    const before = ordered[i - 1]?.[0] ?? n;
    for (let missing = before + 1; missing < n && gaps.length < MOST_GAPS; missing++)
      gaps.push(versionAt(missing, versions[0]?.version));
  });
  return { key, versions, latest: versions.at(-1)?.version ?? 0, gaps };
}

/**
 * The version after all those that names with these values have, whatever their extension and frame; the first where
 * there are none.
 */
export function nextVersion(convention: CompiledConvention, values: Reading, names: Iterable<string>): Version | null {
  const slot = convention.slots.find((s) => s.field === 'version');
  if (slot === undefined) return null;
  const apart = new Set([...WITHIN_VERSION, 'ext']);
  const key = keyOf(values, apart);
  const like: Version = slot.domain.kind === 'letters' ? (slot.domain.upper ? 'A' : 'a') : 1;
  let last = 0;
  for (const name of names) {
    const reading = readName(convention, name);
    const version = reading === null || keyOf(reading, apart) !== key ? undefined : versionIn(reading);
    if (version !== undefined) last = Math.max(last, ordinal(version));
  }
  return versionAt(last + 1, like);
}

const versionIn = (reading: Reading): Version | undefined => reading.version;

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
