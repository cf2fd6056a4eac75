import { grouped } from '../../grouped';
import { join } from '../../listing/entry';
import type { Reading } from '../../name/field';
import { readName } from '../../name/read';
import { ordinal } from '../../name/versions';
import type { FolderCase, Found, Rule } from '../rule';

interface Version {
  readonly name: string;
  readonly n: number;
  readonly person: string;
}

/** Of each chain in a folder that keeps older versions elsewhere: its versions, whoever saved them. */
const known = new WeakMap<FolderCase, Map<string, Version[]>>();

function chainsIn(c: FolderCase): Map<string, Version[]> {
  const { ground, listing, state } = c;
  const before = known.get(c);
  if (before !== undefined) return before;
  const chains = new Map<string, Version[]>();
  known.set(c, chains);
  if (state.kind !== 'planned' || state.older || state.line.folder?.older === undefined) return chains;
  const conventions = ground.conventionsIn(state.line).filter((c) => c.strict.slots.some((s) => s.field === 'version'));
  for (const file of listing.files) {
    if (ground.isSettling(file.modified)) continue;
    for (const { strict, bound } of conventions) {
      const reading = readName(strict, file.name, bound);
      if (reading?.version === undefined) continue;
      const key = keyOf(reading);
      chains.set(key, [...(chains.get(key) ?? []), { name: file.name, n: ordinal(reading.version), person: String(reading.person ?? '') }]);
      break;
    }
  }
  return chains;
}

const APART: ReadonlySet<string> = new Set(['version', 'person', 'frame']);
const keyOf = (reading: Reading): string => JSON.stringify(Object.entries(reading).filter(([field]) => !APART.has(field)).sort(([a], [b]) => (a < b ? -1 : 1)));

/** Superseded versions that should be in the folder kept for them. */
export const oldVersionOnTop: Rule = {
  code: 'old-version-on-top',
  scope: 'folder',
  judge: (c) =>
    [...chainsIn(c)].flatMap(([key, chain]): Found[] => {
      const latest = Math.max(...chain.map((v) => v.n));
      const old = chain.filter((v) => v.n < latest).map((v) => v.name).sort();
      const older = c.state.kind === 'planned' ? (c.state.line.folder?.older?.folder ?? '') : '';
      return old.length === 0 ? [] : [{ path: join(c.listing.path, old[0] as string), subject: `${c.listing.path}/${key}`, params: { name: old[0] as string, count: old.length, folder: older, latest: chain.find((v) => v.n === latest)?.name ?? '' }, related: old.slice(1).map((n) => join(c.listing.path, n)) }];
    }),
};

/** Two files that claim one version: two people saved at once. */
export const versionTwice: Rule = {
  code: 'version-twice',
  scope: 'folder',
  judge: (c) =>
    [...chainsIn(c)].flatMap(([key, chain]) =>
      [...grouped(chain, (v) => v.n)].flatMap(([n, same]): Found[] => {
        const names = same.map((v) => v.name).sort();
        return names.length < 2 ? [] : [{ path: join(c.listing.path, names[0] as string), subject: `${c.listing.path}/${key}/${n}`, params: { name: names[0] as string, others: names.slice(1) }, related: names.slice(1).map((name) => join(c.listing.path, name)) }];
      }),
    ),
};
