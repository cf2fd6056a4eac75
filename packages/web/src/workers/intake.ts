/** The worker of intakes on this computer, started when first asked. */
import { type Remote, wrap } from 'comlink';
import type { IntakeWorker } from './intake-worker';

let started: Remote<IntakeWorker> | null = null;

export const intakeWorker = (): Remote<IntakeWorker> => {
  started ??= wrap<IntakeWorker>(new Worker(new URL('./intake-worker.ts', import.meta.url), { type: 'module' }));
  return started;
};
