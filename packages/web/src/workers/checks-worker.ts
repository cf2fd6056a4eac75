/**
 * Checks of what only this computer sees, away from the page: a chosen folder, files, a listing, a zip. Nothing leaves
 * the browser.
 */
import type { RepairPlan, StoredFinding } from '@nesting/contract';
import {
  agreedFor,
  Checker,
  type CheckOutcome,
  type CheckSummary,
  type ContentFact,
  checkListing,
  contentTasks,
  contentWants,
  judgeWhole,
  withContents,
} from '@nesting/core/check';
import {
  alignListing,
  type FolderListing,
  foldersFrom,
  foldersInText,
  join,
  type PathLine,
} from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import type { Answer, LeftWish } from '@nesting/core/planners';
import { type CheckInput, OWN_FOLDER, ProjectRules, rootPlanOf, withWholeDocuments } from '@nesting/core/project';
import { distinctTargets, isReadAsText, refFormatOf, stretchesOf } from '@nesting/core/references';
import { alignedWords } from '@nesting/core/words';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { expose } from 'comlink';
import {
  finishHere,
  freeHere,
  type KeptHere,
  keptHere,
  saidOf,
  type Told,
  takeBackHere,
  type Unended,
  undoHere,
  unendedIn,
  whyItFailed,
} from '../browser-disk/batches';
import { type LookedThrough, lookThrough } from '../browser-disk/look-through';
import { CLEAR, HereClearing, type LeftHere } from './here-clearing';
import { type CarriedOut, HereRepair } from './here-repair';
import { MediaReader } from './media-reader';

export interface HereOutcome {
  readonly outcome: {
    readonly summary: CheckSummary;
    readonly findings: readonly StoredFinding[];
  };
  /** Of a listing or a zip: how the project's root in it was told; `null` where it is its own. */
  readonly aligned?: string | null;
  /** Files that could not be read, or whose folders could not. */
  readonly unseen: readonly string[];
}

type Progress = (files: number, folders: number, stage: 'walking' | 'reading') => void;

let stopped = false;

/** Checked where the project's root is in it, and how that was told. */
function checkedListing(listings: readonly FolderListing[], input: CheckInput): HereOutcome {
  const rules = new ProjectRules(input);
  const aligned = alignListing(listings, rootPlanOf(rules));
  return { ...told(checkListing(rules, aligned.folders)), aligned: alignedWords(aligned) };
}

async function look(
  source: LookedThrough,
  input: CheckInput,
  roots: readonly string[],
  progress: Progress,
): Promise<Looked> {
  const rules = new ProjectRules(input);
  const checker = new Checker(rules);
  const inOrder = withWholeDocuments(rules.isDocumentFolder, [...source.listings.values()]);
  for (const listing of inOrder) checker.folder(listing);
  const part = checker.part();
  const listed = new Map(inOrder.map((listing) => [listing.path, listing]));
  const outcome = judgeWhole(rules, part, (path) => listed.get(path) ?? null);
  const wants = contentWants(part);
  const media = new MediaReader();
  const reading = new Reading(source, rules, roots, media);
  for (const [folders, listing] of inOrder.entries()) {
    if (stopped) break;
    await reading.folder(listing.path, contentTasks(rules, listing, wants), (files) =>
      progress(files, folders, 'reading'),
    );
  }
  media.close();
  const found = withContents(rules, outcome, {
    facts: reading.facts,
    roots,
    namesIn: (folder) => {
      const listing = source.listings.get(folder);
      return listing === undefined ? null : new Set([...listing.files.map((f) => f.name), ...listing.folders]);
    },
  });
  return { outcome: found, listings: inOrder, facts: reading.facts };
}

interface Looked {
  readonly outcome: CheckOutcome;
  readonly listings: readonly FolderListing[];
  readonly facts: readonly ContentFact[];
}

/** The folder that was checked last, for what puts it right. */
let here: HereRepair | null = null;

/** The folder that was looked through last for what programs left there. */
let clearing: HereClearing | null = null;

/** What is in files: their hashes, and what they refer to. */
class Reading {
  readonly facts: ContentFact[] = [];
  private readonly needles: ReturnType<typeof needlesOf>[];
  private files = 0;

  constructor(
    private readonly source: LookedThrough,
    private readonly rules: ProjectRules,
    roots: readonly string[],
    private readonly media: MediaReader,
  ) {
    this.needles = roots.filter((r) => r.length > 3).map(needlesOf);
  }

  async folder(at: string, tasks: Tasks, said: (files: number) => void): Promise<void> {
    for (const file of tasks.hash) await this.hash(join(at, file.name), file);
    for (const run of tasks.runs) await this.run(at, run);
    for (const file of tasks.search) {
      if (++this.files % 200 === 0) said(this.files);
      await this.search(join(at, file.name), file);
    }
  }

  private async hash(path: string, { size, modified }: Tasks['hash'][number]): Promise<void> {
    const file = await this.source.fileOf(path);
    if (file !== null) this.facts.push({ kind: 'hash', path, frames: 1, size, modified, sha256: await fileHash(file) });
  }

  /** A sequence is hashed by its frames in their order. */
  private async run(at: string, run: Tasks['runs'][number]): Promise<void> {
    const names = [...run.names].sort();
    const whole = sha256.create();
    for (const name of names) {
      const file = await this.source.fileOf(join(at, name));
      if (file !== null) whole.update(new TextEncoder().encode(await fileHash(file)));
    }
    this.facts.push({
      kind: 'hash',
      path: join(at, names[0] ?? run.first),
      frames: run.frames.length,
      size: run.bytes,
      modified: run.newest,
      sha256: bytesToHex(whole.digest()),
    });
  }

  private async search(path: string, { name, size, modified }: Tasks['search'][number]): Promise<void> {
    const file = await this.source.fileOf(path);
    if (file === null) return;
    // Only what the setup sheet has something to say of.
    if (agreedFor(this.rules, path).length > 0)
      this.facts.push({ kind: 'told', path, modified, facts: await this.media.read(file) });
    const format = refFormatOf(name);
    if (format !== null && isReadAsText(size)) {
      const targets = distinctTargets(format.find(await file.text()));
      this.facts.push({ kind: 'references', path, modified, targets, holdsRoot: false });
    } else if (await this.holdsRoot(file)) {
      this.facts.push({ kind: 'references', path, modified, targets: [], holdsRoot: true });
    }
  }

  private async holdsRoot(file: File): Promise<boolean> {
    if (this.needles.length === 0) return false;
    for (const [from, to] of stretchesOf(file.size)) {
      const text = oneEach(await file.slice(from, to).arrayBuffer());
      if (this.needles.some(([narrow, wide]) => text.includes(narrow) || text.includes(wide))) return true;
    }
    return false;
  }
}

type Tasks = ReturnType<typeof contentTasks>;

/** Bytes as one character each: text and needle alike, whatever the browser makes of single bytes. */
const oneEach = (bytes: AllowSharedBufferSource): string => new TextDecoder('latin1').decode(bytes);

/** A path as it may stand in a file: in UTF-8 and in UTF-16. */
function needlesOf(path: string): readonly [string, string] {
  const wide = new Uint8Array([...path].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]));
  return [oneEach(new TextEncoder().encode(path)), oneEach(wide)];
}

async function fileHash(file: File): Promise<string> {
  const hash = sha256.create();
  const reader = file.stream().getReader();
  for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) hash.update(chunk.value);
  return bytesToHex(hash.digest());
}

const told = ({ summary, findings }: CheckOutcome, unseen: readonly string[] = []): HereOutcome => ({
  outcome: { summary, findings },
  unseen,
});

const work = {
  async folder(
    root: FileSystemDirectoryHandle,
    input: CheckInput,
    roots: readonly string[],
    progress: Progress,
  ): Promise<HereOutcome> {
    stopped = false;
    here = null;
    const source = await lookThrough(root, progress, () => stopped);
    const { outcome, listings, facts } = await look(source, input, roots, progress);
    if (!stopped)
      here = new HereRepair({ root, input, roots, listings, facts, fileOf: source.fileOf }, outcome.findings);
    return told(outcome, source.unseen);
  },

  /** Where the browser gives files and no folders: one without files is not told, and so not missed. */
  async files(
    files: readonly { readonly path: string; readonly file: File }[],
    input: CheckInput,
    roots: readonly string[],
    progress: Progress,
  ): Promise<HereOutcome> {
    stopped = false;
    const byPath = new Map(files.map(({ path, file }) => [path.slice(path.indexOf('/') + 1), file]));
    const lines = [...byPath]
      .filter(([path]) => !path.startsWith(`${OWN_FOLDER}/`))
      .map(([path, file]): PathLine => ({ path, folder: false, size: file.size, modified: file.lastModified }));
    const source: LookedThrough = {
      listings: new Map(foldersFrom(lines, null).map((l) => [l.path, l])),
      fileOf: async (path) => byPath.get(path) ?? null,
      unseen: [],
    };
    here = null;
    const { outcome } = await look(source, input, roots, progress);
    const findings = outcome.findings.filter((f) => f.rule !== 'missing-folder' && f.rule !== 'empty-folder');
    const of = (weight: string) => findings.filter((f) => f.weight === weight).length;
    return told({
      ...outcome,
      findings,
      summary: { ...outcome.summary, must: of('must'), should: of('should'), note: of('note') },
    });
  },

  /** `null` where it is no listing that can be understood. */
  text(listing: string, input: CheckInput): HereOutcome | null {
    try {
      return checkedListing(foldersInText(listing), input);
    } catch {
      return null;
    }
  },

  entries(entries: readonly { readonly name: string; readonly bytes: number }[], input: CheckInput): HereOutcome {
    const lines = entries.map(
      ({ name, bytes }): PathLine => ({
        path: name.replace(/\/$/, ''),
        folder: name.endsWith('/'),
        size: bytes,
        modified: 0,
      }),
    );
    return checkedListing(foldersFrom(lines), input);
  },

  /** What puts right what was found in the folder; `null` where no folder was checked. */
  async planRepair(answers: Readonly<Record<string, Answer>>): Promise<RepairPlan | null> {
    return (await here?.plan(answers)) ?? null;
  },

  /** Carries out the plan that was shown, and no other. */
  async carryOut(fingerprint: string, by: string, told: Told): Promise<CarriedOut> {
    return (await here?.carryOut(fingerprint, by, told)) ?? { batch: '', hindrance: 'No folder is open here.' };
  },

  async undo(root: FileSystemDirectoryHandle, batch: string, by: string, told: Told): Promise<string | null> {
    return (await saidOf(() => undoHere(root, batch, by, told))).hindrance;
  },

  unended: (root: FileSystemDirectoryHandle): Promise<Unended | null> => unendedIn(root).catch(() => null),

  async settle(
    root: FileSystemDirectoryHandle,
    id: string,
    way: 'finish' | 'take-back',
    told: Told,
  ): Promise<string | null> {
    const act = () => (way === 'finish' ? finishHere(root, id, told) : takeBackHere(root, id, told));
    return (await saidOf(act)).hindrance;
  },

  /** Looks through a folder for what programs left there; `null` where it was stopped. */
  async lookForLeft(
    root: FileSystemDirectoryHandle,
    families: Registers['families'],
    progress: Progress,
  ): Promise<{ readonly files: number; readonly unseen: readonly string[] } | null> {
    stopped = false;
    clearing = null;
    const { listings, unseen } = await lookThrough(root, progress, () => stopped);
    if (stopped) return null;
    clearing = new HereClearing(root, listings.values(), families);
    return { files: [...listings.values()].reduce((n, { files }) => n + files.length, 0), unseen };
  },

  left: (wish: LeftWish): LeftHere => clearing?.show(wish) ?? { rows: [], forms: [] },

  leftFiles: (path: string, wish: LeftWish, most: number) => clearing?.filesOf(path, wish, most) ?? [],

  async clear(paths: readonly string[], wish: LeftWish, by: string, told: Told): Promise<CarriedOut> {
    return (await clearing?.clear(paths, wish, by, told)) ?? { batch: '', hindrance: 'No folder is open here.' };
  },

  cleared: (root: FileSystemDirectoryHandle): Promise<readonly KeptHere[]> => keptHere(root, CLEAR).catch(() => []),

  /** Why not, in words; `null` where its space is free. */
  async free(root: FileSystemDirectoryHandle, id: string): Promise<string | null> {
    try {
      await freeHere(root, id);
      return null;
    } catch (error) {
      return `It failed: ${whyItFailed(error)}`;
    }
  },

  stop(): void {
    stopped = true;
  },
};

export type ChecksWork = typeof work;

expose(work);
