import type { Question } from '../template/derive/derived';

/** What deriving a template asks, behind the names it asks about. */
export const QUESTION_WORDS: Readonly<Record<Question['code'], string>> = {
  'folder-rare': 'is in one of several alike folders only: does it belong to all of them?',
  'number-twice': 'have one number: the second keeps it as a part of its name',
  'file-alone': 'stand at the root: are they starter files?',
  'names-unlike': 'are called otherwise than the rest',
};
