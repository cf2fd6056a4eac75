/** The task that plans how findings are put right, by what lies on the disk now. */
import { createHash } from 'node:crypto';
import { type Change, rootIdOf } from '@nesting/core/change';
import { type FolderListing, join, nameOf, parentOf } from '@nesting/core/listing';
import type { Confidence } from '@nesting/core/name';
import {
  type Answer,
  type DocumentFacts,
  type DocumentText,
  type Neighbour,
  type ProjectView,
  type RepairSummary,
  repair,
  summaryOf,
  type ToRepair,
  type Unread,
} from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { distinctTargets, isReadAsText, refFormatOf } from '@nesting/core/references';
import { type KeptListing, listingOf } from '../check/kept-listing';
import { listItems } from '../list-items';
import { readPlain } from '../roots/plain-file';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { Unreachable, type Where } from '../roots/where';
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
  };
}

/** A project's folder as a plan looks at it: each folder is listed once, and all of them only where a file is looked for and nothing was kept. */
class Looking implements ProjectView {
  private readonly listings = new Map<string, FolderListing | null>();
  private paths: ReadonlyMap<string, readonly string[]> | null = null;

  constructor(
    private readonly tree: Tree,
    private readonly rules: ProjectRules,
    private readonly kept: readonly KeptListing[],
  ) {}

  readonly list = (folder: string): FolderListing | null => {
    const known = this.listings.get(folder);
    if (known !== undefined) return known;
    const listing = listItems(this.tree, this.rules, folder, () => undefined);
    this.listings.set(folder, listing);
    return listing;
  };

  readonly find = (name: string): readonly string[] => {
    this.paths ??= this.byName();
    // What was kept may be gone by now.
    return (this.paths.get(name) ?? []).filter((path) =>
      this.list(parentOf(path))?.files.some((file) => file.name === name),
    );
  };

  readonly targets = (path: string): readonly string[] => {
    const format = refFormatOf(nameOf(path));
    const found = format === null ? 'unreadable' : this.read(path);
    return format === null || typeof found === 'string' ? [] : distinctTargets(format.find(found.text));
  };

  readonly read = (path: string): DocumentText | Unread => {
    const file = this.list(parentOf(path))?.files.find((f) => f.name === nameOf(path));
    if (file === undefined) return 'unreadable';
    if (!isReadAsText(file.size)) return 'too-large';
    try {
      const bytes = readPlain(this.tree.rootOf(path), path, file.size);
      const expects = { size: file.size, modified: file.modified };
      return { text: new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes), expects };
    } catch (error) {
      return error instanceof TypeError ? 'not-utf-8' : 'unreadable';
    }
  };

  /** Every document of an open format, read anew. */
  documents(): readonly DocumentFacts[] {
    return [...this.everyFile()].flatMap((path): DocumentFacts[] => {
      const targets = this.targets(path);
      return targets.length === 0 ? [] : [{ path, targets }];
    });
  }

  private byName(): ReadonlyMap<string, readonly string[]> {
    const out = new Map<string, string[]>();
    for (const path of this.kept.length === 0 ? this.everyFile() : this.everyKept()) {
      const known = out.get(nameOf(path));
      if (known === undefined) out.set(nameOf(path), [path]);
      else known.push(path);
    }
    return out;
  }

  private *everyKept(): Generator<string> {
    for (const kept of this.kept) for (const { name } of listingOf(kept)?.files ?? []) yield join(kept.path, name);
  }

  private *everyFile(): Generator<string> {
    const queue = [''];
    for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
      const listing = this.list(path);
      for (const { name } of listing?.files ?? []) yield join(path, name);
      for (const name of listing?.folders ?? []) queue.push(join(path, name));
    }
  }
}
