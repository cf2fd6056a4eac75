/** Tasks that pack a project. */
import { createHash } from 'node:crypto';
import { type FolderListing, join, parentOf } from '@nesting/core/listing';
import { layoutOf, type PackageKind, sideBySide } from '@nesting/core/package';
import {
  type LicensedItem,
  licensedIn,
  type Packing,
  type PackSummary,
  packageBytes,
  packing,
  packSummary,
  type Selection,
} from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { type AboutPackage, type AcceptedFinding, packageRecord } from '@nesting/core/report';
import { LOG, type NotPacked, PART } from '../package/form';
import { type PackOutcome, type PackProgress, pack } from '../package/pack';
import { dropLog } from '../package/pack-log';
import { inRoot } from '../roots/open';
import { makeFolders, remove } from '../roots/own-files';
import { readText } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import { removeTree } from '../roots/remove-tree';
import type { Root } from '../roots/root';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { failed, type Where } from '../roots/where';
import type { Context } from './context';
import { foldersIn } from './folders-in';
import { Looking } from './looking';
import type { OfWhere } from './looks';
import { NamesThere } from './names-there';

export interface PackPlanTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly rules: CheckInput;
  readonly selection: Selection;
  readonly kind: PackageKind;
  /** Whole paths of the project, as each system has them. */
  readonly roots: readonly string[];
  /** Paths with findings that must be put right. */
  readonly must: readonly string[];
  /** Lines that are handed back; the counts say the rest. */
  readonly mostLines: number;
}

export interface PlannedPack extends PackSummary {
  /** Stands for all that goes: another one, another plan. */
  readonly fingerprint: string;
  /** Bytes that the package takes at most. */
  readonly most: number;
  /** What cannot go: links, names that are no text, what may not be looked at. */
  readonly cannot: readonly NotPacked[];
  readonly cannotAll: number;
  /** Findings that must be put right, among what goes. */
  readonly must: number;
  /** Licensed material that goes, with its terms. */
  readonly licensed: readonly LicensedItem[];
}

/** @throws Unreachable */
export const planPack = (task: PackPlanTask): Promise<PlannedPack> =>
  inTree(task.where, task.mounts, (tree) => {
    const { planned, cannot } = packingIn(tree, task);
    return {
      ...packSummary(planned, task.mostLines),
      fingerprint: fingerprintOf(planned),
      most: packageBytes(task.kind, planned.items),
      must: goingOf(planned, task.must),
      licensed: licensedOf(tree, task, planned).slice(0, MOST_LICENSED),
      cannot: cannot.slice(0, MOST_TOLD),
      cannotAll: cannot.length,
    };
  });

/** How many of these go, or hold something that does. */
function goingOf({ items }: Packing, paths: readonly string[]): number {
  const going = new Set<string>();
  for (const { path, run, stays } of paths.length === 0 ? [] : items) {
    if (stays !== null) continue;
    if (run !== null) going.add(run);
    for (let at = path; at !== '' && !going.has(at); at = parentOf(at)) going.add(at);
  }
  return paths.filter((path) => going.has(path)).length;
}

const MOST_LICENSED = 1000;
/** Bytes of a note. */
const MOST_NOTE = 64 * 1024;

function licensedOf(tree: Tree, { rules: input }: PackPlanTask, { items }: Packing): readonly LicensedItem[] {
  const there = new NamesThere(tree, []);
  const read = (path: string): string | null => {
    try {
      return readText(tree.rootOf(path), path, MOST_NOTE);
    } catch {
      // A note that cannot be read says nothing.
      return null;
    }
  };
  const going = items.flatMap(({ path, stays }) => (stays === null ? [path] : []));
  const year = new Date(input.now ?? Date.now()).getUTCFullYear();
  return licensedIn(new ProjectRules(input), going, there.in, read, year);
}

/** Of what cannot go. */
const MOST_TOLD = 200;

function packingIn(
  tree: Tree,
  { rules: input, selection, roots }: PackPlanTask,
): { readonly planned: Packing; readonly cannot: readonly NotPacked[] } {
  const rules = new ProjectRules(input);
  const documents = new Looking(tree, rules, []).documents();
  const cannot: NotPacked[] = [];
  const listings: FolderListing[] = [];
  for (const listing of foldersIn(tree, ({ path, code }) => void cannot.push({ path, code }))) {
    listings.push(listing);
    for (const name of listing.others) cannot.push({ path: join(listing.path, name), code: 'ELOOP' });
  }
  const isWithin = ({ path }: NotPacked) => selection.within === '' || path.startsWith(`${selection.within}/`);
  const planned = packing({ rules, listings, selection, documents, roots });
  return { planned, cannot: selection.document === null ? cannot.filter(isWithin) : [] };
}

function fingerprintOf({ items, emptyFolders }: Packing): string {
  const hash = createHash('sha256');
  for (const { path, size, modified, stays } of items)
    if (stays === null) hash.update(`${path}\0${size}\0${modified}\0`);
  return hash.update(emptyFolders.join('\0')).digest('hex');
}

export interface PackTask extends PackPlanTask {
  /** The folder that it is written into, made where it is not there, in a volume that is. */
  readonly target: Where;
  readonly into: string;
  /** Of the file, or of the bag's folder. */
  readonly name: string;
  readonly isSideBySide: boolean;
  readonly project: string;
  readonly about: AboutPackage;
  readonly accepted: readonly AcceptedFinding[];
  /** What the project chose otherwise than its template. */
  readonly settings: Readonly<Record<string, string>>;
  readonly mayLeaveOut: boolean;
  /** What was shown; `null` for whatever lies there now. */
  readonly shown: string | null;
}

/** Milliseconds between two words on how far it is. */
const TOLD_EVERY = 100;

/** @throws Unreachable for either folder, `EOTHERPLAN` where it is not what was shown, and what `pack` throws */
export const packProject = (task: PackTask, { cancel, tell }: Context<PackProgress>): Promise<PackOutcome> =>
  inTree(task.where, task.mounts, (source) =>
    inRoot(task.target, async (volume) => {
      makeFolders(volume, task.into);
      const { planned, cannot } = packingIn(source, task);
      if (task.shown !== null && task.shown !== fingerprintOf(planned)) throw failed('EOTHERPLAN', '');
      let told = 0;
      const telling = (progress: PackProgress): void => {
        const now = Date.now();
        if (now - told < TOLD_EVERY) return;
        told = now;
        void tell(progress);
      };
      return pack(toPack(task, { planned, cannot }, { source, target: volume.sub(task.into) }), {
        cancel,
        tell: telling,
      });
    }),
  );

function toPack(
  task: PackTask,
  { planned, cannot }: ReturnType<typeof packingIn>,
  roots: { readonly source: Tree; readonly target: Root },
) {
  const { kind, name, about, project, accepted, settings, isSideBySide, rules: input } = task;
  const items = planned.items.filter(({ stays }) => stays === null);
  const licensed = licensedOf(roots.source, task, planned);
  const flat = isSideBySide ? sideBySide(items.map(({ path }) => path)) : null;
  const placeIn = (path: string): string => flat?.get(path) ?? path;
  const tops = new Set(items.map(({ path }) => placeIn(path).split('/')[0] ?? ''));
  const layout = layoutOf(kind, topOf(name), tops);
  const rules = new ProjectRules(input);
  const { number, title, client, recipient, note, at, by } = about;
  return {
    ...{ ...roots, items, kind, layout, name, mayLeaveOut: task.mayLeaveOut, at: Date.parse(at) },
    placeOf: (path: string) => layout.payload(placeIn(path)),
    info: bagInfoOf([
      ['Source-Organization', by],
      ['External-Identifier', number],
      ['External-Description', [title, client].filter((word) => word !== '').join(', ')],
      ['Internal-Sender-Description', note],
      ['Recipient', recipient],
      ['Bagging-Date', at.slice(0, 10)],
    ]),
    record: (files: Parameters<typeof packageRecord>[0]['files'], leftOut: readonly { readonly path: string }[]) =>
      packageRecord({
        ...{ kind, layout, about, project, rules, accepted, licensed, settings, files, values: input.values },
        emptyFolders: isSideBySide ? [] : planned.emptyFolders,
        leftOut: [...leftOut, ...cannot].map(({ path }) => path),
      }),
  };
}

const topOf = (name: string): string => name.replace(/\.zip$/i, '');

/** A label without a value is no line. */
const bagInfoOf = (lines: readonly (readonly [string, string])[]) => lines.filter(([, value]) => value !== '');

export interface PartTask extends OfWhere {
  readonly into: string;
  readonly name: string;
}

/** Takes back what was written of a package that was never finished. */
export const dropPart = ({ where, into, name }: PartTask): void =>
  inRoot(where, (volume) => {
    const at = join(into, name);
    if (standingAt(volume, parentOf(at)) === null) return;
    for (const part of [`${at}${PART}`, `${at}${LOG}`]) if (standingAt(volume, part) !== null) removeTree(volume, part);
    // Beside a package that is whole it is that one's.
    if (standingAt(volume, at) === null && standingAt(volume, `${at}.sha256`) !== null) remove(volume, `${at}.sha256`);
  });

/** After it was noted that a package is done. */
export const forgetLog = ({ where, into, name }: PartTask): void =>
  inRoot(where, (volume) => dropLog(volume, `${join(into, name)}${LOG}`));
