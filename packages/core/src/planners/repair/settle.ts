/**
 * Acts that were chosen → changes of the disk, with what stands in each other's way.
 *
 * 1. Folders that go to where one is already are put together, entry by entry.
 * 2. Versions that what comes supersedes go to the folder for older ones; side files go with their documents.
 * 3. Where everything would be afterwards is laid out; two that want one place, and one that wants a place somebody
 *    keeps, both stay. That is repeated until nothing is in anything's way.
 * 4. Folders that something goes into are made.
 */
import type { Change } from '../../change/change';
import { home, type Place } from '../../change/place';
import { chainKey } from '../../check/items';
import { grouped } from '../../grouped';
import { type FileEntry, type FolderListing, join, nameOf, parentOf } from '../../listing/entry';
import { readName } from '../../name/read/read';
import { versionRank } from '../../name/versions';
import { clashKey } from '../../portable/name';
import type { ProjectRules } from '../../project/rules';
import { Moves } from '../../references/moves';
import type { PlannedLine } from '../../template/expansion';
import { starterEntries } from '../start';
import { type Act, fileIn, type Neighbour, type ProjectView } from './option';
import { Sendings } from './sendings';

/** What one finding is put right by. */
export interface Chosen {
  readonly id: string;
  readonly acts: readonly Act[];
}

export interface Clash {
  /** The place that is wanted. */
  readonly at: string;
  /** The finding that wants it too; `null` where something lies there. */
  readonly other: string | null;
}

export interface Settled {
  readonly changes: readonly Change[];
  readonly clashes: ReadonlyMap<string, Clash>;
  /** Where all is afterwards, for what refers to it. */
  readonly moves: Moves;
  /** What leaves for other projects, to its whole place there. */
  readonly sent: Moves;
  readonly pointed: ReadonlyMap<string, ReadonlyMap<string, string>>;
}

export interface SettlePlace {
  readonly rules: ProjectRules;
  readonly view: ProjectView;
  readonly neighbours: readonly Neighbour[];
}

/** Lines in each other's way come to light a few at a time; that many rounds nobody ever saw. */
const MOST_ROUNDS = 50;

export function settleActs(place: SettlePlace, chosen: readonly Chosen[]): Settled {
  const clashes = new Map<string, Clash>();
  let open = chosen;
  for (let round = 0; ; round++) {
    const layout = new Layout(place, open);
    const found = layout.clashes();
    if (found.size === 0 || round === MOST_ROUNDS) return { ...layout.settled(), clashes };
    for (const [id, clash] of found) if (!clashes.has(id)) clashes.set(id, clash);
    open = open.filter(({ id }) => !clashes.has(id));
  }
}

interface Going {
  readonly id: string;
  readonly to: string;
  readonly file: FileEntry | null;
}

interface Coming extends Going {
  readonly from: string;
}

interface Aside {
  readonly id: string;
  readonly file: FileEntry | null;
  readonly instead: string | undefined;
}

class Layout {
  private readonly files = new Map<string, Going>();
  private readonly folders = new Map<string, Going>();
  private readonly asides = new Map<string, Aside>();
  private readonly made = new Map<string, { readonly id: string; readonly line: PlannedLine | null }>();
  private readonly written = new Map<string, { readonly id: string; readonly text: string }>();
  private readonly pointed = new Map<string, Map<string, string>>();
  private readonly folderMoves: Moves;
  private readonly cameFrom: ReadonlyMap<string, string>;
  private readonly found = new Map<string, Clash>();

  private readonly rules: ProjectRules;
  private readonly view: ProjectView;
  private readonly sendings: Sendings;

  constructor({ rules, view, neighbours }: SettlePlace, chosen: readonly Chosen[]) {
    this.rules = rules;
    this.view = view;
    this.sendings = new Sendings(neighbours);
    const each = (act: Act['do'], entry?: 'folder' | 'file') =>
      chosen.flatMap(({ id, acts }) =>
        acts.flatMap((a) => (a.do === act && (a.do !== 'move' || a.entry === entry) ? [{ id, act: a }] : [])),
      );
    for (const { id, act } of each('set-aside')) if (act.do === 'set-aside') this.aside(id, act.from, act.instead);
    for (const { id, act } of each('move', 'folder')) if (act.do === 'move') this.folder(id, act.from, act.to);
    this.folderMoves = new Moves(new Map(), targets(this.folders));
    this.cameFrom = new Map([...this.folders].map(([from, { to }]) => [to, from]));
    for (const { id, act } of each('send')) if (act.do === 'send') this.send(id, act.from, act.to);
    for (const { id, act } of each('move', 'file')) if (act.do === 'move') this.file(id, act.from, act.to);
    this.supersede();
    const coming = grouped([...this.files], ([, { to }]) => parentOf(to));
    for (const [from, going] of [...this.files]) {
      this.companions(from, going, coming);
      this.parts(from, going);
    }
    for (const { id, act } of each('make')) if (act.do === 'make') this.make(id, act.line);
    for (const { id, act } of each('write')) if (act.do === 'write') this.written.set(act.to, { id, text: act.text });
    for (const { act } of each('point')) if (act.do === 'point') this.point(act.document, act.target, act.to);
  }

  clashes(): ReadonlyMap<string, Clash> {
    const ends = new Map<string, string>();
    const end = (id: string, path: string) => {
      const key = clashKey(path);
      const other = ends.get(key);
      if (other !== undefined && other !== id) {
        this.clash(id, path, other);
        this.clash(other, path, id);
      } else if (other === id) this.clash(id, path, null);
      ends.set(key, id);
    };
    for (const going of [...this.files.values(), ...this.folders.values()]) end(going.id, going.to);
    for (const [path, { id }] of this.written) end(id, path);
    for (const [path, { id }] of this.made) if (!ends.has(clashKey(path))) end(id, path);
    for (const [from, going] of [...this.files, ...this.folders]) this.taken(going.id, going.to, from);
    for (const [path, { id }] of this.written) this.taken(id, path, null);
    this.sendings.clashes((id, at, other) => this.clash(id, at, other));
    return this.found;
  }

  settled(): Omit<Settled, 'clashes'> {
    for (const [path, { id }] of [...this.made]) this.need(id, parentOf(path));
    for (const { id, to } of [...this.files.values(), ...this.folders.values()]) this.need(id, parentOf(to));
    for (const [path, { id }] of this.written) this.need(id, parentOf(path));
    const led = new Map(targets(this.files, (file) => !file?.isFolder));
    const folders = new Map([...targets(this.folders), ...targets(this.files, (file) => file?.isFolder === true)]);
    for (const [from, { instead }] of this.asides)
      if (instead !== undefined) led.set(from, led.get(instead) ?? this.folderMoves.of(instead));
    return {
      changes: this.changes(),
      moves: new Moves(led, folders),
      sent: this.sendings.moves(),
      pointed: this.pointed,
    };
  }

  private clash(id: string, at: string, other: string | null): void {
    if (!this.found.has(id)) this.found.set(id, { at, other });
  }

  private kindAt(path: string): 'folder' | 'file' | null {
    if (path === '') return 'folder';
    const listing = this.view.list(parentOf(path));
    const name = nameOf(path);
    if (listing?.folders.includes(name)) return 'folder';
    return fileIn(listing, name) !== null || listing?.others.includes(name) ? 'file' : null;
  }

  private fileAt(path: string): FileEntry | null {
    return fileIn(this.view.list(parentOf(path)), nameOf(path));
  }

  private aside(id: string, from: string, instead: string | undefined): void {
    this.asides.set(from, { id, file: this.fileAt(from), instead });
  }

  private folder(id: string, from: string, to: string): void {
    if (this.kindAt(to) !== 'folder') this.folders.set(from, { id, to, file: null });
    else this.merge(id, from, to);
  }

  /** Put together with one that is there; what is left of it is empty, and goes. */
  private merge(id: string, from: string, into: string): void {
    const listing = this.view.list(from);
    for (const name of listing?.folders ?? []) this.folder(id, join(from, name), join(into, name));
    for (const file of listing?.files ?? [])
      this.files.set(join(from, file.name), { id, to: join(into, file.name), file });
    if (listing === null || listing.others.length > 0) this.clash(id, from, null);
    this.aside(id, from, undefined);
  }

  private file(id: string, from: string, to: string): void {
    if (this.isGoing(from)) return;
    const isInPlace = parentOf(from) === parentOf(to);
    const place = isInPlace ? join(this.folderMoves.of(parentOf(from)), nameOf(to)) : to;
    this.files.set(from, { id, to: place, file: this.fileAt(from) });
  }

  /** A file that leaves its place, or is kept with the batch. */
  private isGoing(path: string): boolean {
    return this.files.has(path) || this.asides.has(path) || this.sendings.has(path);
  }

  /** Its side files go with it to the other project. */
  private send(id: string, from: string, to: Place): void {
    if (this.isGoing(from)) return;
    this.sendings.add(from, { id, to, file: this.fileAt(from) });
    const family = this.rules.familyOf(nameOf(from));
    if (family === null || !this.rules.hasCompanions(family)) return;
    const [stem, after] = [stemOf(nameOf(from)), stemOf(nameOf(to.path))];
    for (const side of this.sidesIn(parentOf(from))) {
      const path = join(parentOf(from), side.name);
      if (this.isGoing(path) || !this.isSideOf(side.name, stem, family)) continue;
      const place = { ...to, path: join(parentOf(to.path), `${after}${side.name.slice(stem.length)}`) };
      this.sendings.add(path, { id, to: place, file: side });
    }
  }

  /** Side files carry their document's name, and lie beside it. */
  private companions(
    from: string,
    { id, to }: Going,
    coming: ReadonlyMap<string, readonly (readonly [string, Going])[]>,
  ): void {
    const { rules } = this;
    const family = rules.familyOf(nameOf(from));
    if (family === null || !rules.hasCompanions(family)) return;
    const [stem, after] = [stemOf(nameOf(from)), stemOf(nameOf(to))];
    const withDocument = (name: string) => join(parentOf(to), `${after}${name.slice(stem.length)}`);
    for (const [path, going] of coming.get(parentOf(from)) ?? [])
      if (this.files.get(path) === going && this.isSideOf(nameOf(going.to), stem, family))
        this.files.set(path, { ...going, to: withDocument(nameOf(going.to)) });
    for (const side of this.sidesIn(parentOf(from))) {
      const path = join(parentOf(from), side.name);
      if (this.isGoing(path) || !this.isSideOf(side.name, stem, family)) continue;
      this.files.set(path, { id, to: withDocument(side.name), file: side });
    }
  }

  /** What belongs to a document of its name goes where it goes, and is called as it is. */
  private parts(from: string, { id, to }: Going): void {
    const { documents } = this.rules;
    const listing = this.view.list(parentOf(from));
    for (const part of (listing && documents.partsIn(listing).get(nameOf(from))) ?? []) {
      const path = join(parentOf(from), part.file.name);
      if (this.isGoing(path)) continue;
      const name = documents.renamedPart(part, nameOf(from), nameOf(to));
      this.files.set(path, { id, to: join(parentOf(to), name), file: part.file });
    }
  }

  private readonly sides = new Map<string, readonly FileEntry[]>();

  /** Side files of a folder, whosever they are: few, where documents may be many. */
  private sidesIn(folder: string): readonly FileEntry[] {
    const known = this.sides.get(folder);
    if (known !== undefined) return known;
    const files = this.view.list(folder)?.files.filter((f) => this.rules.companionOf(f.name).length > 0) ?? [];
    this.sides.set(folder, files);
    return files;
  }

  private isSideOf(name: string, stem: string, family: string): boolean {
    return name.startsWith(`${stem}.`) && this.rules.companionOf(name).includes(family);
  }

  /** What comes to a folder that keeps older versions apart leaves one version of its chain on top there. */
  private supersede(): void {
    const coming = grouped([...this.files], ([, { to }]) => parentOf(to));
    for (const [folder, arrivals] of coming) {
      const line = this.rules.planned(folder);
      const older = line?.folder?.older?.folder;
      if (line === undefined || older === undefined) continue;
      const chains = new Set(arrivals.flatMap(([, { to }]) => this.versionOf(line, nameOf(to))?.chain ?? []));
      for (const superseded of this.superseded(line, folder, arrivals, chains)) {
        const to = join(join(folder, older), nameOf(superseded.to));
        const isTaken = this.kindAt(to) !== null;
        if (!isTaken) this.files.set(superseded.from, { ...superseded, to });
        // What comes is older than what is on top, and lies with the older ones already.
        else if (arrivals.some(([from]) => from === superseded.from)) this.clash(superseded.id, to, null);
      }
    }
  }

  private superseded(
    line: PlannedLine,
    folder: string,
    arrivals: readonly (readonly [string, Going])[],
    chains: ReadonlySet<string>,
  ): readonly Coming[] {
    const before = this.before(folder);
    const staying = (before === null ? null : this.view.list(before))?.files ?? [];
    const onTop = [
      ...arrivals.map(([from, going]): Coming => ({ ...going, from })),
      ...staying.flatMap((file): Coming[] => {
        const from = join(before ?? folder, file.name);
        const isGoing = this.isGoing(from) || this.rules.isSettling(file.modified);
        return isGoing ? [] : [{ id: '', from, to: join(folder, file.name), file }];
      }),
    ];
    const read = onTop.flatMap((one) => {
      const version = this.versionOf(line, nameOf(one.to));
      return version === null || !chains.has(version.chain) ? [] : [{ ...one, ...version }];
    });
    return [...grouped(read, (r) => r.chain).values()].flatMap((chain) => {
      const latest = Math.max(...chain.map((r) => r.version));
      // Whoever brought the newer version is why the older one goes.
      const id = chain.find((r) => r.version === latest)?.id || chain.find((r) => r.id !== '')?.id || '';
      return chain.flatMap((r) =>
        r.version < latest ? [{ id: r.id || id, from: r.from, to: r.to, file: r.file }] : [],
      );
    });
  }

  private versionOf(line: PlannedLine, name: string): { readonly chain: string; readonly version: number } | null {
    for (const by of this.rules.conventionsFor(line, name)) {
      const reading = readName(by.strict, name, by.bound);
      if (reading?.version !== undefined && reading.frame === undefined)
        return { chain: chainKey(by, reading), version: versionRank(by.strict, reading) };
    }
    return null;
  }

  private make(id: string, line: PlannedLine): void {
    if (this.kindAt(line.path) === null && !this.made.has(line.path)) this.made.set(line.path, { id, line });
  }

  private point(document: string, target: string, to: string): void {
    const known = this.pointed.get(document) ?? new Map<string, string>();
    this.pointed.set(document, known.set(target, to));
  }

  /** The place before of a folder that is there afterwards; `null` where none is. */
  private before(folder: string): string | null {
    for (let at = folder; at !== ''; at = parentOf(at)) {
      const from = this.cameFrom.get(at);
      if (from !== undefined) return `${from}${folder.slice(at.length)}`;
    }
    return this.folderMoves.of(folder) === folder ? folder : null;
  }

  private taken(id: string, path: string, from: string | null): void {
    const folder = this.before(parentOf(path));
    const listing = folder === null ? null : this.view.list(folder);
    if (folder === null) return;
    if (listing === null && this.isBlocked(folder)) this.clash(id, path, null);
    if (listing === null) return;
    const key = clashKey(nameOf(path));
    for (const name of this.namesIn(folder, listing).get(key) ?? []) {
      const there = join(folder, name);
      if (there !== from && !this.isGoing(there) && !this.folders.has(there)) this.clash(id, path, null);
    }
  }

  /** A file that stays stands where a folder is needed. */
  private isBlocked(folder: string): boolean {
    for (let at = folder; at !== ''; at = parentOf(at)) {
      const kind = this.kindAt(at);
      if (kind !== null) return kind === 'file' && !this.isGoing(at);
    }
    return false;
  }

  private readonly names = new Map<string, ReadonlyMap<string, readonly string[]>>();

  private namesIn(folder: string, { folders, files, others }: FolderListing): ReadonlyMap<string, readonly string[]> {
    const known = this.names.get(folder);
    if (known !== undefined) return known;
    const made = new Map<string, string[]>();
    for (const name of [...folders, ...files.map((f) => f.name), ...others])
      made.set(clashKey(name), [...(made.get(clashKey(name)) ?? []), name]);
    this.names.set(folder, made);
    return made;
  }

  /** Every folder on the way to a place is there, comes there, or is made. */
  private need(id: string, folder: string): void {
    for (let at = folder; at !== ''; at = parentOf(at)) {
      if (this.made.has(at)) continue;
      const before = this.before(at);
      if (before !== null && this.kindAt(before) === 'folder' && !this.asides.has(before)) return;
      const line = this.rules.planned(at);
      this.made.set(at, { id, line: line?.kind === 'folder' ? line : null });
    }
  }

  private changes(): Change[] {
    const out: Change[] = [];
    const counts = new Map<string, number>();
    const same = (finding: string) => {
      const n = counts.get(finding) ?? 0;
      counts.set(finding, n + 1);
      return { id: `${finding}.${n}`, subject: { kind: 'finding', finding }, group: finding, content: null } as const;
    };
    const expects = (file: FileEntry | null) =>
      file === null || file.isFolder ? {} : { expects: { size: file.size, modified: file.modified } };
    for (const [path, { id, line }] of this.made) {
      const made =
        line?.starter == null
          ? [{ at: path, entry: line?.kind ?? 'folder', content: null }]
          : starterEntries(line.starter, path);
      for (const { at, ...entry } of made) out.push({ ...same(id), ...entry, before: null, after: home(at) });
    }
    for (const [from, { id, to }] of this.folders)
      out.push({ ...same(id), entry: 'folder', before: home(from), after: home(to) });
    for (const [from, { id, to, file }] of this.files)
      out.push({ ...same(id), entry: entryOf(file), before: home(from), after: home(to), ...expects(file) });
    for (const [from, { id, file }] of this.asides)
      out.push(
        file === null || file.isFolder
          ? { ...same(id), entry: 'folder', before: home(from), after: null, isWhole: true }
          : { ...same(id), entry: 'file', before: home(from), after: null, ...expects(file) },
      );
    for (const [path, { id, text }] of this.written)
      out.push({ ...same(id), entry: 'file', before: null, after: home(path), content: { kind: 'text', text } });
    return [...out, ...this.sendings.changes(same)];
  }
}

const entryOf = (file: FileEntry | null): 'folder' | 'file' => (file?.isFolder ? 'folder' : 'file');

const targets = (
  going: ReadonlyMap<string, Going>,
  wanted: (file: FileEntry | null) => boolean = () => true,
): ReadonlyMap<string, string> =>
  new Map([...going].flatMap(([from, { to, file }]) => (wanted(file) ? [[from, to]] : [])));

const stemOf = (name: string): string => (name.lastIndexOf('.') < 1 ? name : name.slice(0, name.lastIndexOf('.')));
