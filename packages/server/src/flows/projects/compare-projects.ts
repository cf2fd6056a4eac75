/** Two projects side by side, as they lie on the disk now. */
import type { CompareQuery, Comparison, ComparisonForm } from '@nesting/contract';
import { toldRow } from '@nesting/core/compare';
import { relPathOf } from '@nesting/core/listing';
import { comparedCsv, comparedJson } from '@nesting/core/report';
import type { ComparedFolders, SideTask } from '@nesting/disk';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import type { Project } from '../batches/prepared';
import { compileRules } from '../checks/check-project';
import { Refused, type World } from '../world';

/** Rows that are told at once, and places that could not be looked at. */
const MOST_ROWS = 10_000;
const MOST_UNSEEN = 200;

/** Bytes that are read to tell contents from each other: whoever asked waits for it, and so do other plans. */
const MOST_READ = 10 * 2 ** 30;

interface Compared {
  readonly left: Project;
  readonly right: Project;
  readonly found: ComparedFolders;
}

async function compared(world: World, query: CompareQuery): Promise<Compared> {
  const [left, right] = [await readProject(world.db, query.left), await readProject(world.db, query.right)];
  if (left === null || right === null) throw new Refused('no-project');
  const task = {
    left: await sideOf(world, left.id, query.leftFolder),
    right: await sideOf(world, right.id, query.rightFolder),
    mostRead: MOST_READ,
  };
  return { left, right, found: await world.disks.run('compareFolders', task, untilAskerLeaves()) };
}

async function sideOf(world: World, id: string, within: string): Promise<SideTask> {
  if (within !== '' && !relPathOf(within).ok) throw new Refused('path-refused');
  const { where, mounts, input } = await compileRules(world, id);
  const there = within === '' ? null : await world.disks.run('folder', { where, mounts, path: within });
  if (within !== '' && there === null) throw new Refused('path-missing', { path: within });
  return { where, mounts, rules: input, within };
}

export async function compareProjects(world: World, query: CompareQuery): Promise<Comparison> {
  const { left, right, found } = await compared(world, query);
  const rows = query.same ? found.rows : found.rows.filter(({ state }) => state !== 'same');
  return {
    left: headOf(left, query.leftFolder),
    right: headOf(right, query.rightFolder),
    rows: rows.slice(0, MOST_ROWS).map(toldRow),
    all: rows.length,
    ...found.sums,
    unseen: found.unseen.slice(0, MOST_UNSEEN).map(({ side, path, code }) => ({ side, path, code })),
  };
}

const FORMS = {
  csv: { print: comparedCsv, type: 'text/csv; charset=utf-8' },
  json: { print: comparedJson, type: 'application/json' },
} as const satisfies Readonly<Record<ComparisonForm, object>>;

/** Every row that was asked for. */
export async function printComparison(
  world: World,
  { as, ...query }: CompareQuery & { readonly as: ComparisonForm },
): Promise<{ readonly name: string; readonly type: string; readonly body: string }> {
  const { left, right, found } = await compared(world, query);
  const rows = query.same ? found.rows : found.rows.filter(({ state }) => state !== 'same');
  const { print, type } = FORMS[as];
  return { name: `${left.number}-${right.number}.${as}`, type, body: print(rows.map(toldRow)) };
}

const headOf = ({ id, number, folder, values }: Project, within: string): Comparison['left'] => ({
  id,
  number,
  folder,
  within,
  title: String(values.title ?? ''),
});
