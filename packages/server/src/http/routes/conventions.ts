/** Conventions. */
import {
  ALL,
  COORDINATOR,
  impactSchema,
  newConventionSchema,
  putInForceSchema,
  saveDraftSchema,
} from '@nesting/contract';
import { listConventions } from '../../db/queries/rules/conventions';
import { dropDraft, impactOf, keepDraft, newConvention, publishConvention } from '../../flows/rules/conventions';
import { bodyOf, type Route, wordOf } from '../route';

export const CONVENTIONS: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/conventions',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listConventions(world.db)),
  },
  {
    method: 'POST',
    path: '/api/conventions',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json(await newConvention(world, me.id, (await bodyOf(c, newConventionSchema)).convention), 201),
  },
  {
    method: 'PUT',
    path: '/api/conventions/:id/draft',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { convention, version } = await bodyOf(c, saveDraftSchema);
      return c.json(await keepDraft(world, me.id, wordOf(c), convention, version));
    },
  },
  {
    method: 'DELETE',
    path: '/api/conventions/:id/draft',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await dropDraft(world, me.id, wordOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/conventions/:id/editions',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json(await publishConvention(world, me.id, wordOf(c), (await bodyOf(c, putInForceSchema)).version), 201),
  },
  {
    method: 'POST',
    path: '/api/conventions/:id/impact',
    roles: COORDINATOR,
    handle: async ({ c, world }) =>
      c.json(await impactOf(world, wordOf(c), (await bodyOf(c, impactSchema)).convention)),
  },
];
