/** The house's lists: each entry checked as the screens do, changed by who saw it last, kept in its history. */

import type { Imported, ListEntryRow } from '@nesting/contract';
import { coded, present } from '@nesting/core';
import {
  type Cells,
  COLUMNS,
  cellFaults,
  foldKey,
  keyColumn,
  type ListName,
  planImport,
  severalOf,
  tidyCells,
} from '@nesting/core/lists';
import { type Client, sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import {
  deleteEntry,
  type EditableList,
  insertEntry,
  moveClientProjects,
  readEntry,
  readList,
  templatesWithFamily,
  updateEntry,
  upsertEntries,
} from '../../db/queries/house/lists';
import { Refused, type World } from '../world';

/** What an entry's history is asked for by. */
export const subjectOf = (list: ListName, key: string): string => `${list}:${foldKey(key)}`;

function tidied(list: EditableList, given: Cells): Cells {
  const cells = tidyCells(list, given);
  const [fault] = cellFaults(list, cells);
  if (fault) throw new Refused('cell-refused', { because: coded(fault) });
  return cells;
}

/** Words for what the database itself refuses. */
async function guarded<T>(list: EditableList, cells: Cells, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const { state, constraint } = sqlFault(error) ?? { state: '', constraint: '' };
    if (state === '23505' && constraint === 'abbreviation_short_once')
      throw new Refused('short-there', { text: cells.short ?? '' });
    if (state === '23505')
      throw new Refused('entry-there', { column: keyColumn(list).label, text: cells[keyColumn(list).key] ?? '' });
    if (state === '23503')
      throw new Refused('entry-used', { key: cells[keyColumn(list).key] ?? '', by: [], canRetire: true });
    throw error;
  }
}

export async function addEntry(world: World, person: string, list: EditableList, given: Cells): Promise<ListEntryRow> {
  const cells = tidied(list, given);
  const key = cells[keyColumn(list).key] ?? '';
  return guarded(list, cells, () =>
    transaction(world.db, async (client) => {
      await insertEntry(client, list, cells);
      await recordActivity(client, 'entry-added', person, null, { list, key, now: cells }, subjectOf(list, key));
      return present(await readEntry(client, list, key));
    }),
  );
}

export async function saveEntry(
  world: World,
  person: string,
  list: EditableList,
  key: string,
  given: Cells,
  version: number,
): Promise<ListEntryRow> {
  const cells = tidied(list, given);
  const next = cells[keyColumn(list).key] ?? '';
  return guarded(list, cells, () =>
    transaction(world.db, async (client) => {
      const before = await readEntry(client, list, key);
      if (before === null) throw new Refused('no-entry', { key });
      if (next !== before.key && before.used > 0)
        throw new Refused('entry-in-names', { key: before.key, projects: before.used });
      if (!(await updateEntry(client, list, before.key, cells, version)))
        throw new Refused('entry-changed', { key: before.key });
      const changed = COLUMNS[list]
        .filter((c) => (before.cells[c.key] ?? '') !== (cells[c.key] ?? ''))
        .map((c) => c.key);
      if (changed.length > 0) await recordChange(client, person, list, before, cells, changed);
      return present(await readEntry(client, list, next));
    }),
  );
}

const pick = (cells: Cells, keys: readonly string[]): Cells => Object.fromEntries(keys.map((k) => [k, cells[k] ?? '']));

async function recordChange(
  client: Client,
  person: string,
  list: EditableList,
  before: ListEntryRow,
  cells: Cells,
  changed: readonly string[],
): Promise<void> {
  const key = cells[keyColumn(list).key] ?? '';
  const params = { list, key, was: pick(before.cells, changed), now: pick(cells, changed) };
  await recordActivity(client, 'entry-changed', person, null, params, subjectOf(list, key));
  // Under its old key it is found too.
  if (foldKey(key) !== foldKey(before.key))
    await recordActivity(client, 'entry-changed', person, null, params, subjectOf(list, before.key));
}

export async function removeEntry(world: World, person: string, list: EditableList, key: string): Promise<void> {
  await guarded(list, {}, () =>
    transaction(world.db, async (client) => {
      const before = await readEntry(client, list, key);
      if (before === null) throw new Refused('no-entry', { key });
      const users = list === 'families' ? await templatesWithFamily(client, before.key) : [];
      if (before.used > 0 || users.length > 0)
        throw new Refused('entry-used', { key: before.key, by: users.slice(0, 3), canRetire: list === 'clients' });
      await deleteEntry(client, list, before.key);
      await recordActivity(
        client,
        'entry-deleted',
        person,
        null,
        { list, key: before.key, was: before.cells },
        subjectOf(list, before.key),
      );
    }),
  );
}

/**
 * One of two that mean the same: clients keep both codes, of which one is retired; a family takes the other's
 * extensions.
 */
export async function mergeEntries(
  world: World,
  person: string,
  list: EditableList,
  from: string,
  into: string,
): Promise<void> {
  if (list !== 'clients' && list !== 'families') throw new Refused('no-merge');
  await transaction(world.db, async (client) => {
    const [a, b] = [await readEntry(client, list, from), await readEntry(client, list, into)];
    if (a === null || b === null || a.key === b.key) throw new Refused('two-entries');
    let moved = 0;
    if (list === 'clients') {
      if (b.cells.retired === 'yes') throw new Refused('entry-retired', { key: b.key });
      moved = await moveClientProjects(client, a.key, b.key);
    } else {
      const users = await templatesWithFamily(client, a.key);
      if (users.length > 0) throw new Refused('entry-named', { key: a.key, by: users.slice(0, 3) });
      const both = (column: string) =>
        [...new Set([...severalOf(b.cells[column] ?? ''), ...severalOf(a.cells[column] ?? '')])].join(' ');
      await updateEntry(
        client,
        list,
        b.key,
        { ...b.cells, extensions: both('extensions'), companions: both('companions') },
        b.version,
      );
      await deleteEntry(client, list, a.key);
    }
    for (const key of [a.key, b.key])
      await recordActivity(
        client,
        'entries-merged',
        person,
        null,
        { list, from: a.key, into: b.key, projects: moved, was: a.cells },
        subjectOf(list, key),
      );
  });
}

/** The lines named of a table, looked at anew: all of them, or nothing. */
export async function importEntries(
  world: World,
  person: string,
  list: EditableList,
  table: readonly (readonly string[])[],
  lines: readonly number[],
): Promise<Imported> {
  const wanted = new Set(lines);
  return guarded(list, {}, () =>
    transaction(world.db, async (client) => {
      const plan = planImport(list, await readList(client, list), table);
      if (plan.faults[0]) throw new Refused('table-refused', { line: null, because: coded(plan.faults[0]) });
      const rows = plan.rows.filter((r) => wanted.has(r.line));
      const refused = rows.find((r) => r.state === 'refused');
      if (refused)
        throw new Refused('table-refused', {
          line: refused.line,
          because: coded(refused.faults[0] ?? { code: '', params: {} }),
        });
      const taken = rows.filter((r) => r.state !== 'same');
      await upsertEntries(
        client,
        list,
        taken.map((r) => r.cells),
      );
      const added = taken.filter((r) => r.state === 'new').length;
      await recordActivity(client, 'list-imported', person, null, { list, added, changed: taken.length - added }, list);
      await recordLines(client, person, list, taken);
      return { added, changed: taken.length - added };
    }),
  );
}

/** Each entry's own history knows of it too, in one round trip. */
async function recordLines(
  client: Client,
  person: string,
  list: EditableList,
  rows: ReturnType<typeof planImport>['rows'],
): Promise<void> {
  const events = rows.map((r) => ({
    what: r.state === 'new' ? 'entry-added' : 'entry-changed',
    subject: subjectOf(list, r.key),
    params: {
      list,
      key: r.key,
      imported: 1,
      ...(r.state === 'new' ? { now: r.cells } : { was: r.was, now: pick(r.cells, Object.keys(r.was)) }),
    },
  }));
  await client.query(
    'insert into activity (person_id, what, subject, params) select $1, what, subject, params from jsonb_to_recordset($2) as given(what text, subject text, params jsonb)',
    [person, JSON.stringify(events)],
  );
}
