/** Changes of disks: lowered, ordered, applied, resumed, reversed. */
export { applyBatch, type Batch, type BatchOutcome, type Left, runSteps } from './apply';
export { bytesNeeded } from './bytes';
export {
  type Change,
  type Content,
  type Expected,
  isAsExpected,
  isNew,
  isShown,
  type NewContent,
  type Patch,
  type ReadContent,
  type Step,
  type Subject,
} from './change';
export type { ApplyFault, OrderFault, OrderFaultCode } from './fault';
export { FIRST_INTENTS, FIRST_OUTCOMES, firstIntents, firstOutcomes } from './first-journal';
export { type Found, findEntries } from './found';
export {
  BATCHES,
  type Ended,
  type Intents,
  type Journal,
  KEPT,
  NEW,
  NO_JOURNAL,
  OPEN,
  type Outcome,
  provedOf,
  type Rest,
} from './journal';
export { intentLines, JOURNAL, outcomeLine, type ReadJournal, readJournal } from './journal-lines';
export { checkExpectations } from './look';
export { MemoryDisk } from './memory-disk';
export { type Ordered, orderAny, orderChanges } from './order';
export { HOME, home, isBelow, isSamePlace, type Place, placeKey, type RootId, rootIdOf, VOLUME } from './place';
export {
  type ApplyOptions,
  type Cancellation,
  CLAIM_TIME,
  type Copied,
  codeOf,
  type Port,
  type Reach,
  type Standing,
} from './port';
export { doneAfter, endHalfMove, leftOf, type Progress, stepsDone } from './resume';
export { type Done, reverseChanges } from './reverse';
export { takeBackMade } from './take-back';
