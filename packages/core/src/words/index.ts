/** Codes become English here, and only here. */
export { ACTIVITY_WORDS, activityWords, changeWords } from './activity';
export { batchWords, changeLine, hindranceWords } from './batches';
export { differenceWords } from './differences';
export {
  CHANGE_WORDS,
  expectationWords,
  findingWords,
  problemWords,
  RULE_CURES,
  RULE_REASONS,
  RULE_TITLES,
  wordsFor,
} from './findings';
