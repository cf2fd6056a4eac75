/** The worker that sends files, started when first asked. */
import { type Remote, wrap } from 'comlink';
import type { SendingWork } from './sending-worker';

let started: Remote<SendingWork> | null = null;

export function sendingWorker(): Remote<SendingWork> {
  started ??= wrap<SendingWork>(new Worker(new URL('./sending-worker.ts', import.meta.url), { type: 'module' }));
  return started;
}
