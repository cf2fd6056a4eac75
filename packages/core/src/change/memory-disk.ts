/**
 * Disks in memory, which refuse what real ones refuse. Steps replayed on them are the preview, the tests' model, and
 * the proof that undo restores.
 */
import { present, valueAt } from '../element';
import type { Expected, Patch } from './change';
import { patched } from './patches';
import { folderOf, HOME, isBelow, isSamePlace, lastName, type Place, type RootId } from './place';
import type { Port, Reach, Standing } from './port';

interface Entry {
  readonly id: string;
  /** `null` for a file. */
  readonly inside: Map<string, Entry> | null;
  bytes: Uint8Array;
  size: number;
  modified: number;
}

const refused = (code: string, { path }: Place): Error => Object.assign(new Error(`${code}: ${path}`), { code });
const NOTHING = new Uint8Array();

export class MemoryDisk implements Port {
  readonly hasIdentities = true;
  private readonly tops = new Map<RootId, Entry>();
  private made = 0;
  /** Times are counted, not told by a clock: what is replayed twice is the same twice. */
  private clock = 0;

  /** Roots that are one file system have one name. */
  constructor(
    private readonly fileSystems: ReadonlyMap<RootId, string> = new Map([[HOME, '']]),
    private readonly isProving = true,
  ) {
    for (const root of fileSystems.keys()) this.tops.set(root, this.entry(true));
  }

  roots(): RootId[] {
    return [...this.fileSystems.keys()];
  }

  reach(from: RootId, to: RootId): Reach {
    return this.fileSystems.get(from) === this.fileSystems.get(to) ? 'all' : 'nothing';
  }

  provesCopies(): boolean {
    return this.isProving;
  }

  /** Puts something there with the folders that lead to it, as it was found; the identity it has from then on. */
  put(
    place: Place,
    kind: 'folder' | 'file',
    found: { readonly size?: number; readonly modified?: number } = {},
  ): string {
    let at = valueAt(this.tops, place.root);
    const parts = place.path.split('/');
    for (const [i, part] of parts.entries()) {
      const inside = present(at.inside);
      const next = inside.get(part) ?? this.entry(i < parts.length - 1 || kind === 'folder');
      inside.set(part, next);
      at = next;
    }
    at.size = found.size ?? at.size;
    at.modified = found.modified ?? at.modified;
    return at.id;
  }

  look(place: Place): Standing | null {
    const entry = this.find(place);
    return entry === null
      ? null
      : { kind: entry.inside === null ? 'file' : 'folder', size: entry.size, modified: entry.modified, id: entry.id };
  }

  list(place: Place): ReadonlyMap<string, Standing['kind']> | null {
    const inside = this.find(place)?.inside;
    return inside == null
      ? null
      : new Map([...inside].map(([name, entry]) => [name, entry.inside === null ? 'file' : 'folder']));
  }

  make(place: Place): void {
    this.free(place).set(lastName(place), this.entry(true));
  }

  write(place: Place, bytes: Uint8Array): void {
    this.writeFile(place, bytes);
  }

  move(from: Place, to: Place): void {
    const entry = this.find(from);
    if (entry === null) throw refused('ENOENT', from);
    if (isSamePlace(from, to) || isBelow(to, from)) throw refused('EINVAL', to);
    if (this.reach(from.root, to.root) === 'nothing') throw refused('EXDEV', to);
    this.free(to).set(lastName(to), entry);
    this.folder(folderOf(from)).delete(lastName(from));
  }

  copy(from: Place, to: Place, patches: readonly Patch[] = []): Expected {
    const { size, modified } = present(this.look(from));
    if (this.look(to)?.kind === 'file') this.remove(to);
    const copy = this.writeFile(to, patched(this.read(from), patches));
    if (patches.length > 0) return { size, modified };
    copy.size = size;
    copy.modified = modified;
    return { size, modified };
  }

  read(place: Place): Uint8Array {
    const entry = this.find(place);
    if (entry === null || entry.inside !== null) throw refused(entry === null ? 'ENOENT' : 'EISDIR', place);
    return entry.bytes;
  }

  remove(place: Place): void {
    if (this.find(place)?.inside !== null) throw refused('ENOENT', place);
    this.folder(folderOf(place)).delete(lastName(place));
  }

  unmake(place: Place): void {
    const entry = this.find(place);
    if (entry === null || entry.inside === null) throw refused('ENOENT', place);
    if (entry.inside.size > 0) throw refused('ENOTEMPTY', place);
    this.folder(folderOf(place)).delete(lastName(place));
  }

  sync(): void {
    // Memory loses nothing but as a whole.
  }

  /** Where everything stands, by identity. */
  places(): Map<string, Place> {
    return new Map([...this.walk()].map(([place, entry]) => [entry.id, place]));
  }

  /** Every path with what stands there, folders with a `/` behind them; in order, roots but the first by their names. */
  tree(): string[] {
    return [...this.walk()]
      .map(([{ root, path }, entry]) => {
        const at = root === HOME ? path : `${root}:${path}`;
        return entry.inside === null ? `${at} ${entry.size} ${entry.modified} ${entry.bytes.join(',')}` : `${at}/`;
      })
      .sort();
  }

  private *walk(): Generator<[Place, Entry]> {
    const queue: [Place, Entry][] = [...this.tops].flatMap(([root, top]) =>
      [...present(top.inside)].map(([path, entry]): [Place, Entry] => [{ root, path }, entry]),
    );
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      yield at;
      const [{ root, path }, entry] = at;
      for (const [name, inner] of entry.inside ?? []) queue.push([{ root, path: `${path}/${name}` }, inner]);
    }
  }

  private writeFile(place: Place, bytes: Uint8Array): Entry {
    const file = this.entry(false);
    this.free(place).set(lastName(place), file);
    file.bytes = bytes;
    file.size = bytes.length;
    return file;
  }

  private entry(folder: boolean): Entry {
    return {
      id: String(++this.made),
      inside: folder ? new Map() : null,
      bytes: NOTHING,
      size: 0,
      modified: ++this.clock,
    };
  }

  private find({ root, path }: Place): Entry | null {
    let at: Entry | null = this.tops.get(root) ?? null;
    for (const part of path === '' ? [] : path.split('/')) at = at?.inside?.get(part) ?? null;
    return at;
  }

  private folder(place: Place): Map<string, Entry> {
    const entry = this.find(place);
    if (entry === null) throw refused('ENOENT', place);
    if (entry.inside === null) throw refused('ENOTDIR', place);
    return entry.inside;
  }

  /** The folder in which a name is free. */
  private free(place: Place): Map<string, Entry> {
    const inside = this.folder(folderOf(place));
    if (inside.has(lastName(place))) throw refused('EEXIST', place);
    return inside;
  }
}
