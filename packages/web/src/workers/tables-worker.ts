/** Tables are read and held against a list away from the page. */
import { type ImportPlan, type ListEntry, type ListName, planImport } from '@nesting/core/lists';
import { expose } from 'comlink';
import { readTable, type Table } from './table';

const work = {
  plan(list: ListName, existing: readonly ListEntry[], bytes: Uint8Array): { table: Table; plan: ImportPlan } | null {
    const table = readTable(bytes);
    return table === null ? null : { table, plan: planImport(list, existing, table.cells) };
  },
};

export type TablesWork = typeof work;

expose(work);
