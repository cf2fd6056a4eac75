/** The worker thread of `disk-reads.ts`: one task after another. */
import { parentPort } from 'node:worker_threads';
import { codeOf } from '@nesting/core/change';
import type { ReadReply, ReadRequest } from './disk-reads';
import { TASKS } from './tasks';

const port = parentPort;
if (port === null) throw new Error('read-worker runs as a worker thread only');

port.on('message', ({ id, task, input }: ReadRequest) => {
  const run: (input: never) => unknown = TASKS[task];
  try {
    port.postMessage({ id, ok: true, value: run(input) } satisfies ReadReply);
  } catch (error) {
    port.postMessage({ id, ok: false, code: codeOf(error), message: String(error) } satisfies ReadReply);
  }
});
