/**
 * A disk in memory, which refuses what a real one refuses. Steps replayed on it are the preview, the tests' model, and
 * the proof that undo restores.
 */
import { present } from '../element';
import { nameOf, parentOf } from '../listing/entry';
import type { Port, Standing } from './port';

interface Entry {
  readonly id: string;
  /** `null` for a file. */
  readonly inside: Map<string, Entry> | null;
  bytes: Uint8Array;
  size: number;
  modified: number;
}

const refused = (code: string, path: string): Error => Object.assign(new Error(`${code}: ${path}`), { code });
const NOTHING = new Uint8Array();

export class MemoryDisk implements Port {
  private readonly top: Entry = { id: '0', inside: new Map(), bytes: NOTHING, size: 0, modified: 0 };
  private made = 0;
  /** Times are counted, not told by a clock: what is replayed twice is the same twice. */
  private clock = 0;

  /** Puts something there with the folders that lead to it, as it was found; the identity it has from then on. */
  put(
    path: string,
    kind: 'folder' | 'file',
    found: { readonly size?: number; readonly modified?: number } = {},
  ): string {
    let at = this.top;
    const parts = path.split('/');
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

  look(path: string): Standing | null {
    const entry = this.find(path);
    return entry === null
      ? null
      : { kind: entry.inside === null ? 'file' : 'folder', size: entry.size, modified: entry.modified, id: entry.id };
  }

  list(path: string): ReadonlyMap<string, Standing['kind']> | null {
    const inside = this.find(path)?.inside;
    return inside == null
      ? null
      : new Map([...inside].map(([name, entry]) => [name, entry.inside === null ? 'file' : 'folder']));
  }

  make(path: string): void {
    this.free(path).set(nameOf(path), this.entry(true));
  }

  write(path: string, bytes: Uint8Array): void {
    const file = this.entry(false);
    this.free(path).set(nameOf(path), file);
    file.bytes = bytes;
    file.size = bytes.length;
  }

  move(from: string, to: string): void {
    const entry = this.find(from);
    if (entry === null) throw refused('ENOENT', from);
    if (`${to}/`.startsWith(`${from}/`)) throw refused('EINVAL', to);
    this.free(to).set(nameOf(to), entry);
    this.folder(parentOf(from)).delete(nameOf(from));
  }

  copy(from: string, to: string): void {
    this.write(to, this.read(from));
  }

  read(path: string): Uint8Array {
    const entry = this.find(path);
    if (entry === null || entry.inside !== null) throw refused(entry === null ? 'ENOENT' : 'EISDIR', path);
    return entry.bytes;
  }

  unwrite(path: string): void {
    if (this.find(path)?.inside !== null) throw refused('ENOENT', path);
    this.folder(parentOf(path)).delete(nameOf(path));
  }

  unmake(path: string): void {
    const entry = this.find(path);
    if (entry === null || entry.inside === null) throw refused('ENOENT', path);
    if (entry.inside.size > 0) throw refused('ENOTEMPTY', path);
    this.folder(parentOf(path)).delete(nameOf(path));
  }

  /** Where everything stands, by identity. */
  places(): Map<string, string> {
    return new Map([...this.walk()].map(([path, entry]) => [entry.id, path]));
  }

  /** Every path with what stands there, folders with a `/` behind them; in order. */
  tree(): string[] {
    return [...this.walk()]
      .map(([path, entry]) =>
        entry.inside === null ? `${path} ${entry.size} ${entry.modified} ${entry.bytes.join(',')}` : `${path}/`,
      )
      .sort();
  }

  private *walk(): Generator<[string, Entry]> {
    const queue: [string, Entry][] = [...present(this.top.inside)];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      yield at;
      const [path, entry] = at;
      for (const [name, inner] of entry.inside ?? []) queue.push([`${path}/${name}`, inner]);
    }
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

  private find(path: string): Entry | null {
    let at: Entry | null = this.top;
    for (const part of path === '' ? [] : path.split('/')) at = at?.inside?.get(part) ?? null;
    return at;
  }

  private folder(path: string): Map<string, Entry> {
    const entry = this.find(path);
    if (entry === null) throw refused('ENOENT', path);
    if (entry.inside === null) throw refused('ENOTDIR', path);
    return entry.inside;
  }

  /** The folder in which a name is free. */
  private free(path: string): Map<string, Entry> {
    const inside = this.folder(parentOf(path));
    if (inside.has(nameOf(path))) throw refused('EEXIST', path);
    return inside;
  }
}
