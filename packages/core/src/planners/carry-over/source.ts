/** The project that is carried over, folder by folder: each file with what its name means, and whether it comes along. */

import { chainKey } from '../../check/items';
import { stateOf } from '../../check/match';
import { type FileEntry, type FolderListing, join, nameOf, parentOf } from '../../listing/entry';
import type { Reading } from '../../name/pattern/field';
import { readName } from '../../name/read/read';
import { ordinal } from '../../name/versions';
import type { FolderConvention } from '../../project/folder-convention';
import { OWN_FOLDER } from '../../project/own-folder';
import type { ProjectRules } from '../../project/rules';
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
  /** The line of the plan that it is itself: a starter file. */
  readonly starter: PlannedLine | null;
  readonly comes: boolean;
}

export interface Source {
  readonly files: readonly SourceFile[];
  /** Folders that come though no plan makes them, outer ones first. */
  readonly folders: readonly string[];
}

/** Asked of single files by a person: stronger than all else. */
export type Picked = Readonly<Record<string, { readonly comes?: boolean | undefined }>>;

interface Asked {
  readonly way: CarryWay;
  readonly picked: Picked;
  /** Starter files are brought as they are; else the new project has its own. */
  readonly startersCome: boolean;
}

export function readSource(
  rules: ProjectRules,
  listings: Iterable<FolderListing>,
  { way, picked, startersCome }: Asked,
): Source {
  const files: SourceFile[] = [];
  const folders: string[] = [];
  for (const listing of listings) {
    if (listing.path === OWN_FOLDER || listing.path.startsWith(`${OWN_FOLDER}/`)) continue;
    const comes = comesOf(rules, listing.path, way);
    const isPlanned = rules.planned(listing.path)?.kind === 'folder';
    if (!isPlanned && comes !== 'nothing') folders.push(listing.path);
    files.push(...filesOf(rules, listing, comes, { way, picked, startersCome }));
  }
  return { files, folders: folders.sort() };
}

/** What the nearest folder above says that says something. */
function comesOf(rules: ProjectRules, path: string, { folders }: CarryWay): Comes {
  for (let at = path; ; at = parentOf(at)) {
    const node = rules.planned(at)?.folder?.id;
    const said = node === undefined ? undefined : folders[node];
    if (said !== undefined) return said;
    if (at === '') return 'current';
  }
}

function filesOf(
  rules: ProjectRules,
  listing: FolderListing,
  comes: Comes,
  { way, picked, startersCome }: Asked,
): SourceFile[] {
  const state = stateOf(rules, listing.path);
  const line = state.kind === 'planned' ? state.line : null;
  const isOlder = state.kind === 'planned' && state.older;
  const read = listing.files.flatMap((file) => {
    const path = join(listing.path, file.name);
    const planned = rules.planned(path);
    const starter = planned?.kind === 'file' ? planned : null;
    // What the new project's plan makes itself is not brought.
    if (starter !== null && !startersCome) return [];
    return [{ path, file, line, starter, ...readingOf(rules, starter === null ? line : null, file) }];
  });
  const newest = newestOf(read);
  return read.map((one) => {
    const isSuperseded = isOlder || (one.chain !== null && newest.get(one.chain) !== versionOf(one.reading));
    const isCurrent = !isSuperseded && !rules.isGenerated(one.file.name);
    const byFolder = comes === 'everything' || (comes === 'current' && isCurrent);
    const isTaken = way.take.some((c) => fits(rules, one, c)) && comes !== 'nothing';
    const isLeft = way.leave.some((c) => fits(rules, one, c));
    return { ...one, comes: picked[one.path]?.comes ?? ((byFolder || isTaken) && !isLeft) };
  });
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

const versionOf = (reading: Reading | null): number => (reading?.version === undefined ? 0 : ordinal(reading.version));

function newestOf(files: readonly Pick<SourceFile, 'chain' | 'reading'>[]): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  for (const { chain, reading } of files)
    if (chain !== null) out.set(chain, Math.max(out.get(chain) ?? 0, versionOf(reading)));
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
