/** Folders of a project that lie on other volumes. */
import { parentOf } from '../listing/entry';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';

export function isElsewhere(rules: ProjectRules, path: string): boolean {
  for (let at = path; at !== ''; at = parentOf(at)) {
    const line: PlannedLine | undefined = rules.planned(at);
    if (line !== undefined) return line.elsewhere !== undefined;
  }
  return false;
}
