/** Loose files, and where they are brought. */
import { z } from 'zod';
import { endpoint } from '../endpoint';
import {
  applyIntakeSchema,
  heapCopiesToldSchema,
  INTAKE_FORMS,
  inboxSchema,
  intakeAnswerSchema,
  intakePlanSchema,
  intakeSchema,
  readIntakeSchema,
} from '../intake';
import { list } from '../reply';
import { COORDINATOR } from '../roles';
import { id, nothing } from './params';
import { BATCH, FOLDER, WRITING } from './refused';

const INTAKE = [...FOLDER, 'no-project', 'not-running', 'heap-in-project', 'no-folder'] as const;
const PLANNED = [...INTAKE, 'heap-unread', 'no-template', 'plan-refused', 'number-missing'] as const;

export const INTAKE_ENDPOINTS = {
  listInboxes: endpoint({
    method: 'GET',
    path: '/api/inboxes',
    does: 'Lists what lies where loose material arrives',
    roles: COORDINATOR,
    whose: 'house',
    reply: { json: list(inboxSchema) },
    refuses: [...FOLDER],
  }),
  saveInbox: endpoint({
    method: 'PUT',
    path: '/api/volumes/:name/inbox',
    does: 'Says whether loose material arrives on a volume',
    roles: COORDINATOR,
    whose: 'house',
    params: { name: z.string().min(1).max(200) },
    body: z.object({ isInbox: z.boolean() }),
    reply: nothing,
    refuses: ['no-volume'],
  }),
  saveDouble: endpoint({
    method: 'PUT',
    path: '/api/volumes/:name/double',
    does: 'Says on which other volume all that is brought in on this one is copied once more',
    roles: COORDINATOR,
    whose: 'house',
    params: { name: z.string().min(1).max(200) },
    body: z.object({ double: z.string().min(1).max(200).nullable() }),
    reply: nothing,
    refuses: ['no-volume', 'double-itself'],
  }),
  readIntake: endpoint({
    method: 'POST',
    path: '/api/projects/:id/intake/read',
    does: 'Looks through a heap of loose files for a project, and keeps what their content tells',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: readIntakeSchema,
    reply: nothing,
    refuses: [...INTAKE],
  }),
  planIntake: endpoint({
    method: 'POST',
    path: '/api/projects/:id/intake',
    does: 'Shows where loose files would be brought, what they would be called there, and why',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: intakeSchema,
    reply: { json: intakePlanSchema },
    refuses: [...PLANNED],
  }),
  writeIntake: endpoint({
    method: 'POST',
    path: '/api/projects/:id/intake/print',
    does: 'Gives such a plan as a text, a table or JSON, or its pairs as a table',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    query: z.object({ as: z.enum(INTAKE_FORMS) }),
    body: intakeSchema,
    reply: { file: ['text/plain', 'text/csv', 'application/json'] },
    refuses: [...PLANNED],
  }),
  heapCopies: endpoint({
    method: 'GET',
    path: '/api/projects/:id/intake/copies',
    does: 'Says how much of a heap stands elsewhere, proved when it was copied, and whether it is still there',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    query: readIntakeSchema,
    reply: { json: heapCopiesToldSchema },
    refuses: [...INTAKE, 'no-template'],
  }),
  looseFile: endpoint({
    method: 'GET',
    path: '/api/projects/:id/intake/file',
    does: 'Gives a loose file that was looked through, to be looked at or listened to',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    query: readIntakeSchema.extend({ path: z.string().min(1).max(4096) }),
    reply: { file: ['application/octet-stream'] },
    refuses: [...INTAKE, 'heap-unread', 'file-gone', 'file-not-shown'],
  }),
  applyIntake: endpoint({
    method: 'POST',
    path: '/api/projects/:id/intake/batches',
    does: 'Brings what was shown. `Prefer: wait=SECONDS` says how long the answer may wait for its end',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: applyIntakeSchema,
    once: true,
    reply: { json: intakeAnswerSchema, status: [201, 202] },
    refuses: [...PLANNED, ...WRITING, ...BATCH, 'disk-changed', 'nothing-to-bring'],
  }),
};
