/** What is wrong with a person as they are written, by field. */
import { type Cells, cellFaults, tidyCells } from '@nesting/core/lists';
import { wordsFor } from '@nesting/core/words';

export function faultsOfPerson(given: Cells): Readonly<Record<string, string>> {
  return Object.fromEntries(
    cellFaults('people', tidyCells('people', given)).map((f) => [f.column, wordsFor(f.code, f.params)]),
  );
}
