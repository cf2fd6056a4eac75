/** Samples of one build, laid under each other: columns, some of them not in every name. */
import { elementAt, present } from '../../element';
import type { Kind, Sample, Token } from './tokens';

export interface Column {
  readonly before: string;
  /** Kinds met, and how many names have the column at all. */
  readonly kinds: ReadonlySet<Kind>;
  readonly prefixes: ReadonlySet<string>;
  readonly optional: boolean;
  /** Some of its values: of two texts side by side the one is meant that has the same words. */
  readonly values: ReadonlySet<string>;
  /** Digits most versions have; nought where the column holds none. */
  readonly width: number;
}

/** Names that one convention may be learned from. */
export interface Heap {
  readonly columns: readonly Column[];
  /** For each sample its token in each column, `null` where it has none. */
  readonly rows: readonly { readonly sample: Sample; readonly cells: readonly (Token | null)[] }[];
}

/** Values of a column that are compared. */
const MOST_VALUES = 200;
/** What no value in common costs, where nothing else tells two columns apart. */
const OTHER_WORDS = 0.05;

const TEXTS: ReadonlySet<Kind> = new Set(['lower', 'upper', 'mixed', 'open']);
const NEVER = Number.POSITIVE_INFINITY;
/** A column that is not in every name; two of them at the most. */
const OPTIONAL = 2;
const MOST_COST = 4.2;
/** Builds whose files are of different families are rather of different conventions. */
const OTHER_FAMILY = 2.5;
const HARDLY = 0.5;
/** And so are those whose versions are padded otherwise. */
const OTHER_WIDTH = 2;
/** Builds looked at: the rest of a very mixed heap is told as misfits. */
const MOST_BUILDS = 200;

/**
 * Mixed heaps part into builds (kinds and separators in their order); builds that differ a little are one. Rare builds
 * are misfits.
 */
export function heapsOf(
  samples: readonly Sample[],
  familyOf: (ext: string) => string,
): { heaps: Heap[]; misfits: Sample[] } {
  const builds = new Map<string, Sample[]>();
  for (const sample of samples) {
    const kinds = sample.tokens.map(
      (t) => `${t.before}${t.kind}${t.prefix}${t.kind === 'version' ? t.text.length : ''}`,
    );
    const key = [...kinds, sample.tail, sample.ext === '' ? '' : `.${familyOf(sample.ext)}`].join('\0');
    const held = builds.get(key);
    if (held) held.push(sample);
    else builds.set(key, [sample]);
  }
  const rare = Math.max(2, Math.ceil(samples.length * 0.03));
  const ordered = [...builds.values()].sort((a, b) => b.length - a.length);
  const misfits: Sample[] = [];
  const heaps: Heap[] = [];
  ordered.forEach((build, i) => {
    const heap = heapOf(build);
    const few = build.length < rare;
    const homes = heaps
      .map((home, index) => ({
        index,
        joined: join(home, heap, few, sharesFamily(home, heap, familyOf) ? 0 : OTHER_FAMILY),
      }))
      .filter((h) => h.joined.cost <= MOST_COST)
      .sort((a, b) => a.joined.cost - b.joined.cost);
    const [best] = homes;
    // A rare build that is like another one but for the kind of a text is a slip in that text, or its proper spelling:
    // typing the column decides.
    if (best !== undefined && i < MOST_BUILDS && (!few || best.joined.cost < OPTIONAL))
      heaps[best.index] = present(best.joined.heap);
    else if (!few && i < MOST_BUILDS) heaps.push(heap);
    else misfits.push(...build);
  });
  return { heaps, misfits };
}

function heapOf(build: readonly Sample[]): Heap {
  const first = elementAt(build, 0);
  return {
    columns: first.tokens.map((t, i) => ({
      before: t.before,
      kinds: new Set([t.kind]),
      prefixes: new Set([t.prefix]),
      optional: false,
      values: new Set(build.slice(0, MOST_VALUES).map(({ tokens }) => elementAt(tokens, i).text)),
      width: t.kind === 'version' ? usualWidth(build, i) : 0,
    })),
    rows: build.map((sample) => ({ sample, cells: sample.tokens })),
  };
}

function usualWidth(build: readonly Sample[], column: number): number {
  const counts = new Map<number, number>();
  for (const { tokens } of build) {
    const length = elementAt(tokens, column).text.length;
    counts.set(length, (counts.get(length) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}

/** Lays one heap's columns along another's: the cheapest way, absent columns becoming optional. */
function join(home: Heap, other: Heap, few: boolean, apart: number): { cost: number; heap: Heap | null } {
  const a = home.columns;
  const b = other.columns;
  if (
    (home.rows[0]?.sample.ext === '') !== (other.rows[0]?.sample.ext === '') ||
    home.rows[0]?.sample.tail !== other.rows[0]?.sample.tail ||
    Math.abs(a.length - b.length) > 2 ||
    a.length === 0 ||
    b.length === 0
  )
    return { cost: NEVER, heap: null };
  const width = b.length + 1;
  const cost = new Array<number>((a.length + 1) * width).fill(NEVER);
  cost[0] = 0;
  const at = (i: number, j: number) => elementAt(cost, i * width + j);
  for (let i = 0; i <= a.length; i++) {
    for (let j = 0; j <= b.length; j++) {
      if (i > 0 && j > 0)
        cost[i * width + j] = Math.min(
          at(i, j),
          at(i - 1, j - 1) + match(elementAt(a, i - 1), elementAt(b, j - 1), few),
        );
      // The first column has no separator of its own to be left out with.
      if (i > 1)
        cost[i * width + j] = Math.min(at(i, j), at(i - 1, j) + (elementAt(a, i - 1).optional ? 0.1 : OPTIONAL));
      if (j > 1) cost[i * width + j] = Math.min(at(i, j), at(i, j - 1) + OPTIONAL);
    }
  }
  const rest = at(a.length, b.length);
  // One build with files of two families is one convention all the same.
  const whole = rest < HARDLY ? rest : rest + apart;
  if (whole > MOST_COST) return { cost: NEVER, heap: null };
  const pairs: [number | null, number | null][] = [];
  for (let i = a.length, j = b.length; i > 0 || j > 0; ) {
    if (i > 0 && j > 0 && at(i, j) === at(i - 1, j - 1) + match(elementAt(a, i - 1), elementAt(b, j - 1), few))
      pairs.unshift([--i, --j]);
    else if (i > 1 && at(i, j) === at(i - 1, j) + (elementAt(a, i - 1).optional ? 0.1 : OPTIONAL))
      pairs.unshift([--i, null]);
    else pairs.unshift([null, --j]);
  }
  // Two builds are of one convention only where most of it is alike.
  const alike = pairs.filter(([i, j]) => i !== null && j !== null).length;
  if (alike < Math.max(2, 0.6 * pairs.length) && pairs.length > 1) return { cost: NEVER, heap: null };
  return { cost: whole, heap: joined(home, other, pairs) };
}

function match(a: Column, b: Column, few: boolean): number {
  if (a.before !== b.before) return NEVER;
  const [x, y] = [elementAt([...a.kinds], 0), elementAt([...b.kinds], 0)];
  if (x === 'version' && y === 'version')
    return same(a.prefixes, b.prefixes) ? (a.width === b.width ? 0 : OTHER_WIDTH) : NEVER;
  if (x === 'coded' && y === 'coded') return same(a.prefixes, b.prefixes) ? 0 : 1;
  const apart = [...a.values].some((value) => b.values.has(value)) ? 0 : OTHER_WORDS;
  if (x === y) return TEXTS.has(x) ? apart : 0;
  const text = (kind: Kind) => TEXTS.has(kind);
  if (text(x) && text(y)) return 1 + apart;
  // A word like `act2` now and then is a text; where there are many of them they are a part of their own.
  if ((text(x) && (y === 'digits' || y === 'coded')) || (text(y) && (x === 'digits' || x === 'coded')))
    return few ? 1.5 : MOST_COST;
  return NEVER;
}

function sharesFamily(home: Heap, other: Heap, familyOf: (ext: string) => string): boolean {
  const families = new Set(home.rows.map((row) => familyOf(row.sample.ext)));
  return other.rows.some((row) => families.has(familyOf(row.sample.ext)));
}

const same = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean => [...b].every((prefix) => a.has(prefix));

function joined(home: Heap, other: Heap, pairs: readonly (readonly [number | null, number | null])[]): Heap {
  const column = ([i, j]: readonly [number | null, number | null]): Column => {
    const x = i === null ? undefined : home.columns[i];
    const y = j === null ? undefined : other.columns[j];
    return {
      before: (x ?? y)?.before ?? '',
      kinds: new Set([...(x?.kinds ?? []), ...(y?.kinds ?? [])]),
      prefixes: new Set([...(x?.prefixes ?? []), ...(y?.prefixes ?? [])]),
      values: new Set([...(x?.values ?? []), ...(y?.values ?? [])].slice(0, MOST_VALUES)),
      width: (x ?? y)?.width ?? 0,
      optional: x === undefined || y === undefined || x.optional || y.optional,
    };
  };
  return {
    columns: pairs.map(column),
    rows: [
      ...home.rows.map((row) => ({
        sample: row.sample,
        cells: pairs.map(([i]) => (i === null ? null : (row.cells[i] ?? null))),
      })),
      ...other.rows.map((row) => ({
        sample: row.sample,
        cells: pairs.map(([, j]) => (j === null ? null : (row.cells[j] ?? null))),
      })),
    ],
  };
}
