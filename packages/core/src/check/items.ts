/**
 * One folder's files as the items they are: frames of a sequence as one, files that follow a convention with their
 * reading, and the
 * others, to be judged. Every name is read once, and of a sequence one frame: the others differ from it in their frame
 * alone.
 */

import type { FileEntry, FolderListing } from '../listing/entry';
import { join } from '../listing/entry';
import { extensionOf } from '../listing/extension';
import type { Reading } from '../name/pattern/field';
import { readName } from '../name/read/read';
import { ownValue } from '../own-value';
import { isChecksumList } from '../project/checksum-list';
import type { FolderConvention } from '../project/folder-convention';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import type { FolderState } from './match';

export interface ReadFile {
  readonly file: FileEntry;
  readonly by: FolderConvention;
  readonly reading: Reading;
}

/** Frames of one image sequence in one folder. */
export interface Run {
  readonly by: FolderConvention;
  /** Of its first frame. */
  readonly reading: Reading;
  /** The name before and behind the frame. */
  readonly head: string;
  readonly tail: string;
  readonly first: string;
  /** The files it is made of, as they came. */
  readonly names: string[];
  readonly frames: number[];
  low: number;
  high: number;
  bytes: number;
  newest: number;
}

/** A side file: it goes with a document of one of these families. */
export interface Side {
  readonly file: FileEntry;
  /** Its name without its extension, in small letters. */
  readonly stem: string;
  readonly families: readonly string[];
}

export interface FolderItems {
  readonly runs: readonly Run[];
  readonly read: readonly ReadFile[];
  /** Files that nothing has cleared yet, with the conventions asked of them. */
  readonly open: readonly { readonly file: FileEntry; readonly conventions: readonly FolderConvention[] }[];
  /** Side files whose document is not beside them. */
  readonly alone: readonly Side[];
  /** Where anything goes, and side files beside their document. */
  readonly cleared: readonly FileEntry[];
  /** Keys of planned files that are there. */
  readonly starters: readonly string[];
  /** Bytes of planned files. */
  readonly starterBytes: number;
}

/** The program's own form: the frames that a sequence should have, written beside it. */
const isFrameList = (name: string): boolean => name.endsWith('.frames.txt');

const isDigit = (code: number): boolean => code >= 48 && code <= 57;

const NONE: FolderItems = { runs: [], read: [], open: [], alone: [], cleared: [], starters: [], starterBytes: 0 };

export function itemsOf(rules: ProjectRules, listing: FolderListing, state: FolderState): FolderItems {
  if (state.kind === 'free') return { ...NONE, cleared: listing.files };
  return state.kind === 'planned' ? new Reader(rules, listing, state.line).items() : NONE;
}

class Reader {
  private readonly runs = new Map<string, Run>();
  private readonly read: ReadFile[] = [];
  private readonly open: { file: FileEntry; conventions: readonly FolderConvention[] }[] = [];
  private readonly alone: Side[] = [];
  private readonly cleared: FileEntry[] = [];
  private readonly starters: string[] = [];
  private starterBytes = 0;
  private last: Run | null = null;
  /**
   * Digits of the frame that was read last, and whether it began with a nought: then any digits of that width read
   * alike.
   */
  private width = 0;
  private padded = false;
  private documents: Set<string> | null = null;

  constructor(
    private readonly rules: ProjectRules,
    private readonly listing: FolderListing,
    private readonly line: PlannedLine,
  ) {}

  items(): FolderItems {
    const { rules, listing, line } = this;
    const plansFiles = rules.plansFilesIn(line);
    for (const file of listing.files) {
      const planned = plansFiles ? rules.planned(join(listing.path, file.name)) : undefined;
      if (planned?.kind === 'file') {
        this.starters.push(planned.key);
        this.starterBytes += file.size;
      } else if (line.rules.free || this.isOwnList(file.name)) this.cleared.push(file);
      else if (this.last === null || !this.goesOn(this.last, file)) this.file(file);
    }
    return {
      runs: [...this.runs.values()],
      read: this.read,
      open: this.open,
      alone: this.alone,
      cleared: this.cleared,
      starters: this.starters,
      starterBytes: this.starterBytes,
    };
  }

  /** A list that the program wrote, or was written for it. */
  private isOwnList(name: string): boolean {
    return isFrameList(name) || (this.line.folder?.checksums === true && isChecksumList(name));
  }

  /**
   * Frames come one after another: most names differ from the one before in their frame alone, and then are of the same
   * sequence.
   */
  private goesOn(run: Run, file: FileEntry): boolean {
    const { name } = file;
    const from = run.head.length;
    const to = from + this.width;
    if (name.length !== to + run.tail.length || !name.startsWith(run.head) || !name.endsWith(run.tail)) return false;
    if (!this.padded && name.charCodeAt(from) === 48) return false;
    let frame = 0;
    for (let i = from; i < to; i++) {
      const code = name.charCodeAt(i);
      if (!isDigit(code)) return false;
      frame = frame * 10 + code - 48;
    }
    add(run, file, frame);
    return true;
  }

  private file(file: FileEntry): void {
    const conventions = this.rules.conventionsFor(this.line, file.name);
    for (const by of conventions) {
      const reading = readName(by.strict, file.name, by.bound);
      if (reading === null) continue;
      if (typeof reading.frame !== 'number' || !this.frame(file, by, reading, reading.frame))
        this.read.push({ file, by, reading });
      return;
    }
    if (!this.side(file)) this.open.push({ file, conventions });
  }

  /** Puts a frame into its sequence; `false` where the frame does not stand right before the extension. */
  private frame(file: FileEntry, by: FolderConvention, reading: Reading, frame: number): boolean {
    const { name } = file;
    const dot = name.length - extensionOf(name, by.extensions ?? this.rules.extensionsKnown).length - 1;
    let from = dot;
    while (from > 0 && isDigit(name.charCodeAt(from - 1))) from--;
    if (dot <= 0 || from === dot || Number(name.slice(from, dot)) !== frame) return false;
    const [head, tail] = [name.slice(0, from), name.slice(dot)];
    const key = `${head}/${tail}`;
    let run = this.runs.get(key);
    if (run === undefined) {
      run = {
        by,
        reading,
        head,
        tail,
        first: name,
        names: [],
        frames: [],
        low: Number.POSITIVE_INFINITY,
        high: Number.NEGATIVE_INFINITY,
        bytes: 0,
        newest: 0,
      };
      this.runs.set(key, run);
    }
    add(run, file, frame);
    this.last = run;
    this.width = dot - from;
    this.padded = name.charCodeAt(from) === 48;
    return true;
  }

  private side(file: FileEntry): boolean {
    if (this.rules.documents.isPart(this.listing, file.name)) {
      this.cleared.push(file);
      return true;
    }
    const families = this.rules.companionOf(file.name);
    if (families.length === 0) return false;
    this.documents ??= documentsIn(this.rules, this.listing.files);
    const stem = stemOf(file.name);
    if (families.some((family) => this.documents?.has(`${family}/${stem}`))) {
      this.cleared.push(file);
      return true;
    }
    // What a program made by itself is judged as that, with or without its document.
    if (this.rules.isGenerated(file.name)) return false;
    this.alone.push({ file, stem, families });
    return true;
  }
}

function add(run: Run, file: FileEntry, frame: number): void {
  run.names.push(file.name);
  run.frames.push(frame);
  if (frame < run.low) run.low = frame;
  if (frame > run.high) run.high = frame;
  run.bytes += file.size;
  if (file.modified > run.newest) run.newest = file.modified;
}

export const stemOf = (name: string): string =>
  name.slice(0, name.lastIndexOf('.') < 1 ? undefined : name.lastIndexOf('.')).toLowerCase();

/** `family/stem` of each document that may have side files. */
function documentsIn(rules: ProjectRules, files: readonly FileEntry[]): Set<string> {
  const out = new Set<string>();
  for (const { name } of files) {
    const family = rules.familyOf(name);
    if (family !== null && rules.hasCompanions(family)) out.add(`${family}/${stemOf(name)}`);
  }
  return out;
}

/** Names of one chain: what they share but for their version and its state, whoever saved them. */
const APART: ReadonlySet<string> = new Set(['version', 'person', 'frame']);

export function chainKey(by: FolderConvention, reading: Reading): string {
  let key = by.convention.id;
  for (const { field } of by.strict.slots)
    if (!APART.has(field) && field !== by.strict.states?.field && ownValue(reading, field) !== undefined)
      key += `|${field}=${ownValue(reading, field)}`;
  return key;
}

/** All files of a folder, of each sequence one frame alone. */
export function singlesOf(listing: FolderListing, items: FolderItems): readonly FileEntry[] {
  if (items.runs.length === 0) return listing.files;
  const frames = new Set(items.runs.flatMap((r) => r.names.slice(1)));
  return listing.files.filter((f) => !frames.has(f.name));
}

/** A sequence's path without its frame. */
export const pathOfRun = (folder: string, run: Pick<Run, 'head' | 'tail'>): string =>
  join(folder, `${run.head}#${run.tail}`);
