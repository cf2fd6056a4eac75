/** Which loose files are shown, under which headings: as the address says. */
import type { IntakePlan } from '@nesting/contract';
import { parentOf } from '@nesting/core/listing';
import type { ListItem } from '../../changes/line-list';

export type Item = IntakePlan['items'][number];

export const STATES = ['orphan', 'look', 'comes', 'hindered', 'there', 'twice', 'left', 'system'] as const;
export type State = (typeof STATES)[number];

export const STATE_WORDS: Readonly<Record<State, string>> = {
  orphan: 'No place is known',
  look: 'To look at',
  comes: 'Come in',
  hindered: 'Cannot come so',
  there: 'In the project already',
  twice: 'Here twice',
  left: 'Left here',
  system: 'Left by a program',
};

export const isHindered = ({ state, fault, clash }: Item): boolean => state === 'comes' && (fault !== null || clash);

export const stateOf = (item: Item): State => (isHindered(item) ? 'hindered' : item.state);

export interface Filter {
  readonly state: State | null;
  /** Empty for files of no family. */
  readonly family: string | null;
  readonly find: string;
}

export const filterOf = (params: URLSearchParams): Filter => ({
  state: STATES.find((state) => state === params.get('state')) ?? null,
  family: params.get('family') === '-' ? '' : params.get('family'),
  find: params.get('find') ?? '',
});

/** Paths, days and devices are found by their words. */
export const isShown = (item: Item, { state, family, find }: Filter): boolean =>
  (state === null || stateOf(item) === state) &&
  (family === null || (item.family ?? '') === family) &&
  (find === '' ||
    [item.from, item.to, item.facts.taken, item.facts.device].join('\n').toLowerCase().includes(find.toLowerCase()));

/** A file, or all of a card that become the same. */
export interface Row {
  /** The file, or the card's first. */
  readonly item: Item;
  /** What it is called here. */
  readonly from: string;
  readonly to: string | null;
  readonly files: number;
  readonly bytes: number;
}

/** Cards are one line; where one looks for something, each of their files. */
export function rowsOf(shown: readonly Item[], { cards }: Pick<IntakePlan, 'cards'>, isWhole: boolean): readonly Row[] {
  const rows = new Map<string, Row>();
  for (const item of shown) {
    const { card, from, to, size } = item;
    if (card === null || !isWhole) {
      rows.set(from, { item, from, to, files: 1, bytes: size });
      continue;
    }
    const key = `card ${card} ${stateOf(item)}`;
    const known = rows.get(key);
    const whole = cards.find(({ path }) => path === card);
    const folder = card === '' ? 'The whole card' : card;
    const first = known?.item ?? item;
    rows.set(key, {
      ...{ item: first, from: folder, to: whole?.to ?? null },
      ...{ files: (known?.files ?? 0) + 1, bytes: (known?.bytes ?? 0) + size },
    });
  }
  return [...rows.values()];
}

const GROUPS = ['state', 'from', 'to', 'day', 'device'] as const;
export type Group = (typeof GROUPS)[number];

export const groupOf = (params: URLSearchParams): Group =>
  GROUPS.find((group) => group === params.get('group')) ?? 'state';

function headOf(item: Item, group: Group): string {
  switch (group) {
    case 'state':
      return STATE_WORDS[stateOf(item)];
    case 'from':
      return parentOf(item.from) || 'In no folder';
    case 'to':
      return item.to === null ? STATE_WORDS.orphan : parentOf(item.to);
    case 'day':
      return item.facts.taken?.slice(0, 10) ?? 'No day is known';
    case 'device':
      return item.facts.device ?? 'No device is known';
  }
}

/** What has to be looked at comes first. */
export function itemsOf(rows: readonly Row[], group: Group): ListItem<Row>[] {
  const heads = new Map<string, Row[]>(group === 'state' ? STATES.map((state) => [STATE_WORDS[state], []]) : []);
  for (const row of rows) {
    const head = headOf(row.item, group);
    const known = heads.get(head);
    if (known === undefined) heads.set(head, [row]);
    else known.push(row);
  }
  return [...heads]
    .filter(([, inside]) => inside.length > 0)
    .flatMap(([words, inside]): ListItem<Row>[] => [
      {
        ...{ kind: 'head', key: `head ${words}`, words, isPath: group === 'from' || group === 'to' },
        note: String(inside.reduce((sum, { files }) => sum + files, 0)),
      },
      ...inside.map((line): ListItem<Row> => ({ kind: 'line', key: line.item.from, line })),
    ]);
}
