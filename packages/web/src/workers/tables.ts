/** The tables' worker, started when first asked. */
import type { ListEntry, ListName } from '@nesting/core/lists';
import { type Remote, wrap } from 'comlink';
import type { TablesWork } from './tables-worker';

let started: Remote<TablesWork> | null = null;

export type Planned = Awaited<ReturnType<TablesWork['plan']>>;

export async function planTable(list: ListName, existing: readonly ListEntry[], file: File): Promise<Planned> {
  started ??= wrap<TablesWork>(new Worker(new URL('./tables-worker.ts', import.meta.url), { type: 'module' }));
  return started.plan(
    list,
    existing.map(({ key, cells }) => ({ key, cells })),
    new Uint8Array(await file.arrayBuffer()),
  );
}
