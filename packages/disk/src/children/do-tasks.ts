/** Does one task after another, as it is asked. */

import { failureOf } from '../failure';
import type { Context } from './context';
import type { FromChild, ToChild } from './protocol';
import { TASKS } from './tasks';

export function doTasks(): void {
  // Whoever asked may be gone: then this process ends with the connection.
  const say = (message: FromChild) => void process.send?.(message, () => undefined);
  let cancel: AbortController | null = null;
  let heard: (() => void)[] = [];

  const run = async ({ id, task, input }: Extract<ToChild, { kind: 'run' }>): Promise<void> => {
    cancel = new AbortController();
    heard = [];
    const context: Context<unknown> = {
      cancel: cancel.signal,
      tell: (value) => {
        say({ kind: 'told', id, value });
        return new Promise((resolve) => heard.push(resolve));
      },
    };
    // Each task is asked by a caller who was held to its own types.
    const perform = TASKS[task].run as (input: unknown, context: Context<unknown>) => unknown;
    try {
      say({ kind: 'done', id, value: await perform(input, context) });
    } catch (error) {
      say({ kind: 'failed', id, error: failureOf(error) });
    }
  };

  process.on('message', (message: ToChild) => {
    switch (message.kind) {
      case 'run':
        return void run(message);
      case 'cancel':
        return cancel?.abort();
      case 'heard':
        return heard.shift()?.();
    }
  });
}
