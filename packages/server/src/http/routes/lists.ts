/** The house's lists: registers, volumes, numbers. */
import { holdSchema, type VolumeRow } from '@nesting/contract';
import { volumeState } from '@nesting/disk';
import { transaction } from '../../db/client';
import { giveBackNumber, holdNumber } from '../../db/queries/numbers';
import { readRegisters } from '../../db/queries/registers';
import { foldersIn, volumeListing } from '../../flows/listings';
import { ALL, bodyOf, COORDINATOR, type Route, wordOf } from '../route';

export const LISTS: readonly Route[] = [
  { method: 'GET', path: '/api/registers', roles: ALL, handle: async ({ c, world }) => c.json(await readRegisters(world.db)) },
  {
    method: 'GET', path: '/api/volumes', roles: ALL,
    handle: ({ c, world }) => c.json([...world.config.volumes].map(([name, root]): VolumeRow => ({ name, root, ...volumeState(root) }))),
  },
  { method: 'GET', path: '/api/volumes/:name/folders', roles: COORDINATOR, handle: ({ c, world }) => c.json(foldersIn(world, wordOf(c, 'name'), c.req.query('path') ?? '')) },
  { method: 'GET', path: '/api/volumes/:name/listing', roles: COORDINATOR, handle: async ({ c, world }) => c.json(await volumeListing(world, wordOf(c, 'name'), c.req.query('path') ?? '')) },
  {
    method: 'POST', path: '/api/numbers/hold', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { year } = await bodyOf(c, holdSchema);
      const hold = await transaction(world.db, (client) => holdNumber(client, me.id, year));
      return c.json({ number: hold.number, until: hold.until.toISOString() });
    },
  },
  {
    method: 'DELETE', path: '/api/numbers/hold/:number', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await giveBackNumber(world.db, me.id, c.req.param('number') ?? '');
      return c.body(null, 204);
    },
  },
];
