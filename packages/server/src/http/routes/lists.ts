/** The house's lists entry by entry, the meanings of its marks, what was done, and mails. */
import { LIST_ENDPOINTS } from '@nesting/contract';
import { readActivity } from '../../db/queries/house/activity';
import { readListText } from '../../db/queries/house/lists';
import { listMails } from '../../db/queries/house/mails';
import { readMeanings } from '../../db/queries/house/marks';
import { readRegisters } from '../../db/queries/house/registers';
import { activityCsv } from '../../flows/activity/activity-csv';
import { addEntry, importEntries, mergeEntries, removeEntry, saveEntry, subjectOf } from '../../flows/house/lists';
import { saveMeaning } from '../../flows/house/marks';
import { MadeJson, routesOf } from '../handlers';
import { found } from '../route';

const PAGE = 200;
/** Entries that are shown while the rest of a long list is on its way. */
const HEAD = 100;

export const LISTS = routesOf(LIST_ENDPOINTS, {
  registers: ({ world }) => readRegisters(world.db),
  readList: async ({ world, params, query }) =>
    new MadeJson(await readListText(world.db, params.list, query.head === undefined ? null : HEAD)),
  addEntry: ({ world, me, params, body }) => addEntry(world, me.id, params.list, body.cells),
  importEntries: ({ world, me, params, body }) => importEntries(world, me.id, params.list, body.table, body.lines),
  mergeEntries: ({ world, me, params, body }) => mergeEntries(world, me.id, params.list, body.from, body.into),
  saveEntry: ({ world, me, params, body }) =>
    saveEntry(world, me.id, params.list, params.key, body.cells, body.version),
  removeEntry: ({ world, me, params }) => removeEntry(world, me.id, params.list, params.key),
  entryHistory: async ({ world, params }) =>
    (await readActivity(world.db, { subject: subjectOf(params.list, params.key) }, PAGE)).rows,
  readMeanings: ({ world }) => readMeanings(world.db),
  saveMeaning: ({ world, me, params, body }) => saveMeaning(world, me.id, params.mark, body.words, body.was),
  activity: ({ world, query: { short, ...query } }) => readActivity(world.db, query, short === undefined ? PAGE : HEAD),
  activityTable: ({ world, query }) => ({
    name: 'activity.csv',
    type: 'text/csv; charset=utf-8',
    body: activityCsv(world, query),
  }),
  outbox: ({ world }) => listMails(found(world.config.demo ? world.db : null)),
});
