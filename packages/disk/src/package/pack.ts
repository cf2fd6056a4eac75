/**
 * Writes a package, and proves it.
 *
 * 1. What an earlier try left is looked at: what is still as it was packed stays, the rest is written anew.
 * 2. The files are read one by one into `NAME.part`, each hashed on the way. One that is written meanwhile is read once
 *    more; where that helps nothing it is told, and the package waits until somebody says that it may go without.
 * 3. The record is written behind them: contents, checksums, the rules of the project.
 * 4. All is synced, read back and held against the hashes. Only then it takes its name.
 */
import { type Cancellation, codeOf } from '@nesting/core/change';
import type { PackedFile } from '@nesting/core/report';
import { writeWhole } from '../roots/own-files';
import { withPlainFile } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import { takePlace } from '../roots/take-place';
import { failed } from '../roots/where';
import { BagForm } from './bag-form';
import { type Form, LOG, type NotPacked, PART, type Packed, type PackedLine, type ToPack } from './form';
import { dropLog, PackLog, readLog } from './pack-log';
import { ZipForm } from './zip-form';

export type PackOutcome =
  | { readonly state: 'done'; readonly packed: Packed }
  /** Something cannot go in: what is written waits. */
  | { readonly state: 'waits'; readonly notPacked: readonly NotPacked[] };

export interface PackProgress {
  readonly stage: 'packing' | 'proving';
  readonly files: number;
  readonly bytes: number;
}

export interface Watching {
  readonly cancel: Cancellation;
  readonly tell: (progress: PackProgress) => void;
}

const READ_TWICE = 2;

/** What goes wrong with one file alone: the others can be packed. */
const OF_ONE_FILE: ReadonlySet<string> = new Set(['ECHANGED', 'EACCES', 'EPERM', 'ENOENT', 'ELOOP', 'ENOTFILE', 'EIO']);

/**
 * Its log stays: whoever asked may die before it is noted that all is done, and asks again. `forgetLog` ends it.
 *
 * @throws `EEXIST` where something has its name, `EVERIFY`, `STOPPED`
 */
export async function pack(task: ToPack, watching: Watching): Promise<PackOutcome> {
  const { target, name } = task;
  const { lines, finished } = readLog(target, `${name}${LOG}`);
  const there = standingAt(target, name);
  if (there !== null) {
    if (finished === null || (there.kind === 'file' && there.size !== finished.size)) throw failed('EEXIST', name);
    return { state: 'done', packed: finished };
  }
  return new Packing(task, watching).run(lines);
}

class Packing {
  private files = 0;
  private bytes = 0;

  constructor(
    private readonly task: ToPack,
    private readonly watching: Watching,
  ) {}

  async run(before: readonly PackedLine[]): Promise<PackOutcome> {
    const { task } = this;
    const Kind = task.kind === 'bag' ? BagForm : ZipForm;
    const form = new Kind(task, this.still(before), this.tick);
    const log = new PackLog(task.target, `${task.name}${LOG}`, form);
    try {
      const { lines, notPacked } = await this.packAll(form, log);
      log.flush();
      if (notPacked.length > 0 && !task.mayLeaveOut) return { state: 'waits', notPacked };
      const files = this.described(lines);
      this.files = 0;
      this.bytes = 0;
      this.stage = 'proving';
      const made = await form.finish(files, task.record(files, notPacked));
      const bytes = files.reduce((sum, { size }) => sum + size, 0);
      const packed = { ...made, files: files.length, bytes, leftOut: notPacked };
      this.place(packed, log);
      return { state: 'done', packed };
    } catch (error) {
      // What is on the disk is not what was written: another try begins anew.
      if (codeOf(error) === 'EVERIFY') dropLog(task.target, `${task.name}${LOG}`);
      throw error;
    } finally {
      form.close();
    }
  }

  private stage: PackProgress['stage'] = 'packing';

  /** With each megabyte. */
  private readonly tick = (): void => {
    if (this.watching.cancel.aborted) throw failed('STOPPED', '');
    this.tell();
  };

  private tell(): void {
    this.watching.tell({ stage: this.stage, files: this.files, bytes: this.bytes });
  }

  /** What was packed before and is as it was, in the order in which it was written. */
  private still(before: readonly PackedLine[]): readonly PackedLine[] {
    const items = new Map(this.task.items.map((item) => [item.path, item]));
    return before.filter(({ path, size, modified }) => {
      const item = items.get(path);
      return item !== undefined && item.size === size && Math.floor(item.modified) === Math.floor(modified);
    });
  }

  private async packAll(
    form: Form,
    log: PackLog,
  ): Promise<{ lines: readonly PackedLine[]; notPacked: readonly NotPacked[] }> {
    const lines = [...form.kept];
    const known = new Set(lines.map(({ path }) => path));
    for (const { size } of lines) this.count(size);
    const notPacked: NotPacked[] = [];
    for (const { path } of this.task.items) {
      if (known.has(path)) continue;
      await this.breath();
      try {
        const line = this.packOne(form, path);
        lines.push(line);
        log.add(line);
        this.count(line.size);
      } catch (error) {
        const code = codeOf(error);
        if (!OF_ONE_FILE.has(code)) throw error;
        notPacked.push({ path, code });
      }
    }
    return { lines, notPacked };
  }

  private count(size: number): void {
    this.files++;
    this.bytes += size;
    this.tell();
  }

  private packOne(form: Form, path: string): PackedLine {
    const { source, placeOf } = this.task;
    for (let tries = 1; ; tries++)
      try {
        return withPlainFile(source.rootOf(path), path, (file) => form.add(path, placeOf(path), file));
      } catch (error) {
        if (codeOf(error) !== 'ECHANGED' || tries === READ_TWICE) throw error;
      }
  }

  private described(lines: readonly PackedLine[]): readonly PackedFile[] {
    const items = new Map(this.task.items.map((item) => [item.path, item]));
    const inOrder = new Map(lines.map((line) => [line.path, line]));
    return [...items].flatMap(([path, { family, reading }]) => {
      const line = inOrder.get(path);
      if (line === undefined) return [];
      const { size, modified, sha256: hash } = line;
      return [{ path, size, modified, family, reading, hash, place: this.task.placeOf(path) }];
    });
  }

  private place(packed: Packed, log: PackLog): void {
    const { target, name, kind } = this.task;
    const outer = kind === 'bag' ? `${packed.sha256}  ${name}/tagmanifest-sha256.txt\n` : `${packed.sha256}  ${name}\n`;
    writeWhole(target, `${name}.sha256`, [outer]);
    // The log says that it is whole before it has its name: whoever comes after a crash knows both.
    log.finish(packed);
    takePlace({ root: target, path: `${name}${PART}` }, { root: target, path: name });
  }

  /** Between two files a cancellation is heard. */
  private async breath(): Promise<void> {
    await new Promise((resolve) => setImmediate(resolve));
    this.tick();
  }
}
