/** A check as a task: what it tells on the way goes to whoever asked. */
import { checkOnDisk } from '../check/check';
import type { CheckProgress, DiskCheck, DiskOutcome, Gathered } from '../check/disk-check';
import type { Context } from './context';

export type CheckTask = Omit<DiskCheck, 'script' | 'cancel' | 'progress' | 'gathered'> & {
  /** The built program that helps, as the text of its address; without it the check is done by one process. */
  readonly helper: string | null;
  /** Milliseconds between two gatherings of what was found. */
  readonly gatherEvery: number;
};

export type CheckTold =
  | ({ readonly kind: 'progress' } & CheckProgress)
  | { readonly kind: 'gathered'; readonly gathered: Gathered };

/** Milliseconds between two words on how far it is. */
const TOLD_EVERY = 200;

export function check(task: CheckTask, { cancel, tell }: Context<CheckTold>): Promise<DiskOutcome> {
  const { helper, gatherEvery, ...given } = task;
  let last = 0;
  return checkOnDisk({
    ...given,
    script: helper === null ? null : new URL(helper),
    cancel,
    progress: (progress) => {
      const now = Date.now();
      if (now - last < TOLD_EVERY) return;
      last = now;
      void tell({ kind: 'progress', ...progress });
    },
    gathered: { every: gatherEvery, keep: (gathered) => tell({ kind: 'gathered', gathered }) },
  });
}
