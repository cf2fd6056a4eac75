/** What a process that works on disks is told, and what it tells. */
import type { FailureOnDisk } from '../failure';
import type { TaskName } from './tasks';

export type ToChild =
  | { readonly kind: 'run'; readonly id: number; readonly task: TaskName; readonly input: unknown }
  | { readonly kind: 'cancel'; readonly id: number }
  /** What was told was taken care of. */
  | { readonly kind: 'heard'; readonly id: number };

export type FromChild =
  | { readonly kind: 'told'; readonly id: number; readonly value: unknown }
  | { readonly kind: 'done'; readonly id: number; readonly value: unknown }
  | { readonly kind: 'failed'; readonly id: number; readonly error: FailureOnDisk };
