/** Rows of a grid as the address asks for them: those that have its words, in the order of its column. */
import { useMemo } from 'react';
import { useAddress } from '../app/use-address';
import type { GridColumn } from './grid';
import { found, type Sorting, sorted } from './sort';

export interface Found<T> {
  readonly rows: readonly T[];
  readonly words: string;
  readonly find: (words: string) => void;
  readonly sorting: Sorting;
  readonly sort: (sorting: Sorting) => void;
}

/** `textOf` must keep its identity; `first` is the column by which rows stand at first. */
export function useFound<T>(
  all: readonly T[] | undefined,
  columns: readonly GridColumn<T>[],
  textOf: (row: T) => string,
  first: string,
): Found<T> {
  const [params, put] = useAddress();
  const words = params.get('find') ?? '';
  const by = params.get('by') ?? first;
  const down = params.get('order') === 'down';
  const rows = useMemo(() => {
    const some = found(all ?? [], words, textOf);
    const column = columns.find((c) => c.id === by);
    return column?.sort ? sorted(some, column.sort, down) : some;
  }, [all, words, columns, textOf, by, down]);
  return {
    rows,
    words,
    find: (text) => put({ find: text }),
    sorting: { by, down },
    sort: (s) => put({ by: s.by, order: s.down ? 'down' : null }),
  };
}
