/** Rules in and out of files: one template, or all that is in force. */

import { ALL, COORDINATOR, ruleChoicesSchema } from '@nesting/contract';
import { LIMITS } from '@nesting/core';
import type { Context } from 'hono';
import { readRuleFile, ruleSetFile, templateFile } from '../../flows/rules/rule-file';
import { lookAtRules, takeRules } from '../../flows/rules/rule-set';
import { Refused } from '../../flows/world';
import { checked, type Route, wordOf } from '../route';

const asZip = (c: Context, { name, bytes }: { name: string; bytes: Uint8Array }): Response =>
  c.body(Uint8Array.from(bytes), 200, {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename="${encodeURIComponent(name)}"`,
  });

export const RULE_SET: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/templates/:id/export',
    roles: ALL,
    handle: async ({ c, world }) => {
      const edition = c.req.query('edition');
      return asZip(c, await templateFile(world, wordOf(c), edition === undefined ? null : Number(edition)));
    },
  },
  {
    method: 'GET',
    path: '/api/rules/export',
    roles: COORDINATOR,
    handle: async ({ c, world }) => asZip(c, await ruleSetFile(world)),
  },
  {
    method: 'POST',
    path: '/api/rules/look',
    most: LIMITS.ruleFileBytes,
    roles: COORDINATOR,
    handle: async ({ c, world }) =>
      c.json(await lookAtRules(world, await readRuleFile(new Uint8Array(await c.req.arrayBuffer())))),
  },
  {
    method: 'POST',
    path: '/api/rules/take',
    most: LIMITS.ruleFileBytes,
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { file, choices } = await c.req.parseBody();
      if (!(file instanceof File) || typeof choices !== 'string')
        throw new Refused(400, 'not-as-expected', 'The file and what to do with it are needed.');
      let chosen: unknown = null;
      try {
        chosen = JSON.parse(choices);
      } catch {
        // What is no JSON is told by its schema, as everything else.
      }
      return c.json(
        await takeRules(
          world,
          me.id,
          await readRuleFile(new Uint8Array(await file.arrayBuffer())),
          checked(chosen, ruleChoicesSchema),
        ),
      );
    },
  },
];
