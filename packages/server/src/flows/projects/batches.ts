/**
 * Batches between database and disk. They share no transaction: the row says what is meant before the first step, the
 * journal in the project's folder
 * what was done; the project's row follows when the disk is done. What a crash cut short is settled at the next boot by
 * what really is on the disk.
 */

import { randomUUID } from 'node:crypto';
import { existsSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import type { BatchPage, BatchRow, Me, ProjectShape } from '@nesting/contract';
import { type BatchOutcome, type Change, codeOf, type NewContent } from '@nesting/core/change';
import { type Adjustments, expandTemplate, type Template } from '@nesting/core/template';
import { hindranceWords } from '@nesting/core/words';
import {
  applyOnDisk,
  BatchOpen,
  inside,
  openIn,
  openStale,
  readBatch,
  settleOnDisk,
  undoneKeys,
  undoPlan,
  volumeState,
} from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import {
  batchesOf,
  endBatch,
  insertBatch,
  readBatchRow,
  removeBatch,
  runningBatches,
  type StoredBatch,
} from '../../db/queries/projects/batches';
import { readProject, readShape, writeShape } from '../../db/queries/projects/projects';
import { checkProject } from '../checks/check-project';
import { claimNumber, freeNumber } from '../house/numbers';
import { Refused, type World } from '../world';
import { isOwnChange, ownChanges, rulesOf } from './project-rules';

type Project = NonNullable<Awaited<ReturnType<typeof readProject>>>;

export interface ToRun {
  readonly id: string;
  readonly project: Project;
  readonly root: string;
  readonly what: string;
  readonly person: Me;
  readonly undoes: string | null;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly changes: readonly Change[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
}

/** Batches that run in this process: how far they are, and how they are stopped. */
const running = new Map<string, { done: number; all: number; readonly stop: AbortController }>();

export const stopBatch = (id: string): boolean => {
  running.get(id)?.stop.abort();
  return running.has(id);
};

const OPEN_WORDS =
  'Another change of this project is under way, or stopped half way. Nothing was changed; look at its batches.';

export async function runBatch(world: World, run: ToRun): Promise<void> {
  const { id, project, root, what, person, undoes, from, to, changes, bytesOf } = run;
  await claim(world, run);
  const at = { done: 0, all: changes.length, stop: new AbortController() };
  running.set(id, at);
  const work = () =>
    applyOnDisk({
      root,
      id,
      what,
      by: person.name,
      at: new Date().toISOString(),
      undoes,
      changes,
      bytesOf,
      cancel: at.stop.signal,
      progress: (done, all) => Object.assign(at, { done, all }),
    });
  let outcome: BatchOutcome;
  try {
    outcome = await work().catch((error: unknown) => {
      // The row says that nobody else is at it: what lies there open is left from long ago.
      if (error instanceof BatchOpen && openStale(root, Date.now())) return work();
      throw error;
    });
  } catch (error) {
    if (error instanceof BatchOpen) {
      await giveUp(world, run, true);
      throw new Refused(409, 'batch-open', OPEN_WORDS);
    }
    // Where the folder cannot be reached nobody knows how far it came: it is looked at when the volume is there again.
    await giveUp(world, run, existsSync(root) && readBatch(root, id) === null);
    throw error instanceof Refused
      ? error
      : new Refused(
          409,
          'batch-paused',
          `The project’s folder cannot be reached any more (${codeOf(error)}). Once it is there again, finish the batch or take it back.`,
        );
  } finally {
    running.delete(id);
  }
  if (outcome.state === 'refused') {
    await giveUp(world, run, true);
    const [fault] = outcome.faults;
    const more = outcome.faults.length > 1 ? ` And ${outcome.faults.length - 1} more.` : '';
    throw new Refused(
      409,
      'plan-stale',
      `${hindranceWords(fault?.code === 'not-ready' || fault?.code === 'unseen' ? (fault.detail ?? fault.code) : (fault?.code ?? ''), fault?.path ?? '')}${more} Nothing was changed.`,
    );
  }
  const shown = changes.filter((c) => !isOwnChange(c)).length;
  if (outcome.state === 'paused') {
    const why = hindranceWords(outcome.code, outcome.at);
    await endBatch(world.db, id, 'paused', shown, why);
    throw new Refused(
      409,
      'batch-paused',
      `${why} ${outcome.done} of ${changes.length} steps are done; finish the batch, or take it back.`,
    );
  }
  await conclude(world, { id, project: project.id, what, from, to, person: person.id, undoes, shown }, project.volume);
}

/** The row is there before anything is touched; another number is the project's from then on. */
async function claim(world: World, { id, project, what, person, undoes, from, to }: ToRun): Promise<void> {
  try {
    await transaction(world.db, async (client) => {
      await insertBatch(client, { id, project: project.id, what, person: person.id, undoes, from, to });
      const number = String(to.values.number);
      if (number !== String(from.values.number)) await claimNumber(client, person.id, number, to.folder);
    });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'batch_open_once') throw new Refused(409, 'batch-open', OPEN_WORDS);
    throw error;
  }
}

async function giveUp(world: World, { id, from, to }: ToRun, begunNothing: boolean): Promise<void> {
  if (begunNothing) await unclaim(world, id, from, to);
  else await endBatch(world.db, id, 'paused', null, 'The project’s folder could not be reached any more.');
}

async function unclaim(world: World, id: string, from: ProjectShape, to: ProjectShape): Promise<void> {
  await transaction(world.db, async (client) => {
    await removeBatch(client, id);
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(to.values.number), 'its change came to nothing');
  });
}

interface ToConclude {
  readonly id: string;
  readonly project: string;
  readonly what: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly person: string | null;
  readonly undoes: string | null;
  readonly shown: number;
}

/** The disk is done: the project's folder takes its name, and its row its shape. */
async function conclude(
  world: World,
  { id, project, what, from, to, person, undoes, shown }: ToConclude,
  volume: string,
): Promise<void> {
  const hindered = from.folder === to.folder ? null : renameFolder(world, volume, from.folder, to.folder);
  if (hindered !== null) {
    await endBatch(world.db, id, 'paused', shown, hindered);
    throw new Refused(
      409,
      'batch-paused',
      `${hindered} All else is done; finish the batch once the way is free, or take it back.`,
    );
  }
  await transaction(world.db, async (client) => {
    await writeShape(client, project, to);
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(from.values.number), `its project is ${String(to.values.number)} now`);
    await endBatch(client, id, 'done', shown);
    await recordActivity(
      client,
      undoes === null ? 'project-reshaped' : 'batch-undone',
      person,
      project,
      {
        what,
        changes: shown,
        batch: id,
        ...(from.folder !== to.folder && { folder: `${from.folder} → ${to.folder}` }),
      },
      `project:${project}`,
    );
  });
  await checkProject(world, project, person);
}

/** Why not, or `null`. What has the name already is done. */
function renameFolder(world: World, volume: string, from: string, to: string): string | null {
  const root = world.config.volumes.get(volume) ?? '';
  const [source, target] = [inside(root, from), inside(root, to)];
  if (!source.ok && target.ok) return null;
  if (!source.ok) return hindranceWords('ENOENT', from);
  if (target.ok && from.toLowerCase() !== to.toLowerCase()) return hindranceWords('EEXIST', to);
  try {
    renameSync(source.value, join(root, to));
    return null;
  } catch (error) {
    return hindranceWords(codeOf(error), to);
  }
}

/** Where a project's folder is while a batch may have renamed it. */
function rootOf(world: World, volume: string, { from, to }: Pick<StoredBatch, 'from' | 'to'>): string | null {
  const root = world.config.volumes.get(volume) ?? '';
  for (const folder of [from.folder, to.folder]) {
    const at = inside(root, folder);
    if (at.ok) return at.value;
  }
  return null;
}

export async function listBatches(world: World, project: string): Promise<BatchRow[]> {
  return (await batchesOf(world.db, project, 200)).map(({ from: _from, to: _to, project: _project, ...row }) => ({
    ...row,
    ...(running.has(row.id) && { done: running.get(row.id)?.done ?? 0, all: running.get(row.id)?.all ?? 0 }),
  }));
}

async function found(world: World, project: string, id: string): Promise<{ batch: StoredBatch; row: Project }> {
  const [batch, row] = [await readBatchRow(world.db, project, id), await readProject(world.db, project)];
  if (batch === null || row === null) throw new Refused(404, 'not-found', 'There is no such batch.');
  return { batch, row };
}

/** Line by line, with what hinders undoing each. */
export async function readBatchPage(world: World, project: string, id: string): Promise<BatchPage> {
  const { batch, row } = await found(world, project, id);
  const { from, to, project: _project, ...rest } = batch;
  const folder = from.folder === to.folder ? null : { from: from.folder, to: to.folder };
  const root = rootOf(world, row.volume, batch);
  const record = root === null ? null : readBatch(root, id);
  if (root === null || record === null)
    return {
      ...rest,
      folder,
      lines: [],
      unread:
        batch.state === 'running'
          ? null
          : root === null
            ? 'The project’s folder cannot be reached: its lines stand in the journal there.'
            : 'The journal of this batch is not in the project’s folder any more.',
    };
  const undone = undoneKeys(root, id);
  const plan = batch.state === 'done' ? await undoPlan(root, id) : null;
  const hindered = new Map(
    (plan ?? []).map((l) => [
      l.change.key,
      l.hindrance === null
        ? null
        : hindranceWords(
            l.hindrance.code === 'unseen' && 'detail' in l.hindrance ? (l.hindrance.detail ?? '') : l.hindrance.code,
            l.hindrance.path,
          ),
    ]),
  );
  const lines = record.intents.changes
    .filter((c) => !isOwnChange(c))
    .map((change) => ({
      change,
      undone: undone.has(change.key) || batch.state === 'taken-back',
      hindrance: hindered.get(change.key) ?? null,
    }));
  return { ...rest, folder, lines, unread: null };
}

/**
 * Whole, or the lines given. The project's rules go back with it; where it went on since, what is undone becomes its
 * own.
 */
export async function undoBatch(
  world: World,
  me: Me,
  project: string,
  id: string,
  keys: readonly string[] | null,
): Promise<{ readonly batch: string }> {
  const { batch, row } = await found(world, project, id);
  if (batch.state !== 'done')
    throw new Refused(409, 'batch-not-done', 'Only what was done can be undone. Nothing was changed.');
  const root = rootOf(world, row.volume, batch);
  const lines = root === null ? null : await undoPlan(root, id);
  if (root === null || lines === null)
    throw new Refused(404, 'no-journal', 'The journal of this batch is not there. Nothing was changed.');
  const mine = lines.filter((l) => !isOwnChange(l.change));
  const asked = keys === null ? null : new Set(keys);
  const inBatch = new Set(lines.map((l) => l.change.key));
  const unknown = keys?.find((key) => !inBatch.has(key));
  if (unknown !== undefined)
    throw new Refused(422, 'line-unknown', `${unknown} is no line of this batch that is left. Nothing was changed.`);
  const chosen = mine.filter((l) => asked === null || asked.has(l.change.key)).map((l) => l.change);
  const now = await readShape(world.db, project);
  if (now === null) throw new Refused(404, 'not-found', 'There is no such project.');
  const whole = chosen.length === mine.length && sameShape(now, batch.to);
  if (chosen.length === 0 && !whole)
    throw new Refused(409, 'nothing-to-undo', 'Nothing of this batch is left to be undone.');
  const planned = whole ? null : await plannedKeys(world, row, [now, batch.from]);
  const to = planned === null ? batch.from : { ...now, adjusted: adjustedBy(now.adjusted, chosen, planned) };
  const template: Template = await rulesOf(world.db, to, row.own);
  const own = ownChanges(root, row, template, to.values, await readRegisters(world.db));
  const undo = randomUUID();
  await runBatch(world, {
    id: undo,
    project: row,
    root,
    what: 'undo',
    person: me,
    undoes: id,
    from: now,
    to,
    changes: [...chosen, ...own],
    bytesOf: (c) => Buffer.from(c.kind === 'text' ? c.text : ''),
  });
  return { batch: undo };
}

const sameShape = (a: ProjectShape, b: ProjectShape): boolean =>
  JSON.stringify([a.template, a.edition, sorted(a.values), sorted(a.adjusted), a.folder]) ===
  JSON.stringify([b.template, b.edition, sorted(b.values), sorted(b.adjusted), b.folder]);
const sorted = (record: object) => Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1));

/** Keys of all lines that a project's rules plan, as they are and as they were. */
async function plannedKeys(
  world: World,
  row: NonNullable<Awaited<ReturnType<typeof readProject>>>,
  shapes: readonly ProjectShape[],
): Promise<ReadonlySet<string>> {
  const registers = await readRegisters(world.db);
  const keys = new Set<string>();
  for (const shape of shapes) {
    const template = await rulesOf(world.db, shape, row.own);
    for (const line of expandTemplate(template, shape.values, registers).lines) keys.add(line.key);
  }
  return keys;
}

/**
 * Lines undone alone are the project's own from then on: left out, or called what they were. What is no line of its
 * rules, such as a file of somebody's, is not.
 */
function adjustedBy(adjusted: Adjustments, undone: readonly Change[], planned: ReadonlySet<string>): Adjustments {
  const out: Record<string, Adjustments[string]> = { ...adjusted };
  for (const { key, before, after } of undone) {
    if (!planned.has(key)) continue;
    if (after === null) out[key] = { ...out[key], leaveOut: true };
    else if (before !== null) out[key] = { ...out[key], name: after.slice(after.lastIndexOf('/') + 1) };
    else if (out[key]?.leaveOut) out[key] = { ...out[key], leaveOut: undefined };
  }
  return Object.fromEntries(
    Object.entries(out).flatMap(([key, a]) => {
      const kept = Object.fromEntries(Object.entries(a).filter(([, v]) => v !== undefined));
      return Object.keys(kept).length > 0 ? [[key, kept]] : [];
    }),
  );
}

export async function settleBatch(
  world: World,
  me: Me,
  project: string,
  id: string,
  way: 'finish' | 'take-back',
): Promise<void> {
  const { batch, row } = await found(world, project, id);
  if (batch.state !== 'paused')
    throw new Refused(409, 'batch-not-paused', 'This batch is not stopped half way. Nothing was changed.');
  const settled = await settle(world, batch, row.volume, way, me.id);
  if (settled !== null) throw new Refused(409, 'batch-paused', settled);
}

/** What stands in the way, or `null` where it is settled. */
async function settle(
  world: World,
  batch: StoredBatch,
  volume: string,
  way: 'finish' | 'take-back',
  person: string | null,
): Promise<string | null> {
  const root = rootOf(world, volume, batch);
  if (root === null) return 'The project’s folder cannot be reached.';
  const isOpen = openIn(root) === batch.id;
  const settled = isOpen ? await settleOnDisk(root, way, { by: person ?? '', at: new Date().toISOString() }) : null;
  if (settled?.state === 'paused') {
    const why = hindranceWords(settled.code, settled.at);
    await endBatch(world.db, batch.id, 'paused', null, why);
    return why;
  }
  const record = readBatch(root, batch.id);
  if (settled?.state === 'not-begun' || record === null) {
    await unclaim(world, batch.id, batch.from, batch.to);
    return null;
  }
  if (record.ended?.ended === 'taken-back') {
    await takenBack(world, batch);
    await recordActivity(
      world.db,
      'batch-taken-back',
      person,
      batch.project,
      { batch: batch.id },
      `project:${batch.project}`,
    );
    return null;
  }
  // All of it is on the disk, and only the folder's name or the row is not.
  if (way === 'take-back') return undoWhole(world, batch, root);
  try {
    const shown = record.intents.changes.filter((c) => !isOwnChange(c)).length;
    await conclude(world, { ...batch, person, shown }, volume);
    return null;
  } catch (error) {
    if (error instanceof Refused) return error.message;
    throw error;
  }
}

async function undoWhole(world: World, batch: StoredBatch, root: string): Promise<string | null> {
  const lines = (await undoPlan(root, batch.id)) ?? [];
  const outcome = await applyOnDisk({
    root,
    id: `${batch.id}-back`,
    what: 'take-back',
    by: '',
    at: new Date().toISOString(),
    undoes: batch.id,
    changes: lines.map((l) => l.change),
    bytesOf: () => new Uint8Array(),
  });
  if (outcome.state !== 'done')
    return outcome.state === 'paused'
      ? hindranceWords(outcome.code, outcome.at)
      : hindranceWords(outcome.faults[0]?.code ?? '', outcome.faults[0]?.path ?? '');
  await takenBack(world, batch);
  return null;
}

async function takenBack(world: World, { id, from, to }: StoredBatch): Promise<void> {
  await transaction(world.db, async (client) => {
    await endBatch(client, id, 'taken-back', null);
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(to.values.number), 'its change was taken back');
  });
}

/** At the server's start: batches a crash cut short are finished; where that is hindered, they wait for a person. */
export async function settleBatches(world: World): Promise<void> {
  for (const batch of await runningBatches(world.db)) {
    const row = await readProject(world.db, batch.project);
    const root = row === null ? undefined : world.config.volumes.get(row.volume);
    // A volume that is away tells nothing: it waits.
    const why =
      row === null || root === undefined || volumeState(root).state === 'missing'
        ? 'The volume was away when the server started again.'
        : await settle(world, batch, row.volume, 'finish', null);
    if (why !== null) await endBatch(world.db, batch.id, 'paused', null, why);
  }
}
