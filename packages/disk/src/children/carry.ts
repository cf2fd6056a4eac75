/** The task that plans how a project is carried over, by what lies on the disk now. */
import { createHash } from 'node:crypto';
import { type Change, type RootId, rootIdOf } from '@nesting/core/change';
import {
  type CarryGiven,
  type CarrySummary,
  type CarryWay,
  carryOver,
  carrySummary,
  namesPlanned,
  type Revision,
} from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { inTree, type Mount } from '../roots/tree';
import type { Where } from '../roots/where';
import { foldersIn } from './folders-in';
import { Looking } from './looking';
import type { OfWhere } from './looks';
import { NamesThere } from './names-there';

export interface CarryTask extends OfWhere {
  /** Folders of the source on other volumes, each with what the batch knows it by. */
  readonly mounts: readonly (Mount & { readonly root: string })[];
  /** What the batch knows the source by. */
  readonly root: string;
  readonly source: CheckInput;
  readonly target: CheckInput;
  /** The new project's folder; `null` where it holds nothing yet but what its plan makes, or is not made yet. */
  readonly into: Where | null;
  /** Paths that whoever carries it out makes there beforehand. */
  readonly made: readonly string[];
  readonly way: CarryWay;
  readonly picked: CarryGiven['picked'];
  readonly revision: Revision | null;
  readonly startersCome: boolean;
  readonly roots: CarryGiven['roots'];
  /** Lines that are handed back; the counts say the rest. */
  readonly mostLines: number;
  readonly withChanges: boolean;
}

export interface PlannedCarry extends CarrySummary {
  /** Stands for all changes: another one, another plan. */
  readonly fingerprint: string;
  /** Empty where they were not wanted. */
  readonly changes: readonly Change[];
}

export const planCarry = (task: CarryTask): Promise<PlannedCarry> => {
  const target = new ProjectRules(task.target);
  return task.into === null
    ? planInto(task, target, namesPlanned(target, task.startersCome))
    : inTree(task.into, [], (tree) => planInto(task, target, new NamesThere(tree, task.made).in));
};

function planInto(task: CarryTask, target: ProjectRules, there: CarryGiven['there']): Promise<PlannedCarry> {
  const { way, picked, revision, startersCome, roots } = task;
  return inTree(task.where, task.mounts, (tree) => {
    const source = new ProjectRules(task.source);
    const looking = new Looking(tree, source, []);
    const carried = carryOver({
      ...{ source, target, way, picked, revision, startersCome, roots, there },
      listings: foldersIn(tree),
      documents: [...looking.documents(), ...looking.mentioning(roots.source)],
      read: looking.read,
      rootOf: rootsOf(task),
    });
    const { changes } = carried;
    return {
      ...carrySummary(carried, task.mostLines),
      fingerprint: createHash('sha256').update(JSON.stringify(changes)).digest('hex'),
      changes: task.withChanges ? changes : [],
    };
  });
}

function rootsOf({ root, mounts }: CarryTask): (path: string) => RootId {
  const own = rootIdOf(root);
  const others = mounts.map((mount) => ({ path: mount.path, id: rootIdOf(mount.root) }));
  return (path) => others.find((m) => path.startsWith(`${m.path}/`))?.id ?? own;
}
