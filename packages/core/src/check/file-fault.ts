/** What would be wrong with a file of some name in some folder: what planners ask before they put one there. */
import { type FileEntry, join } from '../listing/entry';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import { itemsOf } from './items';
import { judgeFile, OF_FOLDERS } from './judges';
import type { RuleCode } from './registry';
import type { FolderCase } from './rule';

/** Rules of whole folders that can be told from one file alone. */
const OF_ONE_FILE = OF_FOLDERS.filter(({ rule }) => rule.claims || rule.code === 'licence-missing');

/**
 * The first rule that finds something; `null` where the file is in order there. What hangs on other files (versions,
 * gaps, companions) is not asked.
 */
export function faultOfFile(rules: ProjectRules, line: PlannedLine, file: FileEntry): RuleCode | null {
  const listing = { path: line.path, folders: [], files: [file], others: [] };
  const items = itemsOf(rules, listing, { kind: 'planned', line, older: false });
  const folderCase: FolderCase = { rules, listing, state: { kind: 'planned', line, older: false }, items };
  for (const { rule, judge } of OF_ONE_FILE)
    if (rules.weightOf(rule) !== 'off' && judge(folderCase).some((f) => f.path !== listing.path)) return rule.code;
  for (const { file: open, conventions } of items.open) {
    const found = judgeFile({ rules, path: join(line.path, open.name), file: open, line, listing, conventions });
    if (found !== null && rules.weightOf(found.rule) !== 'off') return found.rule.code;
  }
  return null;
}
