/** The project that is carried over, folder by folder: each file with what its name means, and whether it comes along. */

import { chainKey } from '../../check/items';
import { stateOf } from '../../check/match';
import { type FileEntry, type FolderListing, join, nameOf, parentOf } from '../../listing/entry';
import { groupFrames } from '../../name/frames';
import type { Reading } from '../../name/pattern/field';
import { readName } from '../../name/read/read';
import { versionRank } from '../../name/versions';
import type { FolderConvention } from '../../project/folder-convention';
import { OWN_FOLDER } from '../../project/own-folder';
import { isForGenerated, type ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';
import type { CarryWay, Comes, Criterion } from './way';

export interface SourceFile {
  /** From the source's root. */
  readonly path: string;
  readonly file: FileEntry;
  /** The planned folder it lies in, the one for older versions counted in; `null` where no rule knows it. */
  readonly line: PlannedLine | null;
  readonly by: FolderConvention | null;
  readonly reading: Reading | null;
  /** The same for versions of one work in one folder; `null` where the name has no version. */
  readonly work: string | null;
  /** The same, where newer versions supersede older ones: renders stand beside each other. */
  readonly chain: string | null;
  /** The sequence that it is a frame of: its path with `#` for its frame; `null` where it is none. */
  readonly run: string | null;
  /** The line of the plan that it is itself: a starter file. */
  readonly starter: PlannedLine | null;
  /** A program made it along the way, or it lies in a folder for that. */
  readonly isGenerated: boolean;
  /** Nothing newer supersedes it, and no program made it along the way. */
  readonly isCurrent: boolean;
  readonly comes: boolean;
}

export interface Source {
  readonly files: readonly SourceFile[];
  /** Outer ones first. */
  readonly folders: readonly SourceFolder[];
}

export interface SourceFolder {
  readonly path: string;
  /** The template's id of it; `null` where no plan makes it. */
  readonly node: string | null;
  readonly comes: Comes;
  /** Whether that is said of itself, or of a folder above. */
  readonly isSaid: boolean;
}

/** What a person says of a single file, or of a folder and all that is in it: stronger than all else. */
export interface PickedOne {
  readonly comes?: boolean | undefined;
  /** Its name in the new project. */
  readonly name?: string | undefined;
  /** Its folder there, from the root. */
  readonly folder?: string | undefined;
}

/** By the path in the source; of a sequence with `#` for its frame. */
export type Picked = Readonly<Record<string, PickedOne>>;

/** One entry of a list becomes another within one project: only what belongs to the first is carried. */
export interface Revision {
  /** What folders and names know the entry by. */
  readonly as: string;
  readonly was: string;
  readonly now: string;
}

interface Asked {
  readonly way: CarryWay;
  readonly picked: Picked;
  /** Starter files are brought as they are; else the new project has its own. */
  readonly startersCome: boolean;
  readonly revision: Revision | null;
}

export function readSource(rules: ProjectRules, listings: Iterable<FolderListing>, asked: Asked): Source {
  const files: SourceFile[] = [];
  const folders: SourceFolder[] = [];
  const inOrder = [...listings].sort((a, b) => (depthFirst(a) < depthFirst(b) ? -1 : 1));
  for (const listing of inOrder) {
    if (listing.path === OWN_FOLDER || listing.path.startsWith(`${OWN_FOLDER}/`)) continue;
    const { comes, isSaid } = comesOf(rules, listing.path, asked);
    const node = rules.planned(listing.path)?.folder?.id ?? null;
    folders.push({ path: listing.path, node, comes, isSaid });
    files.push(...filesOf(rules, listing, comes, asked));
  }
  return { files, folders };
}

/** A folder, then all that is in it, then the next one. */
const depthFirst = ({ path }: FolderListing): string => path.replaceAll('/', '\0');

/** What the nearest folder above says that says something. */
function comesOf(rules: ProjectRules, path: string, { way, picked }: Asked): { comes: Comes; isSaid: boolean } {
  for (let at = path; ; at = parentOf(at)) {
    const isSaid = at === path;
    const picks = picked[at]?.comes;
    if (picks !== undefined) return { comes: picks ? 'everything' : 'nothing', isSaid };
    const node = rules.planned(at)?.folder?.id;
    const said = node === undefined ? undefined : way.folders[node];
    if (said !== undefined) return { comes: said, isSaid };
    if (at === '') return { comes: 'current', isSaid: false };
  }
}

function filesOf(
  rules: ProjectRules,
  listing: FolderListing,
  comes: Comes,
  { way, picked, startersCome, revision }: Asked,
): SourceFile[] {
  const state = stateOf(rules, listing.path);
  const line = state.kind === 'planned' ? state.line : null;
  const isOlder = state.kind === 'planned' && state.older;
  const runs = runsOf(listing);
  const read = listing.files.flatMap((file) => {
    const path = join(listing.path, file.name);
    const run = runs.get(file.name) ?? null;
    const planned = rules.planned(path);
    const starter = planned?.kind === 'file' ? planned : null;
    // What the new project's plan makes itself is not brought.
    if (starter !== null && !startersCome) return [];
    const read = { path, run, file, line, starter, ...readingOf(rules, starter === null ? line : null, file) };
    return revision === null || isOfRevision(read, revision) ? [read] : [];
  });
  const newest = newestOf(read);
  const isCache = isInCache(rules, listing.path);
  return read.map((one) => {
    const isSuperseded = isOlder || (one.chain !== null && newest.get(one.chain) !== rankOf(one));
    const isGenerated = isCache || rules.isGenerated(one.file.name);
    const isCurrent = !isSuperseded && !isGenerated;
    const byFolder = comes === 'everything' || (comes === 'current' && isCurrent);
    const isTaken = way.take.some((c) => fits(rules, one, c)) && comes !== 'nothing';
    const isLeft = way.leave.some((c) => fits(rules, one, c));
    const said = picked[one.path]?.comes ?? (one.run === null ? undefined : picked[one.run]?.comes);
    return { ...one, isGenerated, isCurrent, comes: said ?? ((byFolder || isTaken) && !isLeft) };
  });
}

/** Names of frames → the path of their sequence. */
function runsOf({ path, files }: FolderListing): ReadonlyMap<string, string> {
  const out = new Map<string, string>();
  for (const { head, tail, width, ranges } of groupFrames(files.map((file) => file.name)).sequences)
    for (const [from, to] of ranges)
      for (let frame = from; frame <= to; frame++)
        out.set(`${head}${String(frame).padStart(width, '0')}${tail}`, join(path, `${head}#${tail}`));
  return out;
}

/** By the folder it lies in, or by its name. */
const isOfRevision = ({ line, reading }: Pick<SourceFile, 'line' | 'reading'>, { as, was }: Revision): boolean =>
  line?.entries[as] === was || String(reading?.[as] ?? '') === was;

/** Whether programs made a file along the way, by its name or by its folder. */
export const isGeneratedIn = (rules: ProjectRules, folder: string, name: string): boolean =>
  rules.isGenerated(name) || isInCache(rules, folder);

/** In a folder for what programs make, however deep. */
function isInCache(rules: ProjectRules, path: string): boolean {
  for (let at = path; at !== ''; at = parentOf(at)) {
    const line = rules.planned(at);
    if (line !== undefined && isForGenerated(line)) return true;
  }
  return false;
}

function readingOf(
  rules: ProjectRules,
  line: PlannedLine | null,
  { name }: FileEntry,
): Pick<SourceFile, 'by' | 'reading' | 'work' | 'chain'> {
  for (const by of line === null ? [] : rules.conventionsFor(line, name)) {
    const reading = readName(by.strict, name, by.bound);
    if (reading === null) continue;
    const work = reading.version === undefined ? null : chainKey(by, reading);
    return { by, reading, work, chain: reading.frame === undefined ? work : null };
  }
  return { by: null, reading: null, work: null, chain: null };
}

const rankOf = ({ by, reading }: Pick<SourceFile, 'by' | 'reading'>): number =>
  by === null || reading === null ? 0 : versionRank(by.strict, reading);

function newestOf(files: readonly Pick<SourceFile, 'chain' | 'by' | 'reading'>[]): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  for (const file of files)
    if (file.chain !== null) out.set(file.chain, Math.max(out.get(file.chain) ?? 0, rankOf(file)));
  return out;
}

function fits(
  rules: ProjectRules,
  { file, reading }: Pick<SourceFile, 'file' | 'reading'>,
  { family, reading: wanted }: Criterion,
): boolean {
  if (family !== undefined && rules.familyOf(file.name) !== family) return false;
  return Object.entries(wanted ?? {}).every(([field, value]) => String(reading?.[field] ?? '') === value);
}

export const folderOf = ({ path }: Pick<SourceFile, 'path'>): string => parentOf(path);
export const fileName = ({ path }: Pick<SourceFile, 'path'>): string => nameOf(path);
