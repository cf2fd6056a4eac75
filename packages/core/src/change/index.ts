/** Changes of a disk: ordered, applied, resumed, reversed. */
export {
  type ApplyFault,
  applyBatch,
  type Batch,
  type BatchOutcome,
  checkExpectations,
  type Left,
  runSteps,
} from './apply';
export type { Change, Content, Expected, NewContent, Step } from './change';
export { type Found, findEntries } from './found';
export {
  BATCHES,
  type Ended,
  INTENTS,
  type Intents,
  type Journal,
  KEPT,
  NEW,
  OPEN,
  OUTCOMES,
  type Outcome,
  type Rest,
} from './journal';
export { MemoryDisk } from './memory-disk';
export { type Ordered, type OrderFault, type OrderFaultCode, orderAny, orderChanges } from './order';
export { type MakingStep, type Performed, performSteps, takeBack } from './perform';
export {
  type Cancellation,
  CLAIM_TIME,
  codeOf,
  type MakingPort,
  type PerformOptions,
  type Port,
  type Standing,
} from './port';
export { doneAfter, endHalfMove, leftOf, type Progress, stepsDone } from './resume';
export { type Done, reverseChanges } from './reverse';
