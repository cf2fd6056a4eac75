/** Which files are shown, under which headings: as the address says. */
import type { CarryPlan } from '@nesting/contract';
import { parentOf } from '@nesting/core/listing';
import type { ListItem } from '../../changes/line-list';

export type Item = CarryPlan['items'][number];

export const STATES = ['comes', 'hindered', 'stays', 'same', 'hand'] as const;
export type State = (typeof STATES)[number];
export const STATE_WORDS: Readonly<Record<State, string>> = {
  comes: 'Come along',
  hindered: 'Cannot come so',
  stays: 'Stay behind',
  same: 'Called alike in both',
  hand: 'Said by hand',
};

export const isHindered = ({ comes, fault, clash }: Item): boolean => comes && (fault !== null || clash);

export const isOf = (item: Item, state: State, isPicked: (path: string) => boolean): boolean => {
  switch (state) {
    case 'comes':
      return item.comes && !isHindered(item);
    case 'hindered':
      return isHindered(item);
    case 'stays':
      return !item.comes;
    case 'same':
      return item.comes && item.by === 'same';
    case 'hand':
      return isPicked(item.from);
  }
};

export interface Filter {
  readonly state: State | null;
  /** Empty for files of no family. */
  readonly family: string | null;
  readonly find: string;
  /** Everything in it. */
  readonly folder: string | null;
}

export const filterOf = (params: URLSearchParams): Filter => ({
  state: STATES.find((state) => state === params.get('state')) ?? null,
  family: params.get('family') === '-' ? '' : params.get('family'),
  find: params.get('find') ?? '',
  folder: params.get('in'),
});

export function isShown(
  item: Item,
  { state, family, find, folder }: Filter,
  isPicked: (path: string) => boolean,
): boolean {
  return (
    (state === null || isOf(item, state, isPicked)) &&
    (family === null || (item.family ?? '') === family) &&
    (folder === null || parentOf(item.from) === folder || item.from.startsWith(`${folder}/`)) &&
    (find === '' || `${item.from}\n${item.to}`.toLowerCase().includes(find.toLowerCase()))
  );
}

export function itemsOf(shown: readonly Item[], isByFamily: boolean): ListItem<Item>[] {
  const headOf = (item: Item) =>
    isByFamily ? (item.family ?? 'Other files') : parentOf(item.from) || 'the project’s root';
  const heads = new Map<string, Item[]>();
  for (const item of shown) {
    const known = heads.get(headOf(item));
    if (known === undefined) heads.set(headOf(item), [item]);
    else known.push(item);
  }
  return [...heads].flatMap(([words, inside]): ListItem<Item>[] => [
    { kind: 'head', key: `head ${words}`, words, isPath: !isByFamily, note: noteOf(inside) },
    ...inside.map((line): ListItem<Item> => ({ kind: 'line', key: line.from, line })),
  ]);
}

function noteOf(inside: readonly Item[]): string {
  const coming = inside.filter((item) => item.comes).length;
  return coming === inside.length ? String(coming) : `${coming} of ${inside.length}`;
}

/** A reference that a person may care about, and what can be done about it. */
export interface RefRow {
  readonly key: string;
  readonly kind: 'needed' | 'referring' | 'outside' | 'by-hand';
  readonly document: string;
  readonly target: string;
  /** Where it is to point; `null` where nobody can tell. */
  readonly to: string | null;
  /** The file that would be taken along. */
  readonly taken: string | null;
}

export const REF_WORDS: Readonly<Record<RefRow['kind'], string>> = {
  needed: 'Needed by what comes, and stays behind',
  referring: 'Refers to what comes, and stays behind',
  outside: 'Refers to what lies outside the project',
  'by-hand': 'To be pointed to its new place by hand',
};

export function refRows(plan: CarryPlan): readonly RefRow[] {
  const row = (kind: RefRow['kind'], one: { document: string; target: string }, more: Partial<RefRow>): RefRow => ({
    ...{ key: `${kind} ${one.document} ${one.target}`, kind, document: one.document, target: one.target },
    ...{ to: null, taken: null, ...more },
  });
  return [
    ...plan.needed.map((one) => row('needed', one, { taken: one.target })),
    ...plan.referring.map((one) => row('referring', one, { taken: one.document })),
    ...plan.outside.map((one) => row('outside', one, {})),
    ...plan.byHand.map((one) => row('by-hand', one, { to: one.to })),
  ];
}

/** The line that a reference means: a file by its path, a sequence by its place of frames. */
export const takenPath = (items: readonly Item[], path: string): string =>
  items.some(({ from }) => from === path) ? path : path.replace(/#+|%0?\d*d/, '#');

/** That it comes along. */
export const takenBy = (plan: Pick<CarryPlan, 'items'> | undefined, path: string) => ({
  [takenPath(plan?.items ?? [], path)]: { comes: true },
});

export function refItems(rows: readonly RefRow[], totals: CarryPlan['totals']): ListItem<RefRow>[] {
  const all = { needed: totals.needed, referring: totals.referring, outside: totals.outside, 'by-hand': totals.byHand };
  return (['needed', 'referring', 'outside', 'by-hand'] as const).flatMap((kind): ListItem<RefRow>[] => {
    const inside = rows.filter((row) => row.kind === kind);
    if (inside.length === 0) return [];
    const note = all[kind] > inside.length ? `the first ${inside.length} of ${all[kind]}` : String(inside.length);
    return [
      { kind: 'head', key: `head ${kind}`, words: REF_WORDS[kind], note },
      ...inside.map((line): ListItem<RefRow> => ({ kind: 'line', key: line.key, line })),
    ];
  });
}
