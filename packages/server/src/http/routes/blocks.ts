/** Blocks shared by several templates. */

import { ALL, COORDINATOR, putBlockInForceSchema, saveBlockSchema, shareBlockSchema } from '@nesting/contract';
import { LIMITS } from '@nesting/core';
import { relPathOf } from '@nesting/core/listing';
import { blockEditions, blockStarters, listBlocks, putBlockStarter } from '../../db/queries/rules/blocks';
import { dropBlockDraft, keepBlock, publishBlock, shareBlock } from '../../flows/rules/blocks';
import { Refused } from '../../flows/world';
import { asFile, bodyOf, found, type Route, wordOf } from '../route';

export const BLOCKS: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/blocks',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listBlocks(world.db)),
  },
  {
    method: 'POST',
    path: '/api/blocks',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { template, body } = await bodyOf(c, shareBlockSchema);
      return c.json(await shareBlock(world, me.id, template, body), 201);
    },
  },
  {
    method: 'GET',
    path: '/api/blocks/:id/editions',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await blockEditions(world.db, wordOf(c))),
  },
  {
    method: 'PUT',
    path: '/api/blocks/:id/draft',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { body, version } = await bodyOf(c, saveBlockSchema);
      return c.json(await keepBlock(world, me.id, wordOf(c), body, version));
    },
  },
  {
    method: 'DELETE',
    path: '/api/blocks/:id/draft',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await dropBlockDraft(world, me.id, wordOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/blocks/:id/editions',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json(await publishBlock(world, me.id, wordOf(c), await bodyOf(c, putBlockInForceSchema)), 201),
  },
  {
    method: 'GET',
    path: '/api/blocks/:id/starter',
    most: LIMITS.starterBytes,
    roles: ALL,
    handle: async ({ c, world }) =>
      asFile(c, found((await blockStarters(world.db, wordOf(c))).get(c.req.query('path') ?? '') ?? null)),
  },
  {
    method: 'PUT',
    path: '/api/blocks/:id/starter',
    most: LIMITS.starterBytes,
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const path = relPathOf(c.req.query('path') ?? '');
      // Editions share the files of a block: each must lie under its own name.
      if (!path.ok || !path.value.startsWith(`starters/${wordOf(c)}/`))
        throw new Refused(
          400,
          'path-refused',
          'A starter file of a shared part lies under the name of the shared part.',
        );
      if (!(await putBlockStarter(world.db, wordOf(c), path.value, new Uint8Array(await c.req.arrayBuffer()))))
        throw new Refused(
          409,
          'file-there',
          'The shared part has another file of this name in an edition in force; give this one another name.',
        );
      return c.body(null, 204);
    },
  },
];
