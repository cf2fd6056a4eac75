/** Projects that grow and change, their batches, folders taken in as projects, copies of projects. */
import {
  adoptSchema,
  applyReshapeSchema,
  copyPlaceSchema,
  fitSchema,
  ownCopySchema,
  PLAN_FORMS,
  reshapeSchema,
  settleSchema,
  undoSchema,
} from '@nesting/contract';
import { z } from 'zod';
import { keepReshapeDraft, readReshapeDraft } from '../../db/queries/projects/batches';
import { adoptFolder, fitFolder } from '../../flows/projects/adopt';
import { listBatches, readBatchPage, stopBatch } from '../../flows/projects/batches';
import { compareCopies, leaveCopyAlone, ownCopy } from '../../flows/projects/copies';
import { applyReshape, planReshape, printReshape } from '../../flows/projects/reshape-project';
import { settleBatch } from '../../flows/projects/settle-batch';
import { undoBatch } from '../../flows/projects/undo-batch';
import { ALL, bodyOf, COORDINATOR, checked, idOf, type Route, WORKING } from '../route';

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
    handle: async ({ c, world, me }) =>
      c.json(await applyReshape(world, me, idOf(c), await bodyOf(c, applyReshapeSchema)), 201),
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
    handle: async ({ c, world, me }) =>
      c.json(await undoBatch(world, me, idOf(c), idOf(c, 'batch'), (await bodyOf(c, undoSchema)).ids), 201),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/batches/:batch/settle',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await settleBatch(world, me, idOf(c), idOf(c, 'batch'), (await bodyOf(c, settleSchema)).way);
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/batches/:batch/stop',
    roles: WORKING,
    handle: ({ c }) => c.json({ stopped: stopBatch(idOf(c, 'batch')) }),
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
