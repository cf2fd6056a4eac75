/** Undoing a batch whole or in part: a batch of its own, which also takes the rules of the project back. */
import type { BatchAsked, ProjectShape } from '@nesting/contract';
import { type Change, isShown, VOLUME } from '@nesting/core/change';
import { nameOf } from '@nesting/core/listing';
import { projectFolderChange } from '@nesting/core/planners';
import type { Adjustments } from '@nesting/core/template';
import type { Where } from '@nesting/disk';
import { batchRoots, listsBeside } from '../../db/queries/batches/batches';
import { readShape } from '../../db/queries/projects/projects';
import { rulesInput } from '../projects/project-rules';
import { Refused, type World } from '../world';
import { found, whereOfBatch } from './batch-page';
import type { Prepared, Project } from './prepared';
import { othersOf } from './roots';

type UndoAsked = Extract<BatchAsked, { kind: 'undo' }>;

/**
 * Whole, or the lines given. The project's rules go back with it; where it went on since, what is undone becomes its
 * own.
 */
export async function prepareUndo(world: World, project: string, { batch: id, ids }: UndoAsked): Promise<Prepared> {
  const { batch, row } = await found(world, project, id);
  if (batch.state !== 'done') throw new Refused('batch-not-done');
  const where = await whereOfBatch(world, row.volume, batch);
  const neighbours = (await batchRoots(world.db, id)).filter(({ root }) => root !== VOLUME);
  const lines =
    where === null ? null : await world.disks.run('planUndo', { where, others: await othersOf(world, id), id });
  if (where === null || lines === null) throw new Refused('no-journal');
  const mine = lines.filter((l) => isShown(l.change));
  const asked = ids === null ? null : new Set(ids);
  const inBatch = new Set(lines.map((l) => l.change.id));
  const unknown = ids?.find((line) => !inBatch.has(line));
  if (unknown !== undefined) throw new Refused('line-unknown', { line: unknown });
  const chosen = mine.filter((l) => asked === null || asked.has(l.change.id)).map((l) => l.change);
  const now = await readShape(world.db, project);
  if (now === null) throw new Refused('no-project');
  const whole = chosen.length === mine.length && sameShape(now, batch.to);
  if (chosen.length === 0 && !whole) throw new Refused('nothing-to-undo');
  const planned = whole ? null : await plannedKeys(world, row, [now, batch.from]);
  const to = planned === null ? batch.from : { ...now, adjusted: adjustedBy(now.adjusted, chosen, planned) };
  const rules = await rulesInput(world.db, to, row.own);
  const own = await world.disks.run('ownChanges', { where, rules, project: row });
  const renamed = to.folder === now.folder ? [] : [projectFolderChange(now.folder, to.folder)];
  const lists = ids === null ? await listsToo(world, project, { batch: id, where }) : [];
  const changes = [...lists, ...chosen, ...own, ...renamed];
  return { project: row, where, what: 'undo', from: now, to, changes, contents: new Map(), neighbours };
}

/** Lists of checksums of what goes back go too, while they are as they were written. */
async function listsToo(
  world: World,
  project: string,
  { batch, where }: { readonly batch: string; readonly where: Where },
): Promise<readonly Change[]> {
  const id = await listsBeside(world.db, project, batch);
  const lines = id === null ? null : await world.disks.run('planUndo', { where, others: [], id });
  return (lines ?? []).filter((l) => isShown(l.change) && l.hindrance === null).map((l) => l.change);
}

const sameShape = (a: ProjectShape, b: ProjectShape): boolean =>
  JSON.stringify([a.template, a.edition, sorted(a.values), sorted(a.adjusted), a.folder]) ===
  JSON.stringify([b.template, b.edition, sorted(b.values), sorted(b.adjusted), b.folder]);

const sorted = (record: object) => Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1));

/** Keys of all lines that a project's rules plan, as they are and as they were. */
async function plannedKeys(
  world: World,
  { own }: Project,
  shapes: readonly ProjectShape[],
): Promise<ReadonlySet<string>> {
  const rules = await Promise.all(shapes.map((shape) => rulesInput(world.db, shape, own)));
  return world.disks.run('plannedKeys', { rules });
}

/**
 * Lines undone alone are the project's own from then on: left out, or called what they were. What is no line of its
 * rules, such as a file of somebody's, is not.
 */
function adjustedBy(adjusted: Adjustments, undone: readonly Change[], planned: ReadonlySet<string>): Adjustments {
  const out: Record<string, Adjustments[string]> = { ...adjusted };
  for (const { subject, before, after } of undone) {
    if (subject.kind !== 'line' || !planned.has(subject.line)) continue;
    const key = subject.line;
    if (after === null) out[key] = { ...out[key], leaveOut: true };
    else if (before !== null) out[key] = { ...out[key], name: nameOf(after.path) };
    else if (out[key]?.leaveOut) out[key] = { ...out[key], leaveOut: undefined };
  }
  return Object.fromEntries(
    Object.entries(out).flatMap(([key, a]) => {
      const kept = Object.fromEntries(Object.entries(a).filter(([, v]) => v !== undefined));
      return Object.keys(kept).length > 0 ? [[key, kept]] : [];
    }),
  );
}
