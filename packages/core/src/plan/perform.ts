/** Does steps over a port. What was done before a failure is told, so that it can be taken back; nothing is overwritten. */
import type { Content, Step } from './change';

/** The little that a disk must be able to do. Paths are from the port's root, parted by `/`; failures throw with a `code`. */
export interface Port {
  make(path: string): void | Promise<void>;
  write(path: string, bytes: Uint8Array): void | Promise<void>;
  /** Removes a file this batch wrote. */
  unwrite(path: string): void | Promise<void>;
  /** Removes a folder this batch made, only while it is empty. */
  unmake(path: string): void | Promise<void>;
}

export interface Performed {
  readonly done: readonly Step[];
  readonly failed: { readonly step: Step; readonly code: string } | null;
  readonly cancelled: boolean;
}

/** The least that `AbortSignal` fulfils. */
export interface Cancellation {
  readonly aborted: boolean;
}

export interface PerformOptions {
  readonly bytesOf: (content: Content) => Uint8Array | Promise<Uint8Array>;
  readonly cancel?: Cancellation;
  readonly progress?: (done: number, all: number) => void;
  /** Lets others in between steps, where the port's calls block: without it a cancellation is only heard at the end. */
  readonly breathe?: () => Promise<void>;
}

/** Steps between two breaths. */
const BREATH = 50;

export async function performSteps(steps: readonly Step[], port: Port, options: PerformOptions): Promise<Performed> {
  const done: Step[] = [];
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
    if (options.breathe && done.length % BREATH === 0) await options.breathe();
  }
  return { done, failed: null, cancelled: false };
}

/** Takes done steps back, last first. Gives the paths that had to stay, because something else is in them by now. */
export async function takeBack(done: readonly Step[], port: Port): Promise<string[]> {
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

export function codeOf(error: unknown): string {
  if (typeof error === 'object' && error !== null && 'code' in error) return String(error.code);
  return error instanceof Error ? error.message : 'unknown';
}
