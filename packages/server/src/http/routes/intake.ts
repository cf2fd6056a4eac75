/** Loose files, and where they are brought. */
import { INTAKE_ENDPOINTS } from '@nesting/contract';
import { listInboxes, saveDouble, saveInbox } from '../../flows/house/inboxes';
import { openZip } from '../../flows/house/open-zip';
import { readHeapCopies } from '../../flows/projects/heap-copies';
import {
  applyIntake,
  looseFile,
  planIntake,
  printIntake,
  readIntake,
  readingOf,
} from '../../flows/projects/intake-project';
import { routesOf, somebodysFile } from '../handlers';

export const INTAKE = routesOf(INTAKE_ENDPOINTS, {
  listInboxes: ({ world }) => listInboxes(world),
  saveInbox: ({ world, me, params, body }) => saveInbox(world, me.id, params.name, body.isInbox),
  openZip: ({ world, params, body }) => openZip(world, params.name, body.path),
  saveDouble: ({ world, me, params, body }) => saveDouble(world, me.id, params.name, body.double),
  heapCopies: ({ world, params, query }) => readHeapCopies(world, params.id, query),
  readIntake: ({ world, params, body }) => readIntake(world, params.id, body),
  readingOfIntake: async ({ params, query }) => readingOf(params.id, query),
  planIntake: ({ world, me, params, body }) => planIntake(world, me, params.id, body),
  writeIntake: ({ world, me, params, query, body }) => printIntake(world, me, params.id, body, query.as),
  looseFile: async ({ world, params, query }) => {
    const { name, bytes } = await looseFile(world, params.id, query);
    return somebodysFile(name, bytes);
  },
  applyIntake: async ({ world, me, params, body, wait }) => {
    const json = await applyIntake(world, me, params.id, body, wait);
    return { status: json.isDone ? (201 as const) : (202 as const), json };
  },
});
