/** The rules told apart once by what they judge: they are asked of every folder, and of every file that nothing has cleared. */
import { RULES, type RuleCode } from './registry';
import type { FileCase, Rule } from './rule';

const ALL: readonly Rule<RuleCode>[] = RULES;

export const OF_FOLDERS = ALL.flatMap((rule) => (rule.folder === undefined ? [] : [{ rule, judge: rule.folder }]));
const OF_FILES = ALL.flatMap((rule) => (rule.file === undefined ? [] : [{ rule, judge: rule.file }]));

/** The first rule that finds something wrong with a file, and what; `null` where none does. */
export function judgeFile(rules: FileCase) {
  for (const { rule, judge } of OF_FILES) {
    const found = judge(rules);
    if (found !== null) return { rule, found };
  }
  return null;
}
