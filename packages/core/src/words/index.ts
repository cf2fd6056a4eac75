/** Codes become English here, and only here. */
export { ACTIVITY_WORDS, activityWords } from './activity';
export { batchWords, changeLine, hindranceWords, placeWords, unreadWords } from './batches';
export { differenceWords } from './differences';
export {
  CHANGE_WORDS,
  expectationWords,
  findingWords,
  RULE_CURES,
  RULE_REASONS,
  RULE_TITLES,
  wordsFor,
} from './findings';
export {
  type RefusalCode,
  type RefusalGiven,
  type RefusalParams,
  refusalWords,
  type Told,
  told,
  toldWords,
} from './refusals';
