/** A grid under its title, with the field that finds rows in it. */
import { TextInput } from '../ui';
import { Grid, type GridColumn } from './grid';
import type { Found } from './use-found';

interface Props<T> {
  readonly id: string;
  readonly title: string;
  /** Names the field: "Find a proposal". */
  readonly findWords: string;
  readonly columns: readonly GridColumn<T>[];
  readonly found: Found<T>;
  readonly keyOf: (row: T) => string;
  readonly chosen: readonly string[];
  readonly onChoose: (keys: readonly string[]) => void;
  readonly empty: string;
}

export function FoundGrid<T>({ id, title, findWords, found, ...grid }: Props<T>) {
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 pb-2">
        <h1 className="mr-auto text-xl font-semibold">{title}</h1>
        <TextInput
          aria-label={findWords}
          placeholder="Find"
          value={found.words}
          onChange={(e) => found.find(e.target.value)}
          className="w-44"
        />
      </div>
      <Grid id={id} label={title} rows={found.rows} sorting={found.sorting} onSort={found.sort} {...grid} />
    </>
  );
}
