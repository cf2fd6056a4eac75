/** Where everything of a project is once its files and folders have moved. Paths are from the project's root. */
import { grouped } from '../grouped';
import { join, nameOf, parentOf } from '../listing/entry';
import { FRAMES } from './target';

/** A frame's number, right before the extension. */
const NUMBER = /(\d+)(\.[A-Za-z0-9]+)$/;

export class Moves {
  private byFolder: ReadonlyMap<string, readonly string[]> | null = null;

  /** Each from its path before to its path after; of a moved folder what is in it goes along. */
  constructor(
    private readonly files: ReadonlyMap<string, string>,
    private readonly folders: ReadonlyMap<string, string>,
  ) {}

  get isEmpty(): boolean {
    return this.files.size === 0 && this.folders.size === 0;
  }

  of(path: string): string {
    const own = this.files.get(path);
    if (own !== undefined || this.folders.size === 0) return own ?? path;
    for (let at = path; at !== ''; at = parentOf(at)) {
      const folder = this.folders.get(at);
      if (folder !== undefined) return `${folder}${path.slice(at.length)}`;
    }
    return path;
  }

  /** Whether some file right in this folder gets another name, or leaves it. */
  touchesFilesIn(folder: string): boolean {
    return this.filesIn(folder).some((path) => this.files.get(path) !== join(this.of(folder), nameOf(path)));
  }

  /**
   * Where a path that means every frame of a sequence leads afterwards; `null` where its frames do not stay one
   * sequence.
   */
  ofFrames(path: string): string | null {
    const [folder, name] = [parentOf(path), nameOf(path)];
    const mark = FRAMES.exec(name);
    // A file may be called so itself.
    if (mark === null || this.files.has(path)) return this.of(path);
    const [head, tail] = [name.slice(0, mark.index), name.slice(mark.index + mark[0].length)];
    const frames = this.filesIn(folder).filter((file) => isFrame(nameOf(file), head, tail));
    if (frames.length === 0) return join(this.of(folder), name);
    const after = new Set<string>();
    for (const frame of frames) {
      const to = this.of(frame);
      const number = NUMBER.exec(nameOf(to));
      const digits = nameOf(frame).slice(head.length, nameOf(frame).length - tail.length);
      if (number === null || Number(number[1]) !== Number(digits)) return null;
      const newHead = nameOf(to).slice(0, number.index);
      after.add(join(parentOf(to), `${newHead}${markOf(mark[0], number[1] ?? '')}${number[2]}`));
      if (after.size > 1) return null;
    }
    return [...after][0] ?? null;
  }

  private filesIn(folder: string): readonly string[] {
    this.byFolder ??= grouped(this.files.keys(), parentOf);
    return this.byFolder.get(folder) ?? [];
  }
}

const isFrame = (name: string, head: string, tail: string): boolean =>
  name.length > head.length + tail.length &&
  name.startsWith(head) &&
  name.endsWith(tail) &&
  /^\d+$/.test(name.slice(head.length, name.length - tail.length));

/** The place of a number, written as it was, for numbers of this many digits. */
function markOf(mark: string, digits: string): string {
  if (mark.startsWith('#')) return '#'.repeat(digits.length);
  return /^%0\d+d$/.test(mark) ? `%0${digits.length}d` : mark;
}
