/** The task that plans how a project is carried over, by what lies on the disk now. */
import { createHash } from 'node:crypto';
import { rootIdOf } from '@nesting/core/change';
import { type FolderListing, join } from '@nesting/core/listing';
import { type Carried, type CarryGiven, type CarryWay, carryOver, namesPlanned } from '@nesting/core/planners';
import { type CheckInput, OWN_FOLDER, ProjectRules } from '@nesting/core/project';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { listFolder } from '../walk';
import { Looking } from './looking';
import type { OfWhere } from './looks';

export interface CarryTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly source: CheckInput;
  readonly target: CheckInput;
  readonly way: CarryWay;
  readonly picked: CarryGiven['picked'];
  readonly startersCome: boolean;
  readonly roots: CarryGiven['roots'];
}

export interface PlannedCarry extends Carried {
  /** Stands for all changes: another one, another plan. */
  readonly fingerprint: string;
}

/** What a batch knows the source by. */
export const SOURCE = rootIdOf('source');

/** The new project holds nothing yet but what its plan makes. */
export const planCarry = ({ where, mounts, source, target, ...task }: CarryTask): Promise<PlannedCarry> =>
  inTree(where, mounts, (tree) => {
    const [from, to] = [new ProjectRules(source), new ProjectRules(target)];
    const looking = new Looking(tree, from, []);
    const carried = carryOver({
      ...task,
      source: from,
      target: to,
      listings: foldersIn(tree),
      documents: looking.documents(),
      read: looking.read,
      from: SOURCE,
      there: namesPlanned(to, task.startersCome),
    });
    const fingerprint = createHash('sha256').update(JSON.stringify(carried.changes)).digest('hex');
    return { ...carried, fingerprint };
  });

/** File by file: a folder that is one document is copied as what is in it. */
function* foldersIn(tree: Tree): Generator<FolderListing> {
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(tree, path, () => undefined);
    if (listing !== null) yield listing;
    for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
  }
}
