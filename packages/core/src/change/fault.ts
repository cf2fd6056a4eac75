/** Why a batch cannot begin. */
import type { Place } from './place';

export type OrderFaultCode =
  /** Two entries would have one name in one folder, on some system at least. */
  | 'name-taken'
  /** A folder would lie in itself. */
  | 'into-itself'
  /** The folder it goes to is not there any more by then. */
  | 'folder-gone'
  /** One path is changed twice. */
  | 'changed-twice';

export interface OrderFault {
  readonly code: OrderFaultCode;
  readonly id: string;
  readonly at: Place;
}

export type ApplyFault =
  | OrderFault
  /**
   * Not there any more; something else than it was; otherwise than when the plan was made; its new name is taken; it
   * cannot be looked at, or not be laid ready.
   */
  | {
      readonly code: 'gone' | 'other-kind' | 'changed' | 'taken' | 'unseen' | 'not-ready';
      readonly id: string;
      readonly at: Place;
      readonly detail?: string;
    };
