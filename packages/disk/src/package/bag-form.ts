/** A package as a bag that is a folder: files copied and proved one by one. */
import { join, parentOf } from '@nesting/core/listing';
import type { PackedFile } from '@nesting/core/report';
import { copyFile } from '../roots/copy-file';
import { makeFolders, remove, writeWhole } from '../roots/own-files';
import { hashPastCache } from '../roots/past-cache';
import { isStill, type PlainFile, readText } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import { failed } from '../roots/where';
import { type Form, type Made, PART, type PackedLine, type RecordFile, type ToPack } from './form';
import { recordOf, sha256Of } from './record';

export class BagForm implements Form {
  readonly kept: readonly PackedLine[];
  private readonly top: string;
  private readonly made = new Set<string>();

  constructor(
    private readonly task: ToPack,
    before: readonly PackedLine[],
    private readonly tick: () => void,
  ) {
    this.top = `${task.name}${PART}`;
    makeFolders(task.target, join(this.top, 'data'));
    this.kept = before.filter(({ path, size }) => {
      const there = standingAt(task.target, this.placeOf(path));
      return there?.kind === 'file' && there.size === size;
    });
  }

  add(path: string, place: string, file: PlainFile): PackedLine {
    const { target, source } = this.task;
    const to = join(this.top, place);
    this.makeFolder(parentOf(to));
    const { size, modified, sha256 } = copyFile(
      { root: source.rootOf(path), path },
      { root: target, path: to },
      { tick: this.tick },
    );
    if (!isStill(file) || size !== file.size) {
      remove(target, to);
      throw failed('ECHANGED', path);
    }
    return { path, size, modified, sha256: sha256 ?? '', entry: null };
  }

  async finish(files: readonly PackedFile[], record: readonly RecordFile[]): Promise<Made> {
    const { target } = this.task;
    const made = recordOf(this.task, files, record);
    for (const { path, text } of made) {
      makeFolders(target, parentOf(join(this.top, path)));
      writeWhole(target, join(this.top, path), [text]);
      if (readText(target, join(this.top, path), MOST_TEXT) !== text) throw failed('EVERIFY', path);
    }
    const lists = made.at(-1);
    const texts = made.reduce((sum, { text }) => sum + Buffer.byteLength(text), 0);
    return {
      size: files.reduce((sum, { size }) => sum + size, texts),
      sha256: sha256Of(lists?.text ?? ''),
      isPastCache: lists !== undefined && hashPastCache(target.at(join(this.top, lists.path))) !== null,
    };
  }

  sync(): void {
    // Each copy was synced when it was made.
  }

  close(): void {
    // Nothing is open.
  }

  private makeFolder(path: string): void {
    if (this.made.has(path)) return;
    makeFolders(this.task.target, path);
    this.made.add(path);
  }

  private placeOf(path: string): string {
    return join(this.top, this.task.placeOf(path));
  }
}

const MOST_TEXT = 2 ** 30;
