/** A listing held against the rules. */

export { type CheckOutcome, checkListing, judgeWhole, mergeChecks, outcomeOf } from './check';
export { Checker } from './checker';
export {
  type ContentCase,
  type ContentFact,
  type ContentTasks,
  type ContentWants,
  contentTasks,
  contentWants,
  rowsOfSameSize,
  withContents,
} from './contents';
export { type CheckSummary, type Finding, findingId } from './finding';
export type { Run } from './items';
export { type FolderState, stateOf } from './match';
export { textHash } from './number-table';
export { type FolderRow, joinPartialResults, keepRows, type PartialResult } from './partial-result';
export { RULES } from './registry';
export type { ListAgain } from './rule';
