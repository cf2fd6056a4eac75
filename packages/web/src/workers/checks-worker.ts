/**
 * Checks of what only this computer sees, away from the page: a chosen folder, files, a listing, a zip. Nothing leaves
 * the browser.
 */
import {
  Checker,
  type CheckOutcome,
  type ContentFact,
  checkListing,
  contentTasks,
  contentWants,
  judgeWhole,
  withContents,
} from '@nesting/core/check';
import {
  commonRoot,
  type FolderListing,
  FRAMES_NOTE,
  foldersFrom,
  frameRange,
  join,
  type PathLine,
  parseListing,
} from '@nesting/core/listing';
import { type CheckInput, OWN_FOLDER, ProjectRules } from '@nesting/core/project';
import { refFormatOf } from '@nesting/core/references';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { expose } from 'comlink';

export interface HereOutcome {
  readonly outcome: Omit<CheckOutcome, 'rows'>;
  /** Files that could not be read, or whose folders could not. */
  readonly unseen: readonly string[];
}

/** Files looked into up to this size: what is larger holds pictures and sound. */
const MOST_SEARCHED = 16 << 20;

interface Source {
  readonly listings: Map<string, FolderListing>;
  readonly fileOf: (path: string) => Promise<File | null>;
  readonly unseen: string[];
}

type Progress = (files: number, folders: number, stage: 'walking' | 'reading') => void;

let stopped = false;

async function fromHandle(root: FileSystemDirectoryHandle, progress: Progress): Promise<Source> {
  const listings = new Map<string, FolderListing>();
  const handles = new Map<string, FileSystemFileHandle>();
  const unseen: string[] = [];
  const queue: [string, FileSystemDirectoryHandle][] = [['', root]];
  let files = 0;
  for (let next = queue.pop(); next !== undefined && !stopped; next = queue.pop()) {
    const [path, folder] = next;
    const listing = {
      path,
      folders: [] as string[],
      files: [] as { name: string; size: number; modified: number }[],
      others: [] as string[],
      ranges: {} as Record<string, readonly [number, number]>,
    };
    try {
      for await (const [name, handle] of folder.entries()) {
        const at = join(path, name);
        if (handle.kind === 'directory') {
          if (at === OWN_FOLDER) continue;
          listing.folders.push(name);
          queue.push([at, handle]);
          continue;
        }
        const file = await handle.getFile().catch(() => null);
        if (file === null) {
          unseen.push(at);
          continue;
        }
        handles.set(at, handle);
        listing.files.push({ name, size: file.size, modified: file.lastModified });
        const range = name.endsWith(FRAMES_NOTE) && file.size <= 100 ? frameRange(await file.text()) : null;
        if (range !== null) listing.ranges[name.slice(0, -FRAMES_NOTE.length)] = range;
        if (++files % 500 === 0) progress(files, listings.size, 'walking');
      }
    } catch {
      unseen.push(path);
    }
    listings.set(path, listing);
  }
  return {
    listings,
    unseen,
    fileOf: async (path) =>
      (await handles
        .get(path)
        ?.getFile()
        .catch(() => null)) ?? null,
  };
}

function fromLines(lines: PathLine[], input: CheckInput): FolderListing[] {
  const rules = new ProjectRules(input);
  // A listing made from outside the project has its folder in front of every line.
  const root = commonRoot(lines);
  const planned = rules.expansion.lines.some((l) => l.depth === 1 && l.name === root);
  return foldersFrom(lines, root !== null && !planned ? root : null);
}

async function look(
  source: Source,
  input: CheckInput,
  roots: readonly string[],
  progress: Progress,
): Promise<CheckOutcome> {
  const rules = new ProjectRules(input);
  const checker = new Checker(rules);
  const inOrder = [...source.listings.values()];
  for (const listing of inOrder) checker.folder(listing);
  const part = checker.part();
  const outcome = judgeWhole(rules, part, (path) => source.listings.get(path) ?? null);
  const wants = contentWants(part);
  const facts: ContentFact[] = [];
  const needles = roots.filter((r) => r.length > 3).map(latin);
  let files = 0;
  for (const [folders, listing] of inOrder.entries()) {
    if (stopped) break;
    const { hash, runs, search } = contentTasks(rules, listing, wants);
    for (const { name, size, modified } of hash) {
      const file = await source.fileOf(join(listing.path, name));
      if (file !== null)
        facts.push({
          kind: 'hash',
          path: join(listing.path, name),
          frames: 1,
          size,
          modified,
          sha256: await fileHash(file),
        });
    }
    for (const run of runs) {
      const names = [...run.names].sort();
      const whole = sha256.create();
      for (const name of names) {
        const file = await source.fileOf(join(listing.path, name));
        if (file !== null) whole.update(new TextEncoder().encode(await fileHash(file)));
      }
      facts.push({
        kind: 'hash',
        path: join(listing.path, names[0] ?? run.first),
        frames: run.frames.length,
        size: run.bytes,
        modified: run.newest,
        sha256: bytesToHex(whole.digest()),
      });
    }
    for (const { name, size, modified } of search) {
      if (++files % 200 === 0) progress(files, folders, 'reading');
      if (size > MOST_SEARCHED) continue;
      const file = await source.fileOf(join(listing.path, name));
      if (file === null) continue;
      const format = refFormatOf(name);
      const path = join(listing.path, name);
      if (format !== null)
        facts.push({
          kind: 'references',
          path,
          modified,
          targets: format.find(await file.text()).map((r) => r.target),
          holdsRoot: false,
        });
      else if (needles.length > 0) {
        const text = new TextDecoder('latin1').decode(await file.arrayBuffer());
        if (needles.some(([narrow, wide]) => text.includes(narrow) || text.includes(wide)))
          facts.push({ kind: 'references', path, modified, targets: [], holdsRoot: true });
      }
    }
  }
  return withContents(rules, outcome, {
    facts,
    roots,
    namesIn: (folder) => {
      const listing = source.listings.get(folder);
      return listing === undefined ? null : new Set([...listing.files.map((f) => f.name), ...listing.folders]);
    },
  });
}

/** A text's bytes as one character each, in UTF-8 and in UTF-16. */
function latin(text: string): readonly [string, string] {
  const bytes = (all: Iterable<number>) => [...all].map((b) => String.fromCharCode(b)).join('');
  return [
    bytes(new TextEncoder().encode(text)),
    bytes([...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])),
  ];
}

async function fileHash(file: File): Promise<string> {
  const hash = sha256.create();
  const reader = file.stream().getReader();
  for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) hash.update(chunk.value);
  return bytesToHex(hash.digest());
}

const told = ({ rows: _rows, ...outcome }: CheckOutcome, unseen: readonly string[] = []): HereOutcome => ({
  outcome,
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
    const source = await fromHandle(root, progress);
    return told(await look(source, input, roots, progress), source.unseen);
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
    const source: Source = {
      listings: new Map(foldersFrom(lines, null).map((l) => [l.path, l])),
      fileOf: async (path) => byPath.get(path) ?? null,
      unseen: [],
    };
    const outcome = await look(source, input, roots, progress);
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
      return told(checkListing(new ProjectRules(input), fromLines(parseListing(listing), input)));
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
    return told(checkListing(new ProjectRules(input), fromLines(lines, input)));
  },

  stop(): void {
    stopped = true;
  },
};

export type ChecksWork = typeof work;

expose(work);
