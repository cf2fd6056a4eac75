/** What is wrong with an entry as it is written, by column. */

import type { EditableList } from '@nesting/contract';
import { type Cells, cellFaults, tidyCells } from '@nesting/core/lists';
import { wordsFor } from '@nesting/core/words';

export function faultsByColumn(list: EditableList, cells: Cells): Readonly<Record<string, string>> {
  return Object.fromEntries(
    cellFaults(list, tidyCells(list, cells))
      .reverse()
      .map((f) => [f.column, wordsFor(f.code, f.params)]),
  );
}
