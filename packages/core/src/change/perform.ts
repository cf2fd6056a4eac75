/**
 * Does a start's steps over a port. What was done before a failure is told, so that it can be taken back; nothing is
 * overwritten.
 */
import type { NewContent, Step } from './change';
import { codeOf, type MakingPort, type PerformOptions, STEPS_BETWEEN_YIELDS } from './port';

/** Steps that only make what is new: a start has no others. */
export type MakingStep =
  | Extract<Step, { do: 'make' }>
  | (Extract<Step, { do: 'write' }> & { readonly content: NewContent });

export const isMaking = (step: Step): step is MakingStep =>
  step.do === 'make' || (step.do === 'write' && step.content.kind !== 'set-aside');

export interface Performed {
  readonly done: readonly MakingStep[];
  readonly failed: { readonly step: MakingStep; readonly code: string } | null;
  readonly cancelled: boolean;
}

export async function performSteps(
  steps: readonly MakingStep[],
  port: MakingPort,
  options: PerformOptions,
): Promise<Performed> {
  const done: MakingStep[] = [];
  for (const step of steps) {
    if (options.cancel?.aborted) return { done, failed: null, cancelled: true };
    try {
      if (step.do === 'make') await port.make(step.path);
      else await port.write(step.path, await options.bytesOf(step.content));
    } catch (error) {
      return { done, failed: { step, code: codeOf(error) }, cancelled: false };
    }
    done.push(step);
    options.progress?.(done.length, steps.length);
    if (options.yieldNow && done.length % STEPS_BETWEEN_YIELDS === 0) await options.yieldNow();
  }
  return { done, failed: null, cancelled: false };
}

/** Takes done steps back, last first. Gives the paths that had to stay, because something else is in them by now. */
export async function takeBack(done: readonly MakingStep[], port: MakingPort): Promise<string[]> {
  const stayed: string[] = [];
  for (const step of [...done].reverse()) {
    try {
      if (step.do === 'make') await port.unmake(step.path);
      else await port.unwrite(step.path);
    } catch (error) {
      if (codeOf(error) !== 'ENOENT') stayed.push(step.path);
    }
  }
  return stayed;
}
