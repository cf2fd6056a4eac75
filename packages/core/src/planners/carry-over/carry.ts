/**
 * A project → the next one: what comes along, what it is called there, where it lies, what refers to what.
 *
 * 1. Each file of the source is read, and asked whether it comes (`source`).
 * 2. Its folder in the new project is the one of the same identity in its plan, else it lies as it lay.
 * 3. Its name is written anew by what it means, else word by word (`names`).
 * 4. What would stand in each other's way is left out, and said at both.
 * 5. Documents are rewritten on the way, so that they refer to what lies in the new project.
 *
 * The source is only read. The new project has been started: its planned folders are there.
 */
import type { Change } from '../../change/change';
import { home, type RootId } from '../../change/place';
import { grouped } from '../../grouped';
import { type FolderListing, join, nameOf, parentOf } from '../../listing/entry';
import { clashKey, nameFaults } from '../../portable/name';
import type { ProjectRules } from '../../project/rules';
import { refFormatOf } from '../../references/formats';
import { Moves } from '../../references/moves';
import { rewriteReferences } from '../../references/rewrite';
import { pathMeant, targetOf } from '../../references/target';
import type { Coded } from '../../result';
import type { ByHand, DocumentFacts, DocumentText, RewrittenDocument, Unread } from '../repair/documents';
import { type NamedBy, NewNames } from './names';
import { fileName, folderOf, type Picked, readSource, type Source, type SourceFile } from './source';
import type { CarryWay } from './way';

export interface CarryGiven {
  readonly source: ProjectRules;
  readonly target: ProjectRules;
  /** Of the source, in any order. */
  readonly listings: Iterable<FolderListing>;
  readonly way: CarryWay;
  /** Single files, by their path in the source. */
  readonly picked: Picked;
  /** Starter files are brought as they are; else the new project has its own. */
  readonly startersCome: boolean;
  readonly documents: readonly DocumentFacts[];
  readonly read: (path: string) => DocumentText | Unread;
  /** Whole paths of both roots, as each system has them, in the same order. */
  readonly roots: { readonly source: readonly string[]; readonly target: readonly string[] };
  /** What the batch knows the source by. */
  readonly from: RootId;
  /** Names in a folder of the new project, as it is now; none where there is no such folder. */
  readonly there: (folder: string) => readonly string[];
}

export interface CarryItem {
  /** From the source's root. */
  readonly from: string;
  /** From the new project's root. */
  readonly to: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly family: string | null;
  readonly by: NamedBy;
  /** The name cannot be, or the path is too long. */
  readonly fault: Coded | null;
  /** The place that is wanted twice, or that something has already. */
  readonly clash: boolean;
}

/** A file that is referred to, or refers, and does not come along. */
export interface Needed {
  readonly document: string;
  readonly target: string;
}

export interface Carried {
  readonly items: readonly CarryItem[];
  readonly changes: readonly Change[];
  readonly documents: readonly RewrittenDocument[];
  readonly byHand: readonly ByHand[];
  /** What documents that come refer to, and what does not come. */
  readonly needed: readonly Needed[];
  /** Documents that do not come, and refer to what comes. */
  readonly referring: readonly Needed[];
  /** What documents that come refer to outside of the project. */
  readonly outside: readonly Needed[];
  /** Files that stay behind. */
  readonly left: number;
}

export function carryOver(given: CarryGiven): Carried {
  const { source, target, way } = given;
  const read = readSource(source, given.listings, given);
  const placed = new Placing(given, new NewNames(source, target, way), read);
  const items = placed.items();
  const coming = items.filter((item) => item.fault === null && !item.clash);
  const refs = new Referring(given, placed, new Map(coming.map((item) => [item.from, item.to])));
  const { documents, byHand, patches } = refs.rewritten();
  return {
    items,
    changes: [...foldersFor(given, placed, read, coming), ...coming.map((item) => copied(given, item, patches))],
    documents,
    byHand,
    ...refs.bound(),
    left: read.files.length - items.length,
  };
}

class Placing {
  private readonly byKey: ReadonlyMap<string, string>;
  private readonly folders = new Map<string, string>();
  /** Folders of one name but for its capitals are one: as the first of them is written. */
  private readonly spelt = new Map<string, string>();
  private readonly ranks: ReadonlyMap<string, number>;

  constructor(
    private readonly given: CarryGiven,
    private readonly names: NewNames,
    private readonly read: Source,
  ) {
    this.byKey = new Map(given.target.expansion.lines.map((line) => [line.key, line.path]));
    for (const { kind, path } of given.target.expansion.lines)
      if (kind === 'folder') this.spelt.set(clashKey(path), path);
    this.ranks = ranksOf(read.files.filter((file) => file.comes));
  }

  items(): CarryItem[] {
    const coming = this.read.files.filter((file) => file.comes);
    const placed = coming.map((file) => ({ file, ...this.placeOf(file) }));
    const wanted = new Map<string, number>();
    for (const { to } of placed) wanted.set(clashKey(to), (wanted.get(clashKey(to)) ?? 0) + 1);
    // A folder may want the place of a file too.
    const folders = new Set([...this.read.folders, ...coming.map(folderOf)].map((at) => clashKey(this.folder(at))));
    return placed.map(({ file, to, name, by }) => ({
      from: file.path,
      to,
      size: file.file.size,
      modified: file.file.modified,
      family: this.given.source.familyOf(fileName(file)),
      by,
      fault: this.faultOf(parentOf(to), name),
      clash: (wanted.get(clashKey(to)) ?? 0) > 1 || folders.has(clashKey(to)) || this.isTaken(to),
    }));
  }

  placeOf(file: SourceFile): { readonly to: string; readonly name: string; readonly by: NamedBy } {
    const own = file.starter === null ? undefined : this.byKey.get(file.starter.key);
    if (own !== undefined)
      return { to: own, name: nameOf(own), by: nameOf(own) === fileName(file) ? 'same' : 'meaning' };
    const folder = this.folder(folderOf(file));
    const line =
      file.line === null ? null : (this.given.target.planned(this.byKey.get(file.line.key) ?? folder) ?? null);
    if (this.isInDocument(file.path)) return { to: join(folder, fileName(file)), name: fileName(file), by: 'same' };
    const { name, by } = this.names.of(file, line, this.ranks.get(file.path) ?? 1);
    return { to: join(folder, name), name, by };
  }

  /** By its identity in the plan, else where it lay, under its own name with the new words. */
  folder(path: string): string {
    if (path === '') return '';
    const known = this.folders.get(path);
    if (known !== undefined) return known;
    const line = this.given.source.planned(path);
    const planned = line?.kind === 'folder' ? this.byKey.get(line.key) : undefined;
    const lain = planned ?? join(this.folder(parentOf(path)), this.folderName(path));
    const to = this.spelt.get(clashKey(lain)) ?? lain;
    this.spelt.set(clashKey(to), to);
    this.folders.set(path, to);
    return to;
  }

  private folderName(path: string): string {
    if (this.isInDocument(path)) return nameOf(path);
    const { name } = this.names.byWords(nameOf(path));
    // One that would be several folders, or none, keeps the name it has.
    return name === '' || name.includes('/') ? nameOf(path) : name;
  }

  /** What is in a folder that is one document is called as its program called it. */
  private isInDocument(path: string): boolean {
    for (let at = parentOf(path); at !== ''; at = parentOf(at)) if (this.given.source.isDocumentFolder(at)) return true;
    return false;
  }

  private faultOf(folder: string, name: string): Coded | null {
    const { target } = this.given;
    const fault = this.faultOfName(name) ?? this.faultOfFolder(folder);
    if (fault !== null) return fault;
    const length = target.before + join(folder, name).length;
    return length > target.budget
      ? { code: 'path-over-budget', params: { found: length, limit: target.budget } }
      : null;
  }

  private faultOfName(name: string): Coded | null {
    const fault = nameFaults(name, this.given.target.profiles).find((f) => f.weight === 'refused');
    return fault === undefined ? null : { code: fault.code, params: fault.params };
  }

  private readonly folderFaults = new Map<string, Coded | null>();

  private faultOfFolder(folder: string): Coded | null {
    if (folder === '') return null;
    const known = this.folderFaults.get(folder);
    if (known !== undefined) return known;
    const fault = this.faultOfName(nameOf(folder)) ?? this.faultOfFolder(parentOf(folder));
    this.folderFaults.set(folder, fault);
    return fault;
  }

  private isTaken(to: string): boolean {
    const there = this.given.there(parentOf(to));
    if (there.length === 0) return false;
    const key = clashKey(nameOf(to));
    return there.some((name) => clashKey(name) === key);
  }
}

/** Versions of one work that come along, counted from 1 in their order. */
function ranksOf(files: readonly SourceFile[]): ReadonlyMap<string, number> {
  const works = grouped(
    files.filter((file) => file.work !== null),
    (file) => `${file.line?.key ?? ''} ${file.work}`,
  );
  const out = new Map<string, number>();
  for (const work of works.values()) {
    const versions = [...new Set(work.map(versionText))].sort((a, b) => a.length - b.length || (a < b ? -1 : 1));
    const ranks = new Map(versions.map((version, i) => [version, i + 1]));
    for (const file of work) out.set(file.path, ranks.get(versionText(file)) ?? 1);
  }
  return out;
}

const versionText = ({ reading }: SourceFile): string => String(reading?.version ?? '');

/** What documents say afterwards, and what would be torn apart. */
class Referring {
  private readonly moves: Moves;
  /** Each that comes, to a place that nothing had before. */
  private readonly away: Moves;

  constructor(
    private readonly given: CarryGiven,
    placed: Placing,
    private readonly coming: ReadonlyMap<string, string>,
  ) {
    this.away = new Moves(new Map([...coming].map(([from, to]) => [from, `\0${to}`])), new Map());
    // What stays behind has its place in the new project too: whoever brings it later puts it there.
    const would = new Map<string, string>();
    for (const { targets, path } of given.documents)
      for (const target of targets) {
        const inside = this.meant(path, target);
        if (inside !== null && !this.comes(inside))
          would.set(inside, join(placed.folder(parentOf(inside)), nameOf(inside)));
      }
    this.moves = new Moves(new Map([...would, ...coming]), new Map());
  }

  rewritten() {
    const documents: RewrittenDocument[] = [];
    const byHand: ByHand[] = [];
    const patches = new Map<string, ReturnType<typeof rewriteReferences>['patches']>();
    const { roots, read } = this.given;
    for (const { path, targets } of this.given.documents) {
      const after = this.coming.get(path);
      if (after === undefined) continue;
      const format = refFormatOf(nameOf(path));
      const found = format === null ? 'unreadable' : read(path);
      if (format === null || typeof found === 'string') {
        const why = typeof found === 'string' ? found : 'unreadable';
        for (const target of targets) byHand.push({ document: path, target, to: this.after(path, target), why });
        continue;
      }
      const asked = { text: found.text, format, before: path, after, moves: this.moves };
      const done = rewriteReferences({ ...asked, roots: roots.source, rootsAfter: roots.target });
      for (const { target, why } of done.unable) byHand.push({ document: path, target, to: null, why });
      if (done.patches.length === 0) continue;
      patches.set(path, done.patches);
      documents.push({ path, after, changes: done.changes });
    }
    return { documents, byHand, patches };
  }

  bound(): Pick<Carried, 'needed' | 'referring' | 'outside'> {
    const [needed, referring, outside]: Needed[][] = [[], [], []];
    for (const { path, targets } of this.given.documents) {
      const comes = this.coming.has(path);
      for (const target of targets) {
        const meant = targetOf(path, target, this.given.roots.source);
        const inside = pathMeant(meant);
        const leadsOut = meant.kind === 'outside' || (meant.kind === 'absolute' && inside === null);
        if (comes && leadsOut) outside?.push({ document: path, target });
        if (inside === null || this.comes(inside) === comes) continue;
        (comes ? needed : referring)?.push({ document: path, target: inside });
      }
    }
    return { needed: needed ?? [], referring: referring ?? [], outside: outside ?? [] };
  }

  /** A place of frames comes where one of them does. */
  private comes(inside: string): boolean {
    return this.coming.has(inside) || this.away.ofFrames(inside) !== inside;
  }

  private after(path: string, target: string): string | null {
    const inside = this.meant(path, target);
    return inside === null ? null : this.moves.ofFrames(inside);
  }

  private meant(path: string, target: string): string | null {
    return pathMeant(targetOf(path, target, this.given.roots.source));
  }
}

/** Folders that are not there and that something goes into, or that come as they are. */
function foldersFor(
  { there }: CarryGiven,
  placed: Placing,
  { folders }: Source,
  coming: readonly CarryItem[],
): readonly Change[] {
  const wanted = new Set<string>();
  const want = (folder: string) => {
    for (let at = folder; at !== ''; at = parentOf(at)) wanted.add(at);
  };
  for (const folder of folders) want(placed.folder(folder));
  for (const { to } of coming) want(parentOf(to));
  return [...wanted]
    .sort()
    .filter((path) => !there(parentOf(path)).includes(nameOf(path)))
    .map((path) => ({
      id: `folder ${path}`,
      subject: { kind: 'file' },
      group: null,
      entry: 'folder',
      before: null,
      after: home(path),
      content: null,
    }));
}

function copied(
  { from: root }: CarryGiven,
  { from, to, size, modified }: CarryItem,
  patches: ReadonlyMap<string, ReturnType<typeof rewriteReferences>['patches']>,
): Change {
  const patched = patches.get(from);
  const content = {
    kind: 'copy',
    from: { root, path: from },
    expects: { size, modified },
    ...(patched !== undefined && { patches: patched }),
  } as const;
  return { id: from, subject: { kind: 'file' }, group: null, entry: 'file', before: null, after: home(to), content };
}

/** What a project that was only just started holds: what its plan makes. */
export function namesPlanned({ expansion }: ProjectRules, startersCome: boolean): CarryGiven['there'] {
  const names = new Map<string, string[]>();
  for (const { path, made, kind } of expansion.lines) {
    if (!made || path === '' || (kind === 'file' && startersCome)) continue;
    const known = names.get(parentOf(path));
    if (known === undefined) names.set(parentOf(path), [nameOf(path)]);
    else known.push(nameOf(path));
  }
  return (folder) => names.get(folder) ?? [];
}
