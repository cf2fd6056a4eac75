/** What a rule found → the finding: its weight and its id. */

import { nameOf } from '../listing/entry';
import { type Finding, findingId } from './finding';
import type { CheckGround } from './ground';
import type { Found, Rule } from './rule';

/** `null` where the rule is off. */
export function findingOf(ground: CheckGround, rule: Pick<Rule, 'code'>, found: Found): Finding | null {
  const weight = ground.weightOf(rule.code);
  if (weight === 'off') return null;
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
    person: ground.personIn(nameOf(found.path)),
  };
}
