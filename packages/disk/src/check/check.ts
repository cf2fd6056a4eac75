/**
 * Checks a project on this machine's disk. Small ones are walked where they are asked for; larger ones by worker
 * threads that share
 * the folders out among them: each walks, reads and judges its share with rules of its own, compiled from the same data. Then files are looked
 * into, where asked.
 */
import { lstatSync } from 'node:fs';
import type { Worker } from 'node:worker_threads';
import type { Cancellation } from '@nesting/core/change';
import {
  Checker,
  type CheckOutcome,
  contentWants,
  type FolderRow,
  joinPartialResults,
  judgeWhole,
  keepRows,
  type PartialResult,
  rowsOfSameSize,
  withContents,
} from '@nesting/core/check';
import { join, parentOf } from '@nesting/core/listing';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { type FileFacts, factsOf, Looker } from '../file-facts';
import { listFolder, type Mount, placeOf, type Unseen } from '../walk';
import { type LookingAsked, type Part, shareOut, startWorker } from './worker-pool';

export interface CheckProgress {
  readonly files: number;
  readonly folders: number;
  readonly stage: 'walking' | 'reading';
}

/** How far a check was when it was left: it goes on from there. */
export interface Gathered {
  readonly part: PartialResult;
  readonly queue: readonly string[];
  readonly unseen: readonly Unseen[];
}

/** What an earlier check saw, and could not see. */
export type Seen = Pick<Gathered, 'part' | 'unseen'>;

export interface DiskCheck {
  readonly root: string;
  readonly input: CheckInput;
  /** Folders of it that lie on other volumes. */
  readonly mounts?: readonly Mount[];
  /** The built worker; without one everything is walked here. */
  readonly worker?: URL | null;
  readonly workers?: number;
  /** Whether this thread may walk too. A server's must not: it has others to answer. */
  readonly here?: boolean;
  readonly cancel?: Cancellation;
  readonly progress?: (progress: CheckProgress) => void;
  /** Looks into files as well; what is known of them is not read again. */
  readonly contents?: { readonly roots: readonly string[]; readonly known: readonly FileFacts[] };
  /** What an earlier check of the same rules saw: only folders whose time has changed are listed again. */
  readonly since?: Seen;
  /** A mark of the rules checked by, so that what is compiled of them is used again. */
  readonly fingerprint?: string;
  /** Goes on where one was left. */
  readonly from?: Gathered;
  /** Told from time to time how far it is. */
  readonly gathered?: { readonly every: number; readonly keep: (gathered: Gathered) => Promise<void> };
}

export interface DiskOutcome extends CheckOutcome {
  readonly unseen: readonly Unseen[];
  readonly cancelled: boolean;
  /** For the next quick check. */
  readonly part: PartialResult;
  readonly looked: readonly FileFacts[];
  /** Of a quick check: folders that were listed again. `null` where all were. */
  readonly relisted: number | null;
}

/** Folders walked here before workers are worth starting. */
const SMALL = 200;
/** Folders walked here between two looks at what the workers say. */
const SLICE = 16;

export async function checkOnDisk(check: DiskCheck): Promise<DiskOutcome> {
  // Before anything else: workers compile the rules while this thread does.
  const script = check.worker ?? null;
  const workers = script === null || check.since !== undefined ? [] : startWorkers(check, script, false);
  try {
    return await checkWith(check, workers);
  } finally {
    // Those that have done their part end by themselves; nobody waits for the others.
    for (const worker of workers) void worker.terminate();
  }
}

const startWorkers = (check: DiskCheck, script: URL, shallow: boolean): Worker[] =>
  Array.from({ length: check.workers ?? (check.here ? 1 : 2) }, () =>
    startWorker(script, { root: check.root, mounts: check.mounts ?? [], input: check.input, shallow }),
  );

async function checkWith(check: DiskCheck, workers: readonly Worker[]): Promise<DiskOutcome> {
  const rules = rulesOf(check);
  const seen = check.since === undefined ? null : await unchangedSince(check.root, check.mounts ?? [], check.since);
  const start = check.from ?? (seen === null ? null : { part: seen.kept, queue: seen.changed, unseen: seen.unseen });
  const walked = await walkAll(
    check,
    rules,
    workers,
    start,
    seen === null ? null : new Set([...seen.kept.rows.map((r) => r.path), ...seen.changed]),
  );
  const again = (path: string) => listFolder(check.root, path, () => undefined, check.mounts);
  const outcome = judgeWhole(
    rules,
    walked.part,
    again,
    walked.unseen.filter((u) => !NO_FOLDER.has(u.code)).map((u) => u.path),
  );
  const read =
    check.contents === undefined || check.cancel?.aborted || walked.part.rows.length === 0
      ? null
      : await lookInto(check, rules, walked.part, seen === null ? null : new Set(seen.kept.rows.map((r) => r.path)));
  // Cut off while it looked into files: what was walked need not be walked again.
  if (read !== null && check.cancel?.aborted)
    await check.gathered?.keep({ part: walked.part, queue: [], unseen: walked.unseen });
  const whole =
    read === null
      ? outcome
      : withContents(rules, outcome, {
          facts: factsOf(read.looked),
          roots: check.contents?.roots ?? [],
          namesIn: namesOnDisk(check.root, check.mounts ?? []),
        });
  const unseen = [
    ...new Map([...walked.unseen, ...(read?.unseen ?? [])].map((u) => [`${u.path} ${u.code}`, u])).values(),
  ].sort((a, b) => (a.path < b.path ? -1 : 1));
  return {
    ...whole,
    unseen,
    cancelled: check.cancel?.aborted ?? false,
    part: walked.part,
    looked: read?.looked ?? [],
    relisted: seen === null ? null : walked.part.rows.length - seen.kept.rows.length,
  };
}

/** Said of files, and of what has gone meanwhile: no folder that is there. */
const NO_FOLDER: ReadonlySet<string> = new Set(['ENOENT', 'NOT-UTF-8', 'TOO-LARGE']);

/** Compiled rules of the last few projects: one whose page is open is checked every few seconds by the same rules. */
const compiledRules = new Map<string, ProjectRules>();
const MOST_COMPILED = 4;

function rulesOf({ input, fingerprint }: DiskCheck): ProjectRules {
  if (fingerprint === undefined) return new ProjectRules(input);
  const known = compiledRules.get(fingerprint) ?? new ProjectRules(input);
  compiledRules.delete(fingerprint);
  compiledRules.set(fingerprint, known);
  if (compiledRules.size > MOST_COMPILED) compiledRules.delete(compiledRules.keys().next().value as string);
  return known.at(input.now);
}

async function walkAll(
  check: DiskCheck,
  rules: ProjectRules,
  early: readonly Worker[],
  start: Gathered | null,
  known: ReadonlySet<string> | null,
): Promise<Pick<Gathered, 'part' | 'unseen'>> {
  const checker = new Checker(rules);
  const unseen: Unseen[] = [...(start?.unseen ?? [])];
  const parts: PartialResult[] = start === null ? [] : [start.part];
  const queue: string[] = start === null ? [''] : [...start.queue];
  const wanted = (path: string) => known === null || !known.has(path);
  let [files, folders] = [0, 0];
  const say = () => check.progress?.({ files, folders, stage: 'walking' });
  const walkHere = (most: number) => {
    for (let n = 0; n < most && queue.length > 0 && !check.cancel?.aborted; n++) {
      const listing = listFolder(check.root, queue.pop() as string, (u) => unseen.push(u), check.mounts);
      if (listing === null) continue;
      checker.folder(listing);
      folders++;
      files += listing.files.length;
      for (const name of listing.folders) if (wanted(join(listing.path, name))) queue.push(join(listing.path, name));
    }
  };
  const script = check.worker ?? null;
  if (script === null) walkHere(Number.POSITIVE_INFINITY);
  else if (check.here) walkHere(SMALL);
  // A few folders are listed before a worker has begun; others are let in between.
  else if (known !== null && queue.length <= SMALL) {
    for (let n = 0; n < SMALL && queue.length > 0; n += SLICE) {
      walkHere(SLICE);
      await new Promise((resolve) => setImmediate(resolve));
    }
  }
  if (script !== null && queue.length > 0) {
    const late = early.length > 0 ? [] : startWorkers(check, script, known !== null);
    const workers = [...early, ...late];
    const take = (taken: readonly Part[]) => {
      for (const { part, unseen: missed } of taken) {
        if (part !== null) parts.push(part);
        unseen.push(...missed);
      }
    };
    try {
      const last = await shareOut({
        workers: workers,
        queue,
        wanted,
        cancel: check.cancel,
        here: check.here ? () => walkHere(SLICE) : null,
        progress: (f, d) => {
          files += f;
          folders += d;
          say();
        },
        gatherEvery: check.gathered?.every ?? Number.POSITIVE_INFINITY,
        gathered: async (taken, rest) => {
          take(taken);
          await check.gathered?.keep({ part: joinPartialResults([...parts, checker.part()]), queue: rest, unseen });
        },
      });
      take(last);
    } finally {
      for (const worker of late) void worker.terminate();
    }
  }
  say();
  // What was cut off is told, so that it can be gone on with.
  if (check.cancel?.aborted)
    await check.gathered?.keep({ part: joinPartialResults([...parts, checker.part()]), queue, unseen });
  return { part: joinPartialResults([...parts, checker.part()]), unseen };
}

/**
 * `kept` are folders that a quick check did not list again: of their files only those are looked into that may be the
 * same as a newer one.
 */
async function lookInto(
  check: DiskCheck,
  rules: ProjectRules,
  part: PartialResult,
  kept: ReadonlySet<string> | null,
): Promise<Pick<Part, 'looked' | 'unseen'>> {
  const { roots = [], known = [] } = check.contents ?? {};
  const wants = contentWants(part);
  const queue = foldersToLookInto(part, kept);
  const again = new Set(queue);
  const { looked, unseen } = await lookThrough(check, rules, queue, { wants, roots, known });
  if (kept === null) return { looked, unseen };
  const stays = known.filter(({ path }) => kept.has(parentOf(path)) && !again.has(parentOf(path)));
  return { looked: [...stays, ...looked].sort((a, b) => (a.path < b.path ? -1 : 1)), unseen };
}

function foldersToLookInto(part: PartialResult, kept: ReadonlySet<string> | null): string[] {
  const rows = part.rows.map((row) => row.files > 0 && (row.state === 'planned' || row.state === 'free'));
  if (kept === null) return part.rows.flatMap((row, i) => (rows[i] ? [row.path] : []));
  const chosen = new Set<number>();
  const isNew = (i: number) => !kept.has((part.rows[i] as FolderRow).path);
  for (let i = 0; i < part.rows.length; i++) if (isNew(i)) chosen.add(i);
  for (const alike of rowsOfSameSize(part)) if (alike.some(isNew)) for (const i of alike) chosen.add(i);
  return [...chosen].filter((i) => rows[i]).map((i) => (part.rows[i] as FolderRow).path);
}

async function lookThrough(
  check: DiskCheck,
  rules: ProjectRules,
  queue: string[],
  looking: LookingAsked,
): Promise<Pick<Part, 'looked' | 'unseen'>> {
  const script = check.worker ?? null;
  const unseen: Unseen[] = [];
  if (script === null || queue.length < SMALL / 10) {
    const looker = new Looker(
      { root: check.root, mounts: check.mounts ?? [] },
      rules,
      { ...looking, known: new Map(looking.known.map((k) => [k.path, k])) },
      (u) => unseen.push(u),
    );
    for (const path of queue) {
      if (check.cancel?.aborted) break;
      const listing = listFolder(check.root, path, () => undefined, check.mounts);
      if (listing !== null) looker.folder(listing);
    }
    return { looked: looker.looked, unseen };
  }
  let [files, folders] = [0, 0];
  const workers = Array.from({ length: check.workers ?? 2 }, () =>
    startWorker(script, { root: check.root, mounts: check.mounts ?? [], input: check.input, shallow: true, looking }),
  );
  try {
    const parts = await shareOut({
      workers: workers,
      queue,
      wanted: () => false,
      here: null,
      cancel: check.cancel,
      gatherEvery: Number.POSITIVE_INFINITY,
      gathered: async () => undefined,
      progress: (f, d) => {
        files += f;
        folders += d;
        check.progress?.({ files, folders, stage: 'reading' });
      },
    });
    return {
      looked: parts.flatMap((p) => p.looked).sort((a, b) => (a.path < b.path ? -1 : 1)),
      unseen: parts.flatMap((p) => p.unseen),
    };
  } finally {
    for (const worker of workers) void worker.terminate();
  }
}

/** Folders whose time is what it was, and those to be listed again; others are let in between. */
async function unchangedSince(
  root: string,
  mounts: readonly Mount[],
  { part, unseen }: Seen,
): Promise<{ readonly kept: PartialResult; readonly changed: string[]; readonly unseen: readonly Unseen[] }> {
  const changed: string[] = [];
  const gone = new Set<string>();
  for (let i = 0; i < part.rows.length; i++) {
    const row = part.rows[i] as FolderRow;
    const now = lstatSync(placeOf(root, row.path, mounts), { throwIfNoEntry: false });
    if (now?.isDirectory() && now.mtimeMs === row.changed && row.settling !== true) continue;
    gone.add(row.path);
    if (now?.isDirectory()) changed.push(row.path);
    if (i % 2000 === 1999) await new Promise((resolve) => setImmediate(resolve));
  }
  const kept = keepRows(part, (row) => !gone.has(row.path));
  // A folder that could not be read may be readable by now; of a file in a folder that is kept the same is said again.
  const folders = new Set(kept.rows.map((row) => row.path));
  const unread = new Set(
    unseen
      .filter(
        (u) =>
          !NO_FOLDER.has(u.code) && lstatSync(placeOf(root, u.path, mounts), { throwIfNoEntry: false })?.isDirectory(),
      )
      .map((u) => u.path),
  );
  const still = unseen.filter(
    (u) => !unread.has(u.path) && NO_FOLDER.has(u.code) && u.code !== 'ENOENT' && folders.has(parentOf(u.path)),
  );
  // The root is always among them where nothing is known of it.
  return { kept, changed: part.rows.length === 0 ? [''] : [...changed, ...unread], unseen: still };
}

/** Files settle within this time: a folder in which something was written a moment ago is looked at again then. */
const SETTLED = 150_000;

/**
 * Whether a quick check would list anything again. A folder in which something was still settling is looked at once it
 * has.
 */
export async function hasChangedSince(
  root: string,
  mounts: readonly Mount[],
  folders: readonly { readonly path: string; readonly changed: number | undefined; readonly settling: boolean }[],
  now: number,
): Promise<boolean> {
  for (let i = 0; i < folders.length; i++) {
    const { path, changed, settling } = folders[i] as (typeof folders)[number];
    const stats = lstatSync(placeOf(root, path, mounts), { throwIfNoEntry: false });
    if (stats === undefined || stats.mtimeMs !== changed || (settling && now - stats.mtimeMs > SETTLED)) return true;
    if (i % 2000 === 1999) await new Promise((resolve) => setImmediate(resolve));
  }
  return false;
}

/** Names in a folder, each folder listed once. */
function namesOnDisk(root: string, mounts: readonly Mount[]): (folder: string) => ReadonlySet<string> | null {
  const known = new Map<string, ReadonlySet<string> | null>();
  return (folder) => {
    const before = known.get(folder);
    if (before !== undefined) return before;
    const listing = listFolder(root, folder, () => undefined, mounts);
    const names =
      listing === null ? null : new Set([...listing.files.map((f) => f.name), ...listing.folders, ...listing.others]);
    known.set(folder, names);
    return names;
  };
}
