import { grouped } from '../../grouped';
import { join } from '../../listing/entry';
import { ordinal, versionRank } from '../../name/versions';
import { Remembered } from '../../remembered';
import { chainKey } from '../items';
import { type FolderCase, type ParamsOf, type RawFinding, rule } from '../rule';

interface Version {
  readonly name: string;
  /** How far it is: two of one version may be in two states. */
  readonly n: number;
  readonly version: number;
  readonly person: string;
  readonly modified: number;
}

/**
 * Of each chain in a folder that keeps older versions elsewhere, or is that folder: its versions, whoever saved them.
 */
const chainsIn = new Remembered(({ rules, items, state }: FolderCase): Map<string, Version[]> => {
  const chains = new Map<string, Version[]>();
  if (state.kind !== 'planned' || state.line.folder?.older === undefined) return chains;
  for (const { file, by, reading } of items.read) {
    if (reading.version === undefined || rules.isSettling(file.modified)) continue;
    const key = chainKey(by, reading);
    const chain = chains.get(key) ?? [];
    chains.set(key, chain);
    chain.push({
      name: file.name,
      n: versionRank(by.strict, reading),
      version: ordinal(reading.version),
      person: String(reading.person ?? ''),
      modified: file.modified,
    });
  }
  return chains;
});

const newestOf = (versions: readonly Version[]): number =>
  versions.reduce((newest, v) => Math.max(newest, v.modified), 0);

const OLD = { name: 'text', count: 'count', folder: 'text?', latest: 'text?', keep: 'count?' } as const;
type Old = RawFinding<ParamsOf<typeof OLD>>;

/** Superseded versions that should be in the folder kept for them, and more kept there than the rule says. */
export const oldVersionOnTop = rule({
  code: 'old-version-on-top',
  weight: 'note',
  about: 'file',
  params: OLD,
  remedy: { act: 'move', to: 'older' },
  folder: (c) =>
    [...chainsIn.of(c)].flatMap(([key, chain]) =>
      c.state.kind === 'planned' && c.state.older ? tooMany(c, key, chain) : onTop(c, key, chain),
    ),
});

function onTop(c: FolderCase, key: string, chain: readonly Version[]): Old[] {
  const latest = Math.max(...chain.map((v) => v.n));
  const old = chain.filter((v) => v.n < latest).sort((a, b) => (a.name < b.name ? -1 : 1));
  const first = old[0];
  if (first === undefined || c.state.kind !== 'planned') return [];
  const params = {
    name: first.name,
    count: old.length,
    folder: c.state.line.folder?.older?.folder ?? '',
    latest: chain.find((v) => v.n === latest)?.name ?? '',
  };
  return [
    {
      path: join(c.listing.path, first.name),
      subject: `${c.listing.path}/${key}`,
      params,
      related: old.slice(1).map((v) => join(c.listing.path, v.name)),
      modified: newestOf(old),
    },
  ];
}

function tooMany(c: FolderCase, key: string, chain: readonly Version[]): Old[] {
  const keep = c.state.kind === 'planned' ? c.state.line.folder?.older?.keep : undefined;
  if (keep === undefined) return [];
  const versions = [...new Set(chain.map((v) => v.version))].sort((a, b) => b - a);
  const over = new Set(versions.slice(keep));
  const old = chain.filter((v) => over.has(v.version)).sort((a, b) => (a.name < b.name ? -1 : 1));
  const first = old[0];
  return first === undefined
    ? []
    : [
        {
          path: join(c.listing.path, first.name),
          subject: `${c.listing.path}/${key}`,
          params: { name: first.name, count: old.length, keep },
          related: old.slice(1).map((v) => join(c.listing.path, v.name)),
          modified: newestOf(old),
        },
      ];
}

/** Two files that claim one version: two people saved at once. */
export const versionTwice = rule({
  code: 'version-twice',
  weight: 'must',
  about: 'file',
  params: { name: 'text', others: 'texts' },
  remedy: { act: 'choose', among: ['next-version', 'another-name'] },
  folder: (c) =>
    c.state.kind === 'planned' && c.state.older
      ? []
      : [...chainsIn.of(c)].flatMap(([key, chain]) =>
          [...grouped(chain, (v) => v.n)].flatMap(([n, same]) => {
            const [first = '', ...others] = same.map((v) => v.name).sort();
            return others.length === 0
              ? []
              : [
                  {
                    path: join(c.listing.path, first),
                    subject: `${c.listing.path}/${key}/${n}`,
                    params: { name: first, others },
                    related: others.map((name) => join(c.listing.path, name)),
                    modified: newestOf(same),
                  },
                ];
          }),
        ),
});
