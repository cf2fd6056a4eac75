/** What a rule found → the finding: its weight and its id. */

import { nameOf } from '../listing/entry';
import type { ProjectRules } from '../project/rules';
import { type Finding, findingId } from './finding';
import type { RuleCode } from './registry';
import type { ParamShape, ParamsOf, RawFinding, Rule } from './rule';

/** `null` where the rule is off. */
export function makeFinding<Shape extends ParamShape>(
  rules: ProjectRules,
  rule: Rule<RuleCode, Shape>,
  found: RawFinding<ParamsOf<Shape>>,
): Finding | null {
  const weight = rules.weightOf(rule);
  if (weight === 'off') return null;
  // The rule has held its parameters against its own shape.
  return {
    id: findingId(rule.code, found.subject ?? found.path),
    rule: rule.code,
    weight,
    path: found.path,
    params: found.params,
    problems: found.explanation?.problems ?? [],
    stretches: found.explanation?.stretches ?? [],
    suggestion: found.explanation?.suggestions[0] ?? null,
    related: found.related ?? [],
    modified: found.modified ?? 0,
    person: rules.personIn(nameOf(found.path)),
  } as unknown as Finding;
}
