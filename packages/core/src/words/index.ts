/** Codes become English here, and only here. */
export { ACTIVITY_WORDS, activityWords } from './activity';
export { batchWords, changeLine, hindranceWords, placeWords, unreadWords } from './batches';
export { COMPARED_WORDS, comparedWords, EVIDENCE_WORDS } from './compared';
export { QUESTION_WORDS } from './derived';
export { differenceWords } from './differences';
export { CHANGE_WORDS, expectationWords, wordsFor } from './findings';
export { INTAKE_STATE_WORDS, placeReasonWords } from './intake';
export { alignedWords } from './listings';
export { cannotGoWords, PACKAGE_KIND_WORDS, packageFaultWords, STAYS_WORDS, staysWords } from './packages';
export {
  type RefusalCode,
  type RefusalGiven,
  type RefusalParams,
  refusalWords,
  type Told,
  told,
  toldWords,
} from './refusals';
export { byHandWords, REPAIR_STATE_REASONS, REPAIR_STATE_WORDS, WAY_NOTES, wayWords } from './repairs';
export { type AnyFinding, findingWords, RULE_WORDS } from './rules';
export { SETTING_FACT_WORDS, unheldWords } from './settings';
