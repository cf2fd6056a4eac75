/** A folder that is worked in, and the folders in it that were opened on the way. */
import { codeOf } from '@nesting/core/change';
import { join, nameOf, parentOf, relPathOf } from '@nesting/core/listing';
import { Handle } from './handle';
import { failed, Unreachable, type UnreachableCode, type Where } from './where';

/** Folders that are kept open: walks and batches go from a folder to its neighbours. */
const KEPT_OPEN = 256;

const UNREACHABLE: Readonly<Record<string, UnreachableCode>> = { ELOOP: 'path-link', EREFUSED: 'path-refused' };

export class Root {
  /** By path, the last used at the end. */
  private readonly open = new Map<string, Handle>();

  /** The one asked for last: most calls ask for it again. */
  private lastPath = '';
  private last: Handle | null = null;

  private constructor(
    private place: Where,
    private top: Handle,
  ) {}

  get where(): Where {
    return this.place;
  }

  /** @throws Unreachable */
  static open(where: Where): Root {
    let base: Handle;
    try {
      base = Handle.base(where.base);
    } catch (error) {
      throw new Unreachable('root-missing', where.base, codeOf(error));
    }
    const volume = new Root({ base: where.base, folder: '' }, base);
    if (where.folder === '') return volume;
    try {
      return volume.sub(where.folder);
    } finally {
      volume.close();
    }
  }

  /** A folder in it, as one that is worked in. @throws Unreachable */
  sub(path: string): Root {
    try {
      return new Root(below(this.where, path), this.opened(path));
    } catch (error) {
      const code = codeOf(error);
      throw new Unreachable(UNREACHABLE[code] ?? 'path-missing', path, code);
    }
  }

  /** Of the folder itself: device and inode. */
  get identity(): string {
    return this.top.identity;
  }

  /** The folder at a path. It may be closed again once 256 others were asked for. */
  folder(path: string): Handle {
    if (path === '') return this.top;
    if (path === this.lastPath && this.last !== null) return this.last;
    const known = this.open.get(path);
    if (known === undefined) return this.kept(path, this.opened(path));
    this.open.delete(path);
    this.open.set(path, known);
    this.lastPath = path;
    this.last = known;
    return known;
  }

  /** The path of an entry for one call of the system, by the folder it is in. */
  at(path: string): string {
    // The folder's own path was looked at when it was opened.
    const name = nameOf(path);
    if (name === '' || name === '.' || name === '..' || name.includes('\0')) throw failed('EREFUSED', path);
    return this.folder(parentOf(path)).at(name);
  }

  /** After a call: on systems without handles, whether the entry's folder is still the one that was meant. */
  sure(path: string): void {
    if (!this.top.hasHandle) this.folder(parentOf(path)).sure();
  }

  /** After folders were moved or removed here, their paths mean others. */
  forget(): void {
    for (const handle of this.open.values()) handle.close();
    this.open.clear();
    this.last = null;
  }

  /** After a folder took another place in a root: on systems without handles this one is found by its path alone. */
  follow(root: Root, from: string, to: string): void {
    if (this.top.hasHandle) return;
    const was = below(root.where, from);
    if (this.where.base !== was.base || this.where.folder !== was.folder) return;
    this.forget();
    this.top.close();
    this.top = root.opened(to);
    this.place = below(root.where, to);
  }

  close(): void {
    this.forget();
    this.top.close();
  }

  /** Those on the way are closed: so the two folders that one call needs are never closed by it. */
  private opened(path: string): Handle {
    if (!relPathOf(path).ok) throw failed('EREFUSED', path);
    let known = parentOf(path);
    while (known !== '' && !this.open.has(known)) known = parentOf(known);
    let at = this.open.get(known) ?? this.top;
    let isKept = true;
    for (const part of path.slice(known === '' ? 0 : known.length + 1).split('/')) {
      const above = at;
      try {
        at = above.child(part);
      } finally {
        if (!isKept) above.close();
      }
      isKept = false;
    }
    return at;
  }

  private kept(path: string, handle: Handle): Handle {
    this.open.set(path, handle);
    const [oldest] = this.open;
    if (this.open.size > KEPT_OPEN && oldest !== undefined) {
      this.open.delete(oldest[0]);
      oldest[1].close();
      if (this.last === oldest[1]) this.last = null;
    }
    return handle;
  }
}

/** A folder in another, as a place of its own. */
const below = ({ base, folder }: Where, path: string): Where => ({
  base,
  folder: path === '' ? folder : join(folder, path),
});
