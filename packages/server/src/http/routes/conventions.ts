/** Conventions. */
import { CONVENTION_ENDPOINTS } from '@nesting/contract';
import { listConventions } from '../../db/queries/rules/conventions';
import { dropDraft, impactOf, keepDraft, newConvention, publishConvention } from '../../flows/rules/conventions';
import { routesOf } from '../handlers';

export const CONVENTIONS = routesOf(CONVENTION_ENDPOINTS, {
  listConventions: ({ world }) => listConventions(world.db),
  newConvention: ({ world, me, body }) => newConvention(world, me.id, body.convention),
  keepConvention: ({ world, me, params, body }) => keepDraft(world, me.id, params.id, body.convention, body.version),
  discardConvention: ({ world, me, params }) => dropDraft(world, me.id, params.id),
  putConventionInForce: ({ world, me, params, body }) => publishConvention(world, me.id, params.id, body.version),
  conventionImpact: ({ world, params, body }) => impactOf(world, params.id, body.convention),
});
