/** The house's lists: registers row by row, numbers, volumes, what was done. */
import {
  ALL,
  activityQuerySchema,
  addEntrySchema,
  COORDINATOR,
  holdSchema,
  importSchema,
  LOOKING,
  listNameSchema,
  markSchema,
  mergeEntriesSchema,
  prefixesSchema,
  relinkSchema,
  reserveSchema,
  saveEntrySchema,
  saveMeaningSchema,
  saveSeriesSchema,
  takeUpSchema,
} from '@nesting/contract';
import type { Context } from 'hono';
import { readActivity } from '../../db/queries/house/activity';
import { type EditableList, readListText } from '../../db/queries/house/lists';
import { listMails } from '../../db/queries/house/mails';
import { readMeanings } from '../../db/queries/house/marks';
import { readRegisters } from '../../db/queries/house/registers';
import { activityCsv } from '../../flows/activity/activity-csv';
import { foldersIn, volumeListing } from '../../flows/checks/listings';
import { addEntry, importEntries, mergeEntries, removeEntry, saveEntry, subjectOf } from '../../flows/house/lists';
import { saveMeaning } from '../../flows/house/marks';
import {
  giveBackNumber,
  holdNumber,
  numberPage,
  releaseNumber,
  reserveNumber,
  saveSeries,
} from '../../flows/house/numbers';
import { findProjects, relink, savePrefixes, takeUpVolume, volumeRows } from '../../flows/house/volumes';
import { Refused } from '../../flows/world';
import { bodyOf, checked, found, type Route, wordOf } from '../route';

function listOf(c: Context): EditableList {
  const list = listNameSchema.safeParse(c.req.param('list'));
  if (!list.success || list.data === 'people') throw new Refused(404, 'no-list', 'There is no such list.');
  return list.data;
}

const PAGE = 200;
/** Entries that are shown while the rest of a long list is on its way. */
const HEAD = 100;

export const LISTS: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/registers',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await readRegisters(world.db)),
  },
  {
    method: 'GET',
    path: '/api/lists/:list',
    roles: ALL,
    handle: async ({ c, world }) =>
      c.body(await readListText(world.db, listOf(c), c.req.query('head') === undefined ? null : HEAD), 200, {
        'content-type': 'application/json',
      }),
  },
  {
    method: 'POST',
    path: '/api/lists/:list',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json(await addEntry(world, me.id, listOf(c), (await bodyOf(c, addEntrySchema)).cells), 201),
  },
  {
    method: 'POST',
    path: '/api/lists/:list/import',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { table, lines } = await bodyOf(c, importSchema);
      return c.json(await importEntries(world, me.id, listOf(c), table, lines));
    },
  },
  {
    method: 'POST',
    path: '/api/lists/:list/merge',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { from, into } = await bodyOf(c, mergeEntriesSchema);
      await mergeEntries(world, me.id, listOf(c), from, into);
      return c.body(null, 204);
    },
  },
  {
    method: 'PUT',
    path: '/api/lists/:list/:key',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { cells, version } = await bodyOf(c, saveEntrySchema);
      return c.json(await saveEntry(world, me.id, listOf(c), wordOf(c, 'key'), cells, version));
    },
  },
  {
    method: 'DELETE',
    path: '/api/lists/:list/:key',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await removeEntry(world, me.id, listOf(c), wordOf(c, 'key'));
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/lists/:list/:key/history',
    roles: LOOKING,
    handle: async ({ c, world }) =>
      c.json(
        (
          await readActivity(
            world.db,
            { subject: subjectOf(checked(c.req.param('list'), listNameSchema), wordOf(c, 'key')) },
            PAGE,
          )
        ).rows,
      ),
  },

  {
    method: 'GET',
    path: '/api/marks',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await readMeanings(world.db)),
  },
  {
    method: 'PUT',
    path: '/api/marks/:mark',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { words, was } = await bodyOf(c, saveMeaningSchema);
      await saveMeaning(world, me.id, checked(c.req.param('mark'), markSchema), words, was);
      return c.body(null, 204);
    },
  },

  {
    method: 'GET',
    path: '/api/numbers',
    roles: LOOKING,
    handle: async ({ c, world }) => c.json(await numberPage(world, c.req.query('scope') ?? null)),
  },
  {
    method: 'PUT',
    path: '/api/numbers/series',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { series, version } = await bodyOf(c, saveSeriesSchema);
      await saveSeries(world, me.id, series, version);
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/numbers/reserved',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { number, why } = await bodyOf(c, reserveSchema);
      await reserveNumber(world, me.id, number, why);
      return c.body(null, 204);
    },
  },
  {
    method: 'DELETE',
    path: '/api/numbers/reserved/:number',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await releaseNumber(world, me.id, wordOf(c, 'number'));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/numbers/hold',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await holdNumber(world, me.id, await bodyOf(c, holdSchema))),
  },
  {
    method: 'DELETE',
    path: '/api/numbers/hold/:number',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await giveBackNumber(world, me.id, wordOf(c, 'number'));
      return c.body(null, 204);
    },
  },

  { method: 'GET', path: '/api/volumes', roles: ALL, handle: async ({ c, world }) => c.json(await volumeRows(world)) },
  {
    method: 'POST',
    path: '/api/volumes/:name/take-up',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { isAnother } = await bodyOf(c, takeUpSchema);
      await takeUpVolume(world, me.id, wordOf(c, 'name'), isAnother);
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/volumes/projects',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await findProjects(world)),
  },
  {
    method: 'POST',
    path: '/api/volumes/relink',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { project, volume, folder } = await bodyOf(c, relinkSchema);
      await relink(world, me.id, project, volume, folder);
      return c.body(null, 204);
    },
  },
  {
    method: 'PUT',
    path: '/api/volumes/:name/prefixes',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await savePrefixes(world, me.id, wordOf(c, 'name'), await bodyOf(c, prefixesSchema));
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/volumes/:name/folders',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await foldersIn(world, wordOf(c, 'name'), c.req.query('path') ?? '')),
  },
  {
    method: 'GET',
    path: '/api/volumes/:name/listing',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await volumeListing(world, wordOf(c, 'name'), c.req.query('path') ?? '')),
  },

  {
    method: 'GET',
    path: '/api/activity',
    roles: LOOKING,
    handle: async ({ c, world }) =>
      c.json(
        await readActivity(
          world.db,
          checked(c.req.query(), activityQuerySchema),
          c.req.query('short') === undefined ? PAGE : HEAD,
        ),
      ),
  },
  {
    method: 'GET',
    path: '/api/activity.csv',
    roles: LOOKING,
    handle: ({ c, world }) =>
      c.body(activityCsv(world, checked(c.req.query(), activityQuerySchema)), 200, {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="activity.csv"',
      }),
  },
  // Mails are read here in a demo alone: elsewhere the links in them are nobody else's.
  {
    method: 'GET',
    path: '/api/outbox',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await listMails(found(world.config.demo ? world.db : null))),
  },
];
