/** Where each file lies in the new project, and what it is called there. */
import { grouped } from '../../grouped';
import { join, nameOf, parentOf, partsOf } from '../../listing/entry';
import { clashKey } from '../../portable/name';
import type { PlannedLine } from '../../template/expansion';
import { Landing } from '../landing';
import { type CarriedFolder, type CarryGiven, type CarryItem, isBrought } from './given';
import type { NamedBy, NewNames, VersionPlace } from './names';
import { fileName, folderOf, type Source, type SourceFile } from './source';

export class Placing {
  private readonly byKey: ReadonlyMap<string, string>;
  private readonly folders = new Map<string, string>();
  /** Folders of one name but for its capitals are one: as the first of them is written. */
  private readonly spelt = new Map<string, string>();
  private readonly ranks: ReadonlyMap<string, VersionPlace>;
  private readonly landing: Landing;

  constructor(
    private readonly given: CarryGiven,
    private readonly names: NewNames,
    private readonly read: Source,
  ) {
    this.landing = new Landing(given.target, given.there);
    this.byKey = pathsByKey(given);
    for (const { kind, path } of given.target.expansion.lines)
      if (kind === 'folder') this.spelt.set(clashKey(path), path);
    this.ranks = given.way.version === 'keep' ? new Map() : ranksOf(read.files.filter((file) => file.comes));
  }

  items(): CarryItem[] {
    const placed = this.read.files.map((file) => {
      const { to, name, by } = this.placeOf(file);
      return { file, to, name, by, key: file.comes ? clashKey(to) : '' };
    });
    const coming = placed.filter(({ file }) => file.comes);
    const wanted = new Map<string, number>();
    for (const { key } of coming) wanted.set(key, (wanted.get(key) ?? 0) + 1);
    // A folder may want the place of a file too.
    const made = this.read.folders.filter(({ node, comes }) => node === null && comes !== 'nothing');
    const into = new Set([...made.map(({ path }) => this.folder(path)), ...coming.map(({ to }) => parentOf(to))]);
    const folders = new Set([...into].map(clashKey));
    return placed.map(({ file, to, name, by, key }) => ({
      from: file.path,
      to,
      size: file.file.size,
      modified: file.file.modified,
      family: this.given.source.familyOf(fileName(file)),
      by,
      run: file.run,
      comes: file.comes,
      fault: file.comes ? this.landing.faultOf(parentOf(to), name) : null,
      clash: file.comes && ((wanted.get(key) ?? 0) > 1 || folders.has(key) || this.landing.isTaken(to)),
    }));
  }

  /** Each folder of the source, with what comes of it. */
  foldersOf(items: readonly CarryItem[]): CarriedFolder[] {
    const inside = grouped(items, ({ from }) => parentOf(from));
    const isCurrent = new Set(this.read.files.filter((file) => file.isCurrent).map(({ path }) => path));
    return this.read.folders.map((folder) => {
      const files = inside.get(folder.path) ?? [];
      const coming = files.filter(isBrought);
      return {
        ...folder,
        to: this.folder(folder.path),
        files: files.length,
        current: files.filter(({ from }) => isCurrent.has(from)).length,
        coming: coming.length,
        bytes: coming.reduce((sum, { size }) => sum + size, 0),
      };
    });
  }

  /** As it was said by hand, else by its meaning. */
  private placeOf(file: SourceFile): Placed {
    const place = this.placeByMeaning(file);
    const said = this.given.picked[file.path];
    if (said?.name === undefined && said?.folder === undefined) return place;
    const name = said.name ?? place.name;
    const folder = said.folder === undefined ? parentOf(place.to) : partsOf(said.folder).join('/');
    return { to: join(folder, name), name, by: 'hand' };
  }

  private placeByMeaning(file: SourceFile): Placed {
    const own = file.starter === null ? undefined : this.byKey.get(file.starter.key);
    if (own !== undefined)
      return { to: own, name: nameOf(own), by: nameOf(own) === fileName(file) ? 'same' : 'meaning' };
    const folder = this.folder(folderOf(file));
    const line =
      file.line === null ? null : (this.given.target.planned(this.byKey.get(file.line.key) ?? folder) ?? null);
    if (this.isInDocument(file.path)) return { to: join(folder, fileName(file)), name: fileName(file), by: 'same' };
    const { name, by } = this.names.of(file, line, this.ranks.get(file.path) ?? ALONE);
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
}

interface Placed {
  readonly to: string;
  readonly name: string;
  readonly by: NamedBy;
}

/** Where each line of the source's plan lies in the new one: of a revision, under its new entry. */
function pathsByKey({ source, target, revision }: CarryGiven): ReadonlyMap<string, string> {
  const after = new Map(target.expansion.lines.map((line) => [line.key, line.path]));
  if (revision === null) return after;
  const { as, was, now } = revision;
  const meantBy = (node: string, entries: PlannedLine['entries']) => JSON.stringify([node, Object.entries(entries)]);
  const byMeaning = new Map(target.expansion.lines.map((line) => [meantBy(line.node, line.entries), line.path]));
  for (const { key, node, entries } of source.expansion.lines) {
    const there = entries[as] === was ? byMeaning.get(meantBy(node, { ...entries, [as]: now })) : undefined;
    if (there !== undefined) after.set(key, there);
  }
  return after;
}

/** Versions of one work that come along, counted from 1 in their order. */
function ranksOf(files: readonly SourceFile[]): ReadonlyMap<string, VersionPlace> {
  const works = grouped(
    files.filter((file) => file.work !== null),
    (file) => `${file.line?.key ?? ''} ${file.work}`,
  );
  const out = new Map<string, VersionPlace>();
  for (const work of works.values()) {
    const versions = [...new Set(work.map(versionText))].sort((a, b) => a.length - b.length || (a < b ? -1 : 1));
    const ranks = new Map(versions.map((version, i) => [version, i + 1]));
    const states = new Set(work.map((file) => `${versionText(file)} ${stateText(file)}`));
    for (const file of work)
      out.set(file.path, { rank: ranks.get(versionText(file)) ?? 1, isAlone: states.size === 1 });
  }
  return out;
}

const ALONE: VersionPlace = { rank: 1, isAlone: true };

const stateText = ({ by, reading }: SourceFile): string =>
  by?.strict.states == null ? '' : String(reading?.[by.strict.states.field] ?? '');

const versionText = ({ reading }: SourceFile): string => String(reading?.version ?? '');
