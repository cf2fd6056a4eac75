/** Carries out or settles what it is asked, and kills itself at a call of the file system. */
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import type { Change } from '@nesting/core/change';

interface Task {
  readonly home: string;
  readonly shelf: string;
  readonly changes: readonly Change[];
  readonly do: 'apply' | 'finish' | 'take-back';
  /** At which call. */
  readonly at: number;
}

let calls = 0;
let killedAt = -1;
const CALLS = ['renameSync', 'linkSync', 'mkdirSync', 'openSync', 'writeSync', 'rmdirSync', 'unlinkSync', 'fsyncSync'];
for (const name of CALLS) {
  const real = Reflect.get(fs, name) as (...args: unknown[]) => unknown;
  Reflect.set(fs, name, (...args: unknown[]) => {
    if (calls++ === killedAt) process.kill(process.pid, 'SIGKILL');
    return real(...args);
  });
}
syncBuiltinESMExports();
const { HOME, rootIdOf } = await import('@nesting/core/change');
const { applyOnDisk, settleOnDisk, Root } = await import('../../src/index');

process.on('message', (task: Task) => {
  void carryOut(task).then(
    () => process.send?.('ended'),
    (error: unknown) => process.send?.(String(error)),
  );
});

async function carryOut({ home, shelf, changes, do: what, at }: Task): Promise<void> {
  const roots = new Map([
    [HOME, Root.open({ base: home, folder: '' })],
    [rootIdOf('shelf'), Root.open({ base: shelf, folder: '' })],
  ]);
  [calls, killedAt] = [0, at];
  try {
    if (what !== 'apply') await settleOnDisk(roots, what, { by: 'p', at: '', lockMs: 0 });
    else {
      const bytesOf = (content: { readonly kind: string; readonly text?: string }) => Buffer.from(content.text ?? '');
      await applyOnDisk({ roots, id: 'b1', what: 'test', by: 'p', at: '', changes, bytesOf });
    }
  } finally {
    killedAt = -1;
    for (const root of roots.values()) root.close();
  }
}
