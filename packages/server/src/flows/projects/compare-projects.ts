/** Two projects side by side, as they lie on the disk now. */
import type { CompareQuery, Comparison, ComparisonForm } from '@nesting/contract';
import { toldRow } from '@nesting/core/compare';
import { relPathOf } from '@nesting/core/listing';
import { revisionList } from '@nesting/core/name';
import type { CheckInput } from '@nesting/core/project';
import { comparedCsv, comparedJson } from '@nesting/core/report';
import { expandTemplate } from '@nesting/core/template';
import type { ComparedFolders, SideTask } from '@nesting/disk';
import { readBatchRow } from '../../db/queries/batches/batches';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { compileRules } from '../checks/check-project';
import { Refused, type World } from '../world';

/** Rows that are told at once, and places that could not be looked at. */
const MOST_ROWS = 10_000;
const MOST_UNSEEN = 200;

/** Bytes that are read to tell contents from each other: whoever asked waits for it, and so do other plans. */
const MOST_READ = 10 * 2 ** 30;

interface Side {
  readonly task: SideTask;
  readonly head: Comparison['left'];
}

interface Compared {
  readonly left: Comparison['left'];
  readonly right: Comparison['right'];
  readonly found: ComparedFolders;
}

async function compared(world: World, query: CompareQuery): Promise<Compared> {
  const left = await sideOf(world, {
    ...{ id: query.left, within: query.leftFolder, revision: query.leftRevision, batch: query.leftBatch },
  });
  const right = await sideOf(world, {
    ...{ id: query.right, within: query.rightFolder, revision: query.rightRevision, batch: query.rightBatch },
  });
  const task = { left: left.task, right: right.task, mostRead: MOST_READ };
  return {
    left: left.head,
    right: right.head,
    found: await world.disks.run('compareFolders', task, untilAskerLeaves()),
  };
}

/** What of a project is compared, as it was asked for: empty for all of it. */
interface SideAsked {
  readonly id: string;
  readonly within: string;
  readonly revision: string;
  readonly batch: string;
}

async function sideOf(world: World, { id, within, revision, batch }: SideAsked): Promise<Side> {
  const project = await readProject(world.db, id);
  if (project === null) throw new Refused('no-project');
  if (within !== '' && !relPathOf(within).ok) throw new Refused('path-refused');
  const { where, mounts, input } = await compileRules(world, id);
  const there = within === '' ? null : await world.disks.run('folder', { where, mounts, path: within });
  if (within !== '' && there === null) throw new Refused('path-missing', { path: within });
  const as = revision === '' ? null : revisionsOf(input, revision);
  if (revision !== '' && as === null) throw new Refused('no-revisions', { number: project.number });
  const change = batch === '' ? null : await readBatchRow(world.db, id, batch);
  if (batch !== '' && change === null) throw new Refused('no-change');
  if (change !== null && !(await world.disks.run('hasBegun', { where, id: batch })))
    throw new Refused('batch-forgotten');
  const { number, folder, values } = project;
  return {
    task: {
      ...{ where, mounts, rules: input, within, batch: change?.id ?? null },
      revision: as === null ? null : { as, entry: revision },
    },
    head: {
      ...{ id, number, folder, within, revision, title: String(values.title ?? '') },
      batch: change === null ? null : { id: change.id, what: change.what, at: change.at },
    },
  };
}

/** What names and folders call a revision of the project; `null` where it has none of that name. */
function revisionsOf({ template, values, registers }: CheckInput, entry: string): string | null {
  const field = revisionList(template.fields);
  if (field === undefined) return null;
  const entries = expandTemplate(template, values, registers).values.lists.get(field.key)?.all ?? [];
  return entries.includes(entry) ? field.revisions : null;
}

export async function compareProjects(world: World, query: CompareQuery): Promise<Comparison> {
  const { left, right, found } = await compared(world, query);
  const rows = query.same ? found.rows : found.rows.filter(({ state }) => state !== 'same');
  return {
    left,
    right,
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
