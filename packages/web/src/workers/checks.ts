/** The checks' worker, started when first asked. */
import { type Remote, wrap } from 'comlink';
import type { ChecksWork } from './checks-worker';

let started: Remote<ChecksWork> | null = null;

export function checksWorker(): Remote<ChecksWork> {
  started ??= wrap<ChecksWork>(new Worker(new URL('./checks-worker.ts', import.meta.url), { type: 'module' }));
  return started;
}
