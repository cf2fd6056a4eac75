/** Conventions: written, put in force, and what another wording would do. */

import { z } from 'zod';
import {
  conventionImpactSchema,
  conventionRowSchema,
  impactSchema,
  newConventionSchema,
  putInForceSchema,
  saveDraftSchema,
} from '../convention';
import { endpoint } from '../endpoint';
import { list } from '../reply';
import { ALL, COORDINATOR } from '../roles';
import { drafted, nothing, ownWord, putInForce } from './params';
import { FOLDER } from './refused';

export const CONVENTION_ENDPOINTS = {
  listConventions: endpoint({
    method: 'GET',
    path: '/api/conventions',
    does: 'Lists conventions with their newest edition and their draft',
    roles: ALL,
    whose: 'house',
    reply: { json: list(conventionRowSchema) },
  }),
  newConvention: endpoint({
    method: 'POST',
    path: '/api/conventions',
    does: 'Makes a convention, as a draft',
    roles: COORDINATOR,
    whose: 'house',
    body: newConventionSchema,
    reply: { json: z.strictObject({ id: z.string() }), status: 201 },
  }),
  keepConvention: endpoint({
    method: 'PUT',
    path: '/api/conventions/:id/draft',
    does: 'Keeps a draft; refused where somebody else kept one since',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    body: saveDraftSchema,
    reply: drafted,
    refuses: ['convention-gone', 'draft-changed'],
  }),
  discardConvention: endpoint({
    method: 'DELETE',
    path: '/api/conventions/:id/draft',
    does: 'Throws a draft away',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    reply: nothing,
  }),
  putConventionInForce: endpoint({
    method: 'POST',
    path: '/api/conventions/:id/editions',
    does: 'Puts a draft in force as the next edition',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    body: putInForceSchema,
    reply: putInForce,
    refuses: ['draft-not-seen', 'draft-unusable'],
  }),
  conventionImpact: endpoint({
    method: 'POST',
    path: '/api/conventions/:id/impact',
    does: 'Says what a wording would do to the names that are there',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    body: impactSchema,
    reply: { json: conventionImpactSchema },
    refuses: [...FOLDER],
  }),
} as const;
