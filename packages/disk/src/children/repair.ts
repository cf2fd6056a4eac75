/** The task that plans how findings are put right, by what lies on the disk now. */
import { createHash } from 'node:crypto';
import { type Change, rootIdOf } from '@nesting/core/change';
import type { Confidence } from '@nesting/core/name';
import {
  type Answer,
  type ByHand,
  type DocumentFacts,
  mentionsOf,
  movedBy,
  type Neighbour,
  type RepairSummary,
  repair,
  summaryOf,
  type ToRepair,
} from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { NamesSought } from '@nesting/core/references';
import type { KeptListing } from '../check/kept-listing';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { Unreachable, type Where } from '../roots/where';
import { Looking, type Searchable } from './looking';
import type { OfWhere } from './looks';

export interface RepairTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly rules: CheckInput;
  readonly findings: readonly ToRepair[];
  readonly answers: Readonly<Record<string, Answer>>;
  readonly from: Confidence | null;
  /** Whole paths of the project's root, as each system has it. */
  readonly roots: readonly string[];
  /** Documents with what they refer to, as the last check read them; `null` where every document is to be read. */
  readonly documents: readonly DocumentFacts[] | null;
  /** As the last check kept them, where files are looked for by name; empty where every folder is to be listed. */
  readonly listings: readonly KeptListing[];
  /** Other projects that names may belong to. */
  readonly neighbours: readonly NeighbourTask[];
  /** Lines that are handed back; the counts say the rest. */
  readonly mostLines: number;
  readonly withChanges: boolean;
  /** Bytes of other programs' documents that are searched for what moves; `null` where they are not searched. */
  readonly mostSearched: number | null;
}

export interface NeighbourTask {
  /** What the batch knows its folder by. */
  readonly root: string;
  readonly where: Where;
  readonly rules: CheckInput;
}

export interface PlannedRepair extends RepairSummary {
  /** Stands for all changes: another one, another plan. */
  readonly fingerprint: string;
  /** Empty where they were not wanted. */
  readonly changes: readonly Change[];
  /** `null` where they were not to be searched. */
  readonly mentioned: Mentioned | null;
}

/** What other programs' documents name of that which moves. */
export interface Mentioned extends Searchable {
  /** There was no more of them than was to be searched. */
  readonly isSearched: boolean;
  readonly references: readonly ByHand[];
}

/** References that are told. */
const MOST_TOLD = 500;

function mentionedIn(
  looking: Looking,
  changes: readonly Change[],
  { roots, mostSearched }: Pick<RepairTask, 'roots' | 'mostSearched'>,
): Mentioned | null {
  if (mostSearched === null) return null;
  const moved = movedBy(changes);
  if (moved.length === 0) return { files: 0, bytes: 0, isSearched: true, references: [] };
  const searchable = looking.searchable();
  const isSearched = searchable.bytes <= mostSearched;
  const documents = isSearched ? looking.naming(roots, new NamesSought(moved)) : [];
  return { ...searchable, isSearched, references: mentionsOf(moved, roots, documents).slice(0, MOST_TOLD) };
}

export const planRepair = (task: RepairTask): Promise<PlannedRepair> =>
  inTree(task.where, task.mounts, (tree) => beside(task.neighbours, (neighbours) => planIn(tree, task, neighbours)));

/** With the folders of other projects open; those that cannot be reached take nothing. */
async function beside<T>(
  [first, ...others]: readonly NeighbourTask[],
  work: (open: readonly Neighbour[]) => T,
): Promise<T> {
  if (first === undefined) return work([]);
  const { root, where, rules: input } = first;
  try {
    return await inTree(where, [], (tree) => {
      const rules = new ProjectRules(input);
      const { list } = new Looking(tree, rules, []);
      const neighbour = { root: rootIdOf(root), folder: where.folder, rules, list };
      return beside(others, (open) => work([neighbour, ...open]));
    });
  } catch (error) {
    if (error instanceof Unreachable) return beside(others, work);
    throw error;
  }
}

function planIn(tree: Tree, task: RepairTask, neighbours: readonly Neighbour[]): PlannedRepair {
  const rules = new ProjectRules(task.rules);
  const looking = new Looking(tree, rules, task.listings);
  const planned = repair({
    rules,
    findings: task.findings,
    answers: task.answers,
    from: task.from,
    view: looking,
    neighbours,
    documents: task.documents ?? looking.documents(),
    read: looking.read,
    roots: task.roots,
  });
  const { changes } = planned;
  return {
    ...summaryOf(planned, task.mostLines),
    fingerprint: createHash('sha256').update(JSON.stringify(changes)).digest('hex'),
    changes: task.withChanges ? changes : [],
    mentioned: mentionedIn(looking, changes, task),
  };
}
