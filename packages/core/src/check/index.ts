/** A listing held against the rules. */

export { textHash } from '../text/hash';
export { agreedFor, type Differing, type ToldFact } from './agreed-facts';
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
export type { FolderRow } from './gathered';
export type { Run } from './items';
export { type FolderState, stateOf } from './match';
export { joinPartialResults, keepRows, type PartialResult } from './partial-result';
export { RULE_CODES, RULES, type RuleCode, type RuleParams } from './registry';
export type { ListAgain, ParamKind, Remedy, Rule } from './rule';
