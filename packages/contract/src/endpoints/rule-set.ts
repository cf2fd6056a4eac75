/** All rules in and out of files. */
import { LIMITS } from '@nesting/core';
import { z } from 'zod';
import { endpoint } from '../endpoint';
import { list } from '../reply';
import { COORDINATOR } from '../roles';
import { ruleChoicesSchema, ruleSetRowSchema, rulesTakenSchema } from '../rule-set';
import { bytes } from './params';

/** What was chosen, as JSON in a part of the form. */
const choices = z
  .string()
  .transform((text, context): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      context.addIssue({ code: 'custom', message: 'what to do with it is not JSON' });
      return z.NEVER;
    }
  })
  .pipe(ruleChoicesSchema);

export const RULE_SET_ENDPOINTS = {
  exportRules: endpoint({
    method: 'GET',
    path: '/api/rules/export',
    does: 'Gives all rules that are in force as one file',
    roles: COORDINATOR,
    whose: 'house',
    reply: { file: ['application/zip'] },
  }),
  lookAtRules: endpoint({
    method: 'POST',
    path: '/api/rules/look',
    does: 'Says what is new, the same or otherwise in a file of rules',
    roles: COORDINATOR,
    whose: 'house',
    ...bytes,
    most: LIMITS.ruleFileBytes,
    reply: { json: list(ruleSetRowSchema) },
    refuses: ['file-unusable'],
  }),
  takeRules: endpoint({
    method: 'POST',
    path: '/api/rules/take',
    does: 'Takes rules from a file, each as it was chosen',
    roles: COORDINATOR,
    whose: 'house',
    body: z.object({ file: z.file(), choices }),
    sentAs: 'form',
    most: LIMITS.ruleFileBytes,
    reply: { json: rulesTakenSchema },
    refuses: ['file-unusable', 'rules-changed', 'file-there', 'draft-there', 'starter-missing'],
  }),
} as const;
