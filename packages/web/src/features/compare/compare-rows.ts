/** Which rows of a comparison are shown, under which headings: as the address says. */
import type { Comparison } from '@nesting/contract';
import { COMPARED, type Compared } from '@nesting/core/compare';
import { nameOf, parentOf } from '@nesting/core/listing';
import { batchWords, COMPARED_WORDS } from '@nesting/core/words';
import { moment } from '../../app/words';
import type { ListItem } from '../../changes/line-list';
import type { Row } from './compare-api';

export interface Filter {
  readonly state: Compared | null;
  readonly find: string;
}

export const filterOf = (params: URLSearchParams): Filter => ({
  state: COMPARED.find((state) => state === params.get('state')) ?? null,
  find: params.get('find') ?? '',
});

/** Where the row stands: what is on the left has its place there. */
export const pathOf = ({ left, right }: Row): string => (left ?? right)?.path ?? '';

export const keyOf = (row: Row): string => `${row.left === null ? 'right' : 'left'} ${pathOf(row)}`;

export const isTwoNames = ({ left, right }: Row): boolean =>
  left !== null && right !== null && left.path !== right.path;

const isShown = (row: Row, { state, find }: Filter): boolean =>
  (state === null || row.state === state) &&
  (find === '' || `${row.left?.path ?? ''}\n${row.right?.path ?? ''}`.toLowerCase().includes(find.toLowerCase()));

export function itemsOf({ rows }: Comparison, filter: Filter, isByState: boolean): ListItem<Row>[] {
  const shown = rows.filter((row) => isShown(row, filter));
  const headOf = (row: Row) => (isByState ? COMPARED_WORDS[row.state] : parentOf(pathOf(row)) || 'the project’s root');
  const heads = new Map<string, Row[]>();
  for (const row of shown) {
    const known = heads.get(headOf(row));
    if (known === undefined) heads.set(headOf(row), [row]);
    else known.push(row);
  }
  return [...heads].flatMap(([words, inside]): ListItem<Row>[] => [
    { kind: 'head', key: `head ${words}`, words, isPath: !isByState, note: String(inside.length) },
    ...inside.map((line): ListItem<Row> => ({ kind: 'line', key: keyOf(line), line })),
  ]);
}

const scopeWords = ({ within, revision, batch }: Comparison['left']): string => {
  if (revision !== '') return `revision ${revision}`;
  return batch === null ? nameOf(within) : `${batchWords(batch.what)}, ${moment(batch.at)}`;
};

/** By their numbers, of one project by the folders, the revisions or the changes that are compared. */
export function sideWords({
  left,
  right,
}: Pick<Comparison, 'left' | 'right'>): Readonly<Record<'left' | 'right', string>> {
  if (left.number !== right.number) return { left: left.number, right: right.number };
  const [one, other] = [scopeWords(left), scopeWords(right)];
  return one === other || one === '' || other === ''
    ? { left: 'the left', right: 'the right' }
    : { left: one, right: other };
}
