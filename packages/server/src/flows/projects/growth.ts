/** A project that gets entries in its lists on the way of something else: one batch does both. */
import { type Change, HOME } from '@nesting/core/change';
import type { Values } from '@nesting/core/name';
import type { Contents } from '@nesting/disk';
import { readShape } from '../../db/queries/projects/projects';
import type { Asker, Project } from '../batches/prepared';
import { Refused, type World } from '../world';
import { contentsOf } from './contents';
import { bytesOfReshape, type Judged, judgeReshape } from './reshape-project';

const UNTOUCHED = { renamed: {}, extra: [], keep: [], keepFolder: true };

/** How it becomes what it is with these values. */
export async function growTo(world: World, me: Asker, project: Project, values: Values): Promise<Judged> {
  const shape = await readShape(world.db, project.id);
  if (shape === null) throw new Refused('no-project');
  const { template, edition, adjusted } = shape;
  const asked = { ...{ version: project.version, template, edition, adjusted, values }, ...UNTOUCHED };
  return judgeReshape(world, me, { id: project.id, asked, withChanges: true });
}

/** Where a new entry's own folders come to lie, which the same batch makes. */
export const pathsMadeBy = (growth: Judged | null): readonly string[] =>
  (growth?.plan.changes ?? []).flatMap(({ after }) => (after?.root === HOME ? [after.path] : []));

/** What the entries make of the project by themselves. @throws Refused where that cannot be */
export async function grownBy(
  world: World,
  growth: Judged | null,
): Promise<{ readonly changes: readonly Change[]; readonly contents: Contents }> {
  if (growth === null) return { changes: [], contents: new Map() };
  const [fault] = growth.faults;
  if (fault !== undefined) throw new Refused('plan-refused', fault);
  const changes = [...growth.plan.changes, ...growth.plan.own];
  return { changes, contents: contentsOf(changes, await bytesOfReshape(world, growth)) };
}
