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
export { type Change, type Content, type Expected, type NewContent, PARKED, type Step } from './change';
export {
  BATCHES,
  type Ended,
  INTENTS,
  type Intents,
  type Journal,
  KEPT,
  keptName,
  NEW,
  OPEN,
  OUTCOMES,
  type Outcome,
} from './journal';
export { MemoryDisk } from './memory-disk';
export { type Ordered, type OrderFault, type OrderFaultCode, orderAny, orderChanges } from './order';
export { isMaking, type MakingStep, type Performed, performSteps, takeBack } from './perform';
export { type Cancellation, codeOf, type MakingPort, type PerformOptions, type Port, type Standing } from './port';
export { doneAfter, leftOf, type Progress, stepsDone } from './resume';
export { type Done, reverseChanges } from './reverse';
