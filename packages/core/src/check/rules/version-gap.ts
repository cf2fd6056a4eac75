import { elementAt, present } from '../../element';
import { grouped } from '../../grouped';
import { type FolderListing, join } from '../../listing/entry';
import { ordinal, versionAt } from '../../name/versions';
import { textHash } from '../../text/hash';
import { chainKey, itemsOf } from '../items';
import { stateOf } from '../match';
import { repeatedIn, rowOf } from '../number-table';
import { type EndCase, type ParamsOf, type RawFinding, rule } from '../rule';

/** Gaps are listed up to this many: a chain of 1 and 2026 has no two thousand versions missing. */
const MOST_GAPS = 20;

const GAP = { name: 'text', missing: 'texts', count: 'count' } as const;

/**
 * Versions missing between the first and the latest of a chain, its older ones counted in. Image sequences have none:
 * not every version is rendered.
 */
export const versionGap = rule({
  code: 'version-gap',
  weight: 'note',
  about: 'file',
  params: GAP,
  remedy: { act: 'none' },
  end: (c) => {
    const { chains, versions } = c.part;
    const broken = repeatedIn(chains.values).flatMap((places) => {
      const held = [...new Set(places.map((place) => elementAt(versions.values, place)))].sort((a, b) => a - b);
      const missing = gapsIn(held);
      return missing.length === 0
        ? []
        : [
            {
              hash: elementAt(chains.values, elementAt(places, 0)),
              latest: elementAt(held, held.length - 1),
              missing,
              rows: places.map((place) => rowOf(chains, place)),
            },
          ];
    });
    return broken.flatMap((chain) => named(c, chain) ?? []);
  },
});

function gapsIn(held: readonly number[]): number[] {
  const gaps: number[] = [];
  for (let i = 1; i < held.length; i++)
    for (let n = elementAt(held, i - 1) + 1; n < elementAt(held, i) && gaps.length <= MOST_GAPS; n++) gaps.push(n);
  return gaps;
}

/** The name of its latest version, found where the hash was from. */
function named(
  { rules, part, again }: EndCase,
  chain: {
    readonly hash: number;
    readonly latest: number;
    readonly missing: readonly number[];
    readonly rows: readonly number[];
  },
): RawFinding<ParamsOf<typeof GAP>> | null {
  for (const [row] of grouped([...chain.rows].reverse(), (row) => row)) {
    const listing: FolderListing | null = again(part.rows[row]?.path ?? '');
    const state = listing === null ? null : stateOf(rules, listing.path);
    if (listing === null || state?.kind !== 'planned') continue;
    const latest = itemsOf(rules, listing, state).read.find(
      ({ by, reading }) =>
        reading.version !== undefined &&
        ordinal(reading.version) === chain.latest &&
        textHash(`${state.line.key}|${chainKey(by, reading)}`) === chain.hash,
    );
    if (latest === undefined) continue;
    const like = present(latest.reading.version);
    const missing = chain.missing.slice(0, MOST_GAPS).map((n) => String(versionAt(n, like)));
    const { file } = latest;
    return {
      path: join(listing.path, file.name),
      subject: `${state.line.key}/${chainKey(latest.by, latest.reading)}`,
      params: { name: file.name, missing, count: chain.missing.length },
      modified: file.modified,
    };
  }
  return null;
}
