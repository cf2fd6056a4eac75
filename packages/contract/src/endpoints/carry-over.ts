/** A project carried over to the next one, or to its next revision. */
import { z } from 'zod';
import {
  applyCarrySchema,
  CARRY_FORMS,
  carryAnswerSchema,
  carryPlanSchema,
  carrySchema,
  keepWaySchema,
  keptWaySchema,
  mentionSchema,
} from '../carry-over';
import { endpoint } from '../endpoint';
import { list } from '../reply';
import { ALL, COORDINATOR } from '../roles';
import { id, nothing, ofBatch, ofWay, ownWord } from './params';
import { BATCH, FOLDER, NUMBER, VOLUME, WRITING } from './refused';

/** Of both projects, and of the plan of a new one. */
const CARRY = [
  ...FOLDER,
  ...VOLUME,
  'no-project',
  'not-running',
  'no-template',
  'plan-refused',
  'number-missing',
  'starter-missing',
  'carry-into-itself',
  'no-revisions',
] as const;

export const CARRY_ENDPOINTS = {
  planCarry: endpoint({
    method: 'POST',
    path: '/api/projects/:id/carry',
    does: 'Shows what would come along to the next project, what it would be called there, and what it would refer to',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: carrySchema,
    reply: { json: carryPlanSchema },
    refuses: [...CARRY],
  }),
  writeCarry: endpoint({
    method: 'POST',
    path: '/api/projects/:id/carry/print',
    does: 'Gives such a plan as a text, a table or JSON',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    query: z.object({ as: z.enum(CARRY_FORMS) }),
    body: carrySchema,
    reply: { file: ['text/plain'] },
    refuses: [...CARRY],
  }),
  applyCarry: endpoint({
    method: 'POST',
    path: '/api/projects/:id/carry/batches',
    does: 'Starts the next project, and brings what was shown. `Prefer: wait=SECONDS` says how long the answer may wait for its end',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: applyCarrySchema,
    once: true,
    reply: { json: carryAnswerSchema, status: [201, 202] },
    refuses: [
      ...CARRY,
      ...NUMBER,
      ...WRITING,
      ...BATCH,
      'folder-taken',
      'no-folder',
      'same-volume',
      'under-way',
      'disk-changed',
      'nothing-to-carry',
    ],
  }),
  listMentions: endpoint({
    method: 'GET',
    path: '/api/projects/:id/batches/:batch/mentions',
    does: 'Lists documents that still name the project which such a batch carried over: what is saved anew is listed no more',
    roles: ALL,
    whose: 'house',
    params: ofBatch,
    reply: { json: list(mentionSchema) },
    refuses: [...FOLDER, 'no-change', 'no-project'],
  }),
  listCarryWays: endpoint({
    method: 'GET',
    path: '/api/templates/:id/ways',
    does: 'Lists the ways of carrying over that are kept with a template',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    reply: { json: list(keptWaySchema) },
  }),
  keepCarryWay: endpoint({
    method: 'PUT',
    path: '/api/templates/:id/ways/:name',
    does: 'Keeps a way of carrying over with a template, in place of one of that name',
    roles: COORDINATOR,
    whose: 'house',
    params: ofWay,
    body: keepWaySchema,
    reply: nothing,
    refuses: ['no-template', 'ways-full'],
  }),
  dropCarryWay: endpoint({
    method: 'DELETE',
    path: '/api/templates/:id/ways/:name',
    does: 'Forgets a way that was kept',
    roles: COORDINATOR,
    whose: 'house',
    params: ofWay,
    reply: nothing,
    refuses: ['no-way'],
  }),
};
