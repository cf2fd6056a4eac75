/**
 * A folder that was opened, and stays the folder that was meant whatever becomes of its path: a link that is put in its
 * place leads nowhere, because no path is looked up again.
 *
 * 1. Every folder is opened from the one above it, and never through a link.
 * 2. On Linux a path can begin at an open folder (`/proc/self/fd/N`): each call works from there.
 * 3. Elsewhere the path is used, and after each call `sure` looks whether it still leads to this folder.
 */
import { closeSync, constants, fstatSync, lstatSync, openSync, realpathSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { failed } from './where';

const FOLDER = constants.O_RDONLY | constants.O_DIRECTORY | constants.O_NOFOLLOW;

const startsAtHandles = (): boolean => {
  try {
    const fd = openSync('/', FOLDER);
    try {
      const [direct, through] = [lstatSync('/'), lstatSync(`/proc/self/fd/${fd}/.`)];
      return direct.ino === through.ino && direct.dev === through.dev;
    } finally {
      closeSync(fd);
    }
  } catch {
    return false;
  }
};

let fromHandles = startsAtHandles();

/** For tests: works as on a system whose paths cannot begin at an open folder. */
export const useHandles = (isUsed: boolean): void => {
  fromHandles = isUsed && startsAtHandles();
};

/** A process that does nothing else may stand in the folder it lists: names are then looked at as fast as by paths. */
let mayStand = false;
export const standInFolders = (): void => {
  mayStand = true;
};

let standingIn: Handle | null = null;

/** The folder that was stood in may be gone: no thread is started from there. */
export const standNowhere = (): void => {
  if (standingIn === null) return;
  process.chdir('/');
  standingIn = null;
};

export class Handle {
  private constructor(
    private readonly fd: number | null,
    private readonly path: string,
    /** Device and inode: two handles of one folder have the same. */
    readonly identity: string,
    private readonly above: Handle | null,
  ) {}

  /**
   * Opens a folder of this machine's own configuration, whose path may hold links.
   *
   * @throws with the system's code where there is no such folder
   */
  static base(absolute: string): Handle {
    const real = realpathSync(absolute);
    let at = Handle.opened('/', '/', null);
    for (const part of real.split('/').filter((p) => p !== '')) {
      const next = at.child(part);
      // Where paths are used, what is above is looked at again each time.
      if (fromHandles) at.close();
      at = next;
    }
    return at;
  }

  private static opened(call: string, path: string, above: Handle | null): Handle {
    if (!fromHandles) {
      const stats = lstatSync(call);
      if (!stats.isDirectory()) throw failed('ENOTDIR', path);
      return new Handle(null, path, `${stats.dev}:${stats.ino}`, above);
    }
    const fd = openSync(call, FOLDER);
    const stats = fstatSync(fd);
    return new Handle(fd, `/proc/self/fd/${fd}`, `${stats.dev}:${stats.ino}`, null);
  }

  /** @throws `ELOOP` where it is a link, `ENOTDIR` where it is no folder, `ENOENT` where nothing is */
  child(name: string): Handle {
    const call = this.at(name);
    try {
      const made = Handle.opened(call, call, this);
      made.sure();
      return made;
    } catch (error) {
      if (codeOf(error) === 'ENOTDIR' && lstatSync(call, { throwIfNoEntry: false })?.isSymbolicLink())
        throw failed('ELOOP', name);
      throw error;
    }
  }

  /** Whether it stays this folder whatever becomes of its path. */
  get hasHandle(): boolean {
    return this.fd !== null;
  }

  /** The path of something in it, for one call. */
  at(name: string): string {
    return this.path === '/' ? `/${name}` : `${this.path}/${name}`;
  }

  /** Its own path, for listing it. */
  get self(): string {
    return this.fd === null ? this.path : `${this.path}/.`;
  }

  /** In front of names in it, until another folder is stood in. */
  stand(): string {
    if (!mayStand || this.fd === null) return `${this.path}/`;
    if (standingIn !== this) {
      process.chdir(this.path);
      standingIn = this;
    }
    return '';
  }

  /** When something in it was made, renamed or removed, milliseconds since 1970. */
  modified(): number {
    return (this.fd === null ? lstatSync(this.path) : fstatSync(this.fd)).mtimeMs;
  }

  /** @throws `EMOVED` where its path leads elsewhere by now, on systems where paths are all there is */
  sure(): void {
    if (this.fd !== null) return;
    const stats = lstatSync(this.path, { throwIfNoEntry: false });
    if (stats === undefined || `${stats.dev}:${stats.ino}` !== this.identity) throw failed('EMOVED', this.path);
    this.above?.sure();
  }

  close(): void {
    if (standingIn === this) standNowhere();
    if (this.fd !== null) closeSync(this.fd);
  }
}
