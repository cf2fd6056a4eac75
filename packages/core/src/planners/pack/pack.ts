/**
 * A project → what goes into a package, file by file, with why the others stay.
 *
 * 1. Each file is read by its folder's convention, and asked whether it goes, by the criteria of carrying over.
 * 2. Of one document only it goes, and what it refers to, and what that refers to.
 * 3. What is not for outsiders stays, unless it was picked by hand.
 * 4. What references would be torn apart by that is said.
 */
import { type FolderListing, parentOf } from '../../listing/entry';
import type { Reading } from '../../name/pattern/field';
import type { ProjectRules } from '../../project/rules';
import { FRAMES, pathMeant, targetOf } from '../../references/target';
import { readSource, type Source, type SourceFile } from '../carry-over/source';
import { type CarryWay, PLAIN_WAY } from '../carry-over/way';
import type { DocumentFacts } from '../repair/documents';
import { type Torn, tornApart } from '../torn';
import type { Selection } from './selection';

export const STAYS = ['elsewhere', 'not-needed', 'outsiders', 'superseded', 'generated', 'left'] as const;
/**
 * Why a file stays: it lies outside of the folder that is packed, the document does not need it, it is not for
 * outsiders, newer ones supersede it, a program made it along the way, or somebody said so.
 */
export type Stays = (typeof STAYS)[number];

export interface PackItem {
  /** From the project's root. */
  readonly path: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly family: string | null;
  readonly reading: Reading | null;
  /** The sequence that it is a frame of: its path with `#` for its frame; `null` where it is none. */
  readonly run: string | null;
  /** `null` where it goes. */
  readonly stays: Stays | null;
}

export interface PackGiven {
  readonly rules: ProjectRules;
  readonly listings: Iterable<FolderListing>;
  readonly selection: Selection;
  readonly documents: readonly DocumentFacts[];
  /** Whole paths of the project, as each system has them. */
  readonly roots: readonly string[];
}

export interface Packing extends Torn {
  /** In the order of their folders. */
  readonly items: readonly PackItem[];
  /** Folders that go although nothing is in them. */
  readonly emptyFolders: readonly string[];
}

export function packing(given: PackGiven): Packing {
  const { rules, selection, documents, roots } = given;
  const source = readSource(rules, given.listings, {
    way: wayOf(rules, selection),
    picked: Object.fromEntries(Object.entries(selection.picked).map(([path, comes]) => [path, { comes }])),
    startersCome: true,
    revision: null,
  });
  const needed = selection.document === null ? null : neededBy(selection.document, source, documents, roots);
  const outsiders = new Outsiders(rules, selection);
  const items = source.files.map((file): PackItem => {
    const { path, file: entry, reading, run } = file;
    const { size, modified } = entry;
    return { path, size, modified, family: rules.familyOf(entry.name) ?? null, reading, run, stays: staysOf(file) };
  });
  function staysOf(file: SourceFile): Stays | null {
    if (!isWithin(file.path, selection.within)) return 'elsewhere';
    if (needed !== null) return needed.has(file.path) ? null : 'not-needed';
    if (outsiders.keepsBack(file)) return 'outsiders';
    if (file.isGenerated && !selection.withGenerated && !isPicked(file, selection)) return 'generated';
    if (file.comes) return null;
    return file.isCurrent || file.isGenerated || isLeft(file, selection) ? 'left' : 'superseded';
  }
  const going = new Set(items.flatMap(({ path, run, stays }) => (stays === null ? [path, ...(run ?? [])] : [])));
  return {
    items,
    emptyFolders: emptyFolders(source, items, selection, outsiders),
    ...tornApart(documents, roots, (path) => going.has(path) || goesAsFrames(going, path)),
  };
}

/** The root says what is said of all that nothing else is said of. */
function wayOf({ template }: ProjectRules, { comes, folders, take, leave }: Selection): CarryWay {
  const root = template.root.id;
  return { ...PLAIN_WAY, folders: { ...(root !== undefined && { [root]: comes }), ...folders }, take, leave };
}

const isWithin = (path: string, folder: string): boolean =>
  folder === '' || path === folder || path.startsWith(`${folder}/`);

/** A place of frames is written with a pattern for their numbers. */
function goesAsFrames(going: ReadonlySet<string>, path: string): boolean {
  const frames = path.replace(FRAMES, '#');
  return frames !== path && going.has(frames);
}

/** A document and all that it refers to, however far. */
function neededBy(
  document: string,
  { files }: Source,
  documents: readonly DocumentFacts[],
  roots: readonly string[],
): ReadonlySet<string> {
  const byDocument = new Map(documents.map(({ path, targets }) => [path, targets]));
  const byRun = new Map<string, string[]>();
  for (const { path, run } of files) if (run !== null) byRun.set(run, [...(byRun.get(run) ?? []), path]);
  const out = new Set<string>();
  const queue = [document];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    if (out.has(path)) continue;
    out.add(path);
    for (const target of byDocument.get(path) ?? []) {
      const meant = pathMeant(targetOf(path, target, roots));
      if (meant !== null) queue.push(meant, ...(byRun.get(meant.replace(FRAMES, '#')) ?? []));
    }
  }
  return out;
}

/** Folders of the template that are not for outsiders, with all that is in them. */
class Outsiders {
  private readonly known = new Map<string, boolean>();

  constructor(
    private readonly rules: ProjectRules,
    private readonly selection: Selection,
  ) {}

  keepsBack(file: Pick<SourceFile, 'path' | 'run'>): boolean {
    return this.selection.isForOutsiders && this.isMarked(parentOf(file.path)) && !isPicked(file, this.selection);
  }

  isMarked(folder: string): boolean {
    const known = this.known.get(folder);
    if (known !== undefined) return known;
    const said = this.rules.planned(folder)?.folder?.outsiders;
    const isMarked = said === undefined ? folder !== '' && this.isMarked(parentOf(folder)) : !said;
    this.known.set(folder, isMarked);
    return isMarked;
  }
}

/** What is said by hand of a file itself, of its sequence, or of the nearest folder above. */
function pickedOf({ path, run }: Pick<SourceFile, 'path' | 'run'>, { picked }: Selection): boolean | undefined {
  const said = picked[path] ?? (run === null ? undefined : picked[run]);
  if (said !== undefined) return said;
  for (let at = parentOf(path); at !== ''; at = parentOf(at)) if (Object.hasOwn(picked, at)) return picked[at];
  return undefined;
}

const isPicked = (file: Pick<SourceFile, 'path' | 'run'>, selection: Selection): boolean =>
  pickedOf(file, selection) === true;

const isLeft = (file: SourceFile, selection: Selection): boolean =>
  pickedOf(file, selection) === false || selection.comes === 'everything';

function emptyFolders(
  { folders }: Source,
  items: readonly PackItem[],
  selection: Selection,
  outsiders: Outsiders,
): readonly string[] {
  if (selection.document !== null) return [];
  const filled = new Set<string>();
  for (const { path, stays } of items)
    for (let at = parentOf(path); stays === null && at !== '' && !filled.has(at); at = parentOf(at)) filled.add(at);
  const withFolders = new Set(folders.map(({ path }) => parentOf(path)));
  return (
    folders
      .filter(({ path, comes }) => path !== '' && comes !== 'nothing' && !filled.has(path) && !withFolders.has(path))
      .filter(({ path }) => isWithin(path, selection.within))
      // What the plan has is made again: only what is in it is not for everybody.
      .filter(({ path, node }) => node !== null || !(selection.isForOutsiders && outsiders.isMarked(path)))
      .map(({ path }) => path)
  );
}
