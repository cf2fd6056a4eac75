/** Projects that grow and change, their batches, folders taken in as projects, copies of projects. */

import { randomUUID } from 'node:crypto';
import {
  adoptSchema,
  applyReshapeSchema,
  type BatchAnswer,
  copyPlaceSchema,
  fitSchema,
  ownCopySchema,
  PLAN_FORMS,
  reshapeSchema,
  settleSchema,
  undoSchema,
} from '@nesting/contract';
import type { Context } from 'hono';
import { z } from 'zod';
import { keepReshapeDraft, readReshapeDraft } from '../../db/queries/projects/reshape-drafts';
import { askBatch, settleBatch, stopBatch } from '../../flows/batches/ask-batch';
import { found, listBatches, readBatchPage } from '../../flows/batches/batch-page';
import { adoptFolder, fitFolder } from '../../flows/projects/adopt';
import { compareCopies, leaveCopyAlone, ownCopy } from '../../flows/projects/copies';
import { planReshape, printReshape } from '../../flows/projects/reshape-project';
import { ALL, bodyOf, COORDINATOR, checked, idOf, type Route, WORKING } from '../route';
import { waitAsked } from '../wait';

/** Created where it is done; accepted where it still goes on. */
const answered = (c: Context, answer: BatchAnswer): Response => c.json(answer, answer.isDone ? 201 : 202);

export const BATCHES: readonly Route[] = [
  {
    method: 'POST',
    path: '/api/adopt/fits',
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const { volume, folder, values } = await bodyOf(c, fitSchema);
      return c.json(await fitFolder(world, volume, folder, values));
    },
  },
  {
    method: 'POST',
    path: '/api/adopt',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await adoptFolder(world, me.id, await bodyOf(c, adoptSchema)), 201),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/copies',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await compareCopies(world, idOf(c))),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/copies/own',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { volume, folder, number } = await bodyOf(c, ownCopySchema);
      return c.json(await ownCopy(world, me, idOf(c), volume, folder, number), 201);
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/copies/leave',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { volume, folder } = await bodyOf(c, copyPlaceSchema);
      await leaveCopyAlone(world, me.id, idOf(c), volume, folder);
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/plan',
    roles: WORKING,
    handle: async ({ c, world, me }) => c.json(await planReshape(world, me, idOf(c), await bodyOf(c, reshapeSchema))),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/plan/print',
    roles: WORKING,
    handle: async ({ c, world, me }) => {
      const { name, text } = await printReshape(
        world,
        me,
        idOf(c),
        await bodyOf(c, reshapeSchema),
        checked(c.req.query('as'), z.enum(PLAN_FORMS)),
      );
      return c.body(text, 200, {
        'content-type': 'text/plain; charset=utf-8',
        'content-disposition': `attachment; filename="${encodeURIComponent(name)}"`,
      });
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/batches',
    roles: WORKING,
    handle: async ({ c, world, me }) => {
      const { key, fingerprint, ...asked } = await bodyOf(c, applyReshapeSchema);
      const to = { id: key ?? randomUUID(), project: idOf(c), what: 'change', undoes: null };
      const answer = await askBatch(world, me, { ...to, asked: { kind: 'reshape', asked, fingerprint } }, waitAsked(c));
      return answered(c, answer);
    },
  },
  {
    method: 'GET',
    path: '/api/projects/:id/batches',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listBatches(world, idOf(c))),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/batches/:batch',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await readBatchPage(world, idOf(c), idOf(c, 'batch'))),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/batches/:batch/undo',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const batch = idOf(c, 'batch');
      const { ids, key } = await bodyOf(c, undoSchema);
      await found(world, idOf(c), batch);
      const to = { id: key ?? randomUUID(), project: idOf(c), what: 'undo', undoes: batch };
      return answered(c, await askBatch(world, me, { ...to, asked: { kind: 'undo', batch, ids } }, waitAsked(c)));
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/batches/:batch/settle',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { way } = await bodyOf(c, settleSchema);
      const answer = await settleBatch(world, me, { project: idOf(c), id: idOf(c, 'batch'), way, wait: waitAsked(c) });
      return answer.isDone ? c.body(null, 204) : c.json(answer, 202);
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/batches/:batch/stop',
    roles: WORKING,
    handle: async ({ c, world }) => c.json({ stopped: await stopBatch(world, idOf(c), idOf(c, 'batch')) }),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/reshape',
    roles: WORKING,
    handle: async ({ c, world, me }) => c.json(await readReshapeDraft(world.db, idOf(c), me.id)),
  },
  {
    method: 'PUT',
    path: '/api/projects/:id/reshape',
    roles: WORKING,
    handle: async ({ c, world, me }) => {
      await keepReshapeDraft(world.db, idOf(c), me.id, await bodyOf(c, reshapeSchema.nullable()));
      return c.body(null, 204);
    },
  },
];
