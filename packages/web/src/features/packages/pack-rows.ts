/** Which files are shown, under which headings: as the address says. */
import type { PackPlan } from '@nesting/contract';
import { parentOf } from '@nesting/core/listing';
import { STAYS, type Stays } from '@nesting/core/planners';
import type { ListItem } from '../../changes/line-list';

export type Row = PackPlan['items'][number];

export interface Filter {
  /** `goes`, or why it stays. */
  readonly state: 'goes' | Stays | null;
  /** Empty for files of no family. */
  readonly family: string | null;
  readonly find: string;
}

const stateOf = (word: string | null): Filter['state'] =>
  word === 'goes' ? word : (STAYS.find((stays) => stays === word) ?? null);

export const filterOf = (params: URLSearchParams): Filter => ({
  state: stateOf(params.get('state')),
  family: params.get('family') === '-' ? '' : params.get('family'),
  find: params.get('find') ?? '',
});

export const isShown = ({ path, stays, family }: Row, filter: Filter): boolean =>
  (filter.state === null ? stays !== 'elsewhere' : (stays ?? 'goes') === filter.state) &&
  (filter.family === null || (family ?? '') === filter.family) &&
  (filter.find === '' || path.toLowerCase().includes(filter.find.toLowerCase()));

export function itemsOf(shown: readonly Row[], isByFamily: boolean): ListItem<Row>[] {
  const headOf = (row: Row) =>
    isByFamily ? (row.family ?? 'Other files') : parentOf(row.path) || 'the project’s root';
  const heads = new Map<string, Row[]>();
  for (const row of shown) {
    const known = heads.get(headOf(row));
    if (known === undefined) heads.set(headOf(row), [row]);
    else known.push(row);
  }
  return [...heads].flatMap(([words, inside]): ListItem<Row>[] => {
    const going = inside.filter(({ stays }) => stays === null).length;
    const note = going === inside.length ? String(going) : `${going} of ${inside.length}`;
    return [
      { kind: 'head', key: `head ${words}`, words, isPath: !isByFamily, note },
      ...inside.map((line): ListItem<Row> => ({ kind: 'line', key: `${line.path} ${line.stays}`, line })),
    ];
  });
}
