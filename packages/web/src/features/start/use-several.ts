/** The state of a table of projects: its rows judged, and what became of each that was made. */
import type { ProjectRow, TemplateRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { compileTemplate } from '@nesting/core/template';
import { useMemo, useState } from 'react';
import { troubleOf } from '../../app/api';
import { useDebounced } from '../../app/use-debounced';
import { readTable } from '../../workers/table';
import { numbersApi } from '../house/numbers-api';
import { type StartRow, startRows } from './rows';
import { startsApi } from './starts-api';

export type RowResult = { readonly made: ProjectRow } | { readonly trouble: string } | 'making';

export type Results = Readonly<Record<number, RowResult>>;

export const madeOf = (result: RowResult | undefined): ProjectRow | null =>
  typeof result === 'object' && 'made' in result ? result.made : null;

export type Several = ReturnType<typeof useSeveral>;

export function useSeveral(row: TemplateRow, registers: Registers, volume: string) {
  const [text, setText] = useState('');
  const [results, setResults] = useState<Results>({});
  const [going, setGoing] = useState(false);
  const make = useMakeOne(row, volume);
  const expander = useMemo(() => compileTemplate(row.template, registers), [row.template, registers]);
  const late = useDebounced(text, 150);
  const table = useMemo(() => (late.trim() === '' ? null : readTable(new TextEncoder().encode(late))), [late]);
  const { rows, unknown, fault } = useMemo(
    () => (table === null ? { rows: [], unknown: [], fault: null } : startRows(expander, row.template, table.cells)),
    [expander, row.template, table],
  );
  const good = rows.filter((r) => r.faults.length === 0 && madeOf(results[r.line]) === null);
  const go = async () => {
    const note = (of: StartRow, result: RowResult) => setResults((before) => ({ ...before, [of.line]: result }));
    setGoing(true);
    for (const one of good) {
      note(one, 'making');
      note(one, await make(one));
    }
    setGoing(false);
  };
  return {
    text,
    type: (next: string) => {
      setText(next);
      setResults({});
    },
    rows,
    unknown,
    trouble: fault ?? (late.trim() !== '' && table === null ? 'This is no table that can be read.' : null),
    results,
    good,
    going,
    go,
  };
}

/** Starts the project of one row, with a number held for it unless it brings its own; a number not used is given back. */
function useMakeOne(row: TemplateRow, volume: string): (one: StartRow) => Promise<RowResult> {
  const [hold] = numbersApi.useHoldNumberMutation();
  const [giveBack] = numbersApi.useGiveBackNumberMutation();
  const [start] = startsApi.useStartProjectMutation();
  const startWith = async (one: StartRow, number: string): Promise<RowResult> => {
    const made = await start({
      template: row.id,
      edition: row.edition,
      volume,
      values: { ...one.values, number },
    });
    return made.data ? { made: made.data } : { trouble: troubleOf(made.error) };
  };
  return async (one) => {
    const { number, client } = one.values;
    if (typeof number === 'string') return startWith(one, number);
    const now = new Date();
    const held = await hold({
      year: now.getFullYear(),
      month: now.getMonth() + 1,
      client: typeof client === 'string' ? client : null,
      template: row.id,
    });
    if (held.data === undefined) return { trouble: troubleOf(held.error) };
    const result = await startWith(one, held.data.number);
    if (madeOf(result) === null) await giveBack(held.data.number);
    return result;
  };
}
