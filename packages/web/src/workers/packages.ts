/** The packages' worker, started when first asked. */
import { type Remote, wrap } from 'comlink';
import type { PackagesWork } from './packages-worker';

let started: Remote<PackagesWork> | null = null;

export function packagesWorker(): Remote<PackagesWork> {
  started ??= wrap<PackagesWork>(new Worker(new URL('./packages-worker.ts', import.meta.url), { type: 'module' }));
  return started;
}
