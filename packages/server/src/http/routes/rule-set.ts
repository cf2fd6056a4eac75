/** All rules in and out of files. */
import { RULE_SET_ENDPOINTS } from '@nesting/contract';
import { readRuleFile, ruleSetFile } from '../../flows/rules/rule-file';
import { lookAtRules, takeRules } from '../../flows/rules/rule-set';
import { bytesOf, routesOf, zipped } from '../handlers';

export const RULE_SET = routesOf(RULE_SET_ENDPOINTS, {
  exportRules: async ({ world }) => zipped(await ruleSetFile(world)),
  lookAtRules: async ({ world, body }) => lookAtRules(world, await readRuleFile(await bytesOf(body))),
  takeRules: async ({ world, me, body: { file, choices } }) =>
    takeRules(world, me.id, await readRuleFile(await bytesOf(file)), choices),
});
