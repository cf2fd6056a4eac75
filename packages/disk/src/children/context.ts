/** What a task is given beside its input. */
import type { Cancellation } from '@nesting/core/change';

export interface Context<Told> {
  readonly cancel: Cancellation;
  /** Tells whoever asked how far it is; resolves when that was taken care of. */
  readonly tell: (value: Told) => Promise<void>;
}
