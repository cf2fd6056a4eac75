/** The tasks of an intake: what a heap holds, and how it is brought into a project. */
import { createHash } from 'node:crypto';
import { type Cancellation, type Change, codeOf, type Expected, type RootId, rootIdOf } from '@nesting/core/change';
import { type FileEntry, join, type MediaFacts } from '@nesting/core/listing';
import {
  countReferrers,
  type DocumentFacts,
  type Doubled,
  doubled,
  type Intake,
  type IntakeSummary,
  intake,
  intakeSummary,
  type LooseFile,
  type Pairing,
  type Placed,
  type Same,
} from '@nesting/core/planners';
import { type CheckInput, OWN_FOLDER } from '@nesting/core/project';
import { type MediaReader, mediaReaderBeside } from '../media/reader';
import { VOLUME_FILE } from '../roots/identity';
import { inodeAt } from '../roots/plain-file';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { failed, type Where } from '../roots/where';
import { listFolder, type Unseen } from '../walk';
import type { Context } from './context';
import type { OfWhere } from './looks';
import type { LooseFound } from './loose-found';
import { NamesThere } from './names-there';
import { sameContents } from './same-contents';

export interface ReadLooseTask extends OfWhere {
  /** What was found the last time. */
  readonly known: readonly LooseFound[];
  /** The project it is for, and its folders on other volumes. */
  readonly into: Where;
  readonly mounts: readonly Mount[];
}

export interface LooseRead {
  readonly files: readonly LooseFound[];
  /** By path in the heap. */
  readonly same: Readonly<Record<string, Same>>;
  readonly unseen: readonly Unseen[];
  /** More files than are looked at. */
  readonly isCut: boolean;
}

export interface LooseTold {
  readonly files: number;
  readonly bytes: number;
}

/** Files of a heap that are looked at. */
const MOST_FILES = 200_000;
const TOLD_EVERY = 200;

export const readLoose = async (task: ReadLooseTask, { cancel, tell }: Context<LooseTold>): Promise<LooseRead> => {
  const media = mediaReaderBeside(import.meta.url);
  try {
    return await inTree(task.where, [], async (heap) => {
      const reading = new Reading(heap, task.known, media, cancel, tell);
      const { files, unseen, isCut } = await reading.files();
      const same = await inTree(task.into, task.mounts, (project) =>
        sameContents({ heap, project, files, cancel, unseen }),
      );
      return { files: same.files, same: same.same, unseen, isCut };
    });
  } finally {
    media?.close();
  }
};

class Reading {
  private readonly known: ReadonlyMap<string, LooseFound>;
  private readonly unseen: Unseen[] = [];
  private told = 0;

  constructor(
    private readonly heap: Tree,
    known: readonly LooseFound[],
    private readonly media: MediaReader | null,
    private readonly cancel: Cancellation,
    private readonly tell: Context<LooseTold>['tell'],
  ) {
    this.known = new Map(known.map((file) => [file.path, file]));
  }

  async files(): Promise<{ files: LooseFound[]; unseen: Unseen[]; isCut: boolean }> {
    const listed = this.listed();
    const files: LooseFound[] = [];
    let bytes = 0;
    // Two at a time: one is read while the other is opened.
    for (let at = 0; at < listed.length && at < MOST_FILES; at += AT_ONCE) {
      if (this.cancel.aborted) throw failed('CANCELLED', '');
      const some = await Promise.all(listed.slice(at, at + AT_ONCE).map(([path, file]) => this.file(path, file)));
      for (const file of some) if (file !== null) files.push(file);
      bytes += some.reduce((sum, file) => sum + (file?.size ?? 0), 0);
      this.say(files.length, bytes);
    }
    return { files, unseen: this.unseen, isCut: listed.length > MOST_FILES };
  }

  private listed(): (readonly [path: string, file: FileEntry])[] {
    const out: (readonly [string, FileEntry])[] = [];
    const queue = [''];
    for (let path = queue.pop(); path !== undefined && out.length <= MOST_FILES; path = queue.pop()) {
      const listing = listFolder(this.heap, path, (unseen) => this.unseen.push(unseen));
      // By its own file a volume is known.
      for (const file of listing?.files ?? [])
        if (join(path, file.name) !== VOLUME_FILE) out.push([join(path, file.name), file]);
      for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
    }
    return out.sort((a, b) => (a[0] < b[0] ? -1 : 1));
  }

  private async file(path: string, { size, modified }: FileEntry): Promise<LooseFound | null> {
    try {
      const root = this.heap.rootOf(path);
      const inode = inodeAt(root, path);
      const known = this.known.get(path);
      if (known?.size === size && known.modified === modified && known.inode === inode) return known;
      const facts: MediaFacts = this.media === null ? {} : await this.media.read(root, path);
      return { path, size, modified, inode, facts };
    } catch (error) {
      this.unseen.push({ path, code: codeOf(error) });
      return null;
    }
  }

  private say(files: number, bytes: number): void {
    const now = Date.now();
    if (now - this.told < TOLD_EVERY) return;
    this.told = now;
    void this.tell({ files, bytes });
  }
}

const AT_ONCE = 16;

export interface IntakeTask {
  /** The project, as it is now. */
  readonly where: Where;
  readonly input: CheckInput;
  readonly files: readonly LooseFile[];
  readonly same: Readonly<Record<string, Same>>;
  readonly sourceName: string;
  readonly placed: Readonly<Record<string, Placed>>;
  readonly pairing: Pairing;
  readonly isMove: boolean;
  /** Where each copy is made once more; `null` for nowhere. */
  readonly double: DoubleTask | null;
  /** What documents of the project refer to, and its root's whole paths, as each system has them. */
  readonly documents: readonly DocumentFacts[];
  readonly roots: readonly string[];
  /** What the batch knows the heap by. */
  readonly root: string;
  readonly mostLines: number;
  readonly withChanges: boolean;
}

export interface DoubleTask {
  readonly where: Where;
  /** What the batch knows it by. */
  readonly root: string;
  /** What stands for the project's folder there. */
  readonly folder: string;
}

export interface PlannedIntake extends IntakeSummary {
  /** Places on the double that something lies in already, the first of them. */
  readonly doubleTaken: readonly string[];
  /** Stands for all changes: another one, another plan. */
  readonly fingerprint: string;
  /** Empty where they were not wanted. */
  readonly changes: Intake['changes'];
}

export const planIntake = (task: IntakeTask): Promise<PlannedIntake> =>
  inTree(task.where, [], async (tree) => {
    const there = new NamesThere(tree, []);
    const root: RootId = rootIdOf(task.root);
    const { files, same, input, sourceName, placed, pairing, isMove } = task;
    const sameAs = (path: string): Same | null => same[path] ?? null;
    const fileAt = (path: string): Expected | null => expectedAt(there, path);
    const counts = countReferrers(task.documents, task.roots);
    const referrers = (path: string) => counts.get(path) ?? 0;
    const alone = intake({
      ...{ input, files, sourceName, placed, pairing, isMove, root, sameAs, fileAt, referrers },
      there: there.in,
    });
    const twice = await doubledIn(task.double, alone.changes);
    const planned = { ...alone, changes: [...alone.changes, ...twice.changes] };
    return {
      ...intakeSummary(planned, task.mostLines),
      doubleTaken: twice.taken.slice(0, MOST_TAKEN),
      fingerprint: createHash('sha256')
        .update(JSON.stringify([planned.changes, planned.entries]))
        .digest('hex'),
      changes: task.withChanges ? planned.changes : [],
    };
  });

const MOST_TAKEN = 20;

async function doubledIn(task: DoubleTask | null, changes: readonly Change[]): Promise<Doubled> {
  if (task === null) return { changes: [], taken: [] };
  return inTree(task.where, [], (tree) => {
    const there = new NamesThere(tree, []);
    return doubled(changes, {
      ...{ root: rootIdOf(task.root), folder: task.folder, there: there.in },
      fileAt: (path) => expectedAt(there, path),
    });
  });
}

function expectedAt(there: NamesThere, path: string): Expected | null {
  const file = there.file(path);
  return file === null ? null : { size: file.size, modified: file.modified };
}
