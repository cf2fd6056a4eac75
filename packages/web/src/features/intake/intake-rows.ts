/** Which loose files are shown, under which headings: as the address says. */
import type { IntakePlan } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import { frameless } from '@nesting/core/name';
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
  /** Only what was made otherwise than was agreed. */
  readonly isDiffering: boolean;
}

export const filterOf = (params: URLSearchParams): Filter => ({
  state: STATES.find((state) => state === params.get('state')) ?? null,
  family: params.get('family') === '-' ? '' : params.get('family'),
  find: params.get('find') ?? '',
  isDiffering: params.get('agreed') === 'no',
});

/** Paths, days and devices are found by their words. */
export const isShown = (item: Item, { state, family, find, isDiffering }: Filter): boolean =>
  (!isDiffering || differingOf(item) > 0) &&
  (state === null || stateOf(item) === state) &&
  (family === null || (item.family ?? '') === family) &&
  (find === '' ||
    [item.from, item.to, item.facts.taken, item.facts.device].join('\n').toLowerCase().includes(find.toLowerCase()));

/** A file, all of a card, frames of a sequence that become the same, or a burst that goes to one folder. */
export interface Row {
  /** The file, or the first of them. */
  readonly item: Item;
  /** What it is called here. */
  readonly from: string;
  readonly to: string | null;
  readonly files: number;
  readonly bytes: number;
  /** Files of it that were made otherwise than was agreed. */
  readonly differing: number;
}

/** Cards, sequences and bursts are one line; where one looks for something, each of their files. */
export function rowsOf(shown: readonly Item[], { cards }: Pick<IntakePlan, 'cards'>, isWhole: boolean): readonly Row[] {
  const rows = new Map<string, Row>();
  for (const item of shown) {
    const { card, run, burst, from, to, size } = item;
    if ((card === null && run === null && burst === null) || !isWhole) {
      rows.set(from, { item, from, to, files: 1, bytes: size, differing: differingOf(item) });
      continue;
    }
    const key = JSON.stringify([card, run, burst, stateOf(item), togetherAt(item)]);
    const known = rows.get(key);
    rows.set(key, {
      ...{ item: known?.item ?? item, ...calledTogether(known, item, cards) },
      ...{ files: (known?.files ?? 0) + 1, bytes: (known?.bytes ?? 0) + size },
      differing: (known?.differing ?? 0) + differingOf(item),
    });
  }
  return [...rows.values()];
}

/** What files of one line have alike of their places: of frames all but the frame, of a burst the folder. */
function togetherAt({ card, run, to }: Item): string | null {
  if (card !== null || to === null) return null;
  return run === null ? parentOf(to) : frameless(to);
}

/** What a line of several is called, here and where it goes. */
function calledTogether(known: Row | undefined, item: Item, cards: IntakePlan['cards']): Pick<Row, 'from' | 'to'> {
  const { card, run, from, to } = item;
  if (card !== null) return { from: card || 'The whole card', to: cards.find(({ path }) => path === card)?.to ?? null };
  if (run !== null) return { from: run, to: to === null ? null : frameless(to) };
  if (known === undefined) return { from, to };
  const { item: first } = known;
  return {
    from: `${first.from} … ${nameOf(from)}`,
    to: first.to === null || to === null ? null : `${first.to} … ${nameOf(to)}`,
  };
}

/** Of what may come in. */
const differingOf = ({ differing, state }: Item): number =>
  differing.length > 0 && (state === 'comes' || state === 'look') ? 1 : 0;

/** Of a sequence all its frames that become the same, of a burst all that goes to the same folder. */
function togetherWith(item: Item, all: readonly Item[]): readonly string[] {
  const { run, burst, state } = item;
  if (run === null && burst === null) return [item.from];
  const at = togetherAt(item);
  return all
    .filter((one) => one.run === run && one.burst === burst && one.state === state)
    .filter((one) => run !== null || togetherAt(one) === at)
    .map(({ from }) => from);
}

/** What is said of a file is said of all its line stands for; where one looks for something, of it alone. */
export const meantBy = (item: Item, all: readonly Item[], isWhole: boolean): readonly string[] =>
  isWhole ? togetherWith(item, all) : [item.from];

/** What is said of a line: of a card by its folder. */
export const pathsOf = ({ item, files }: Row, all: readonly Item[]): readonly string[] =>
  files === 1 ? [item.from] : item.card === null ? togetherWith(item, all) : [item.card];

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
