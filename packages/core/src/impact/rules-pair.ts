/** Rules of one project as they are, and as they would be: what every impact is counted over. */
import type { ProjectRules } from '../project/rules';

export interface RulesPair {
  readonly before: ProjectRules;
  readonly after: ProjectRules;
}
