/** The worker that writes carried projects, started when first asked. */
import { type Remote, wrap } from 'comlink';
import type { CarryingWork } from './carrying-worker';

let started: Remote<CarryingWork> | null = null;

export function carryingWorker(): Remote<CarryingWork> {
  started ??= wrap<CarryingWork>(new Worker(new URL('./carrying-worker.ts', import.meta.url), { type: 'module' }));
  return started;
}
