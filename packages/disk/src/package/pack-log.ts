/**
 * What stands in a package that is not whole yet, line by line: whoever goes on with it knows by that where it ends.
 * Each line is written after what it is about was synced.
 */
import { codeOf } from '@nesting/core/change';
import { append, remove, writeWhole, writtenAt } from '../roots/own-files';
import { readText } from '../roots/plain-file';
import type { Root } from '../roots/root';
import type { Form, Packed, PackedLine } from './form';

type Line = PackedLine | { readonly finished: Packed };

/** Lines and bytes between two times that all is synced. */
const GROUP_LINES = 2000;
const GROUP_BYTES = 512 * 2 ** 20;
const MOST_BYTES = 2 ** 30;

export class PackLog {
  private waiting: PackedLine[] = [];
  private bytes = 0;

  /** Begins with what is kept of an earlier try. */
  constructor(
    private readonly root: Root,
    private readonly path: string,
    private readonly form: Pick<Form, 'kept' | 'sync'>,
  ) {
    writeWhole(root, path, lineTexts(form.kept));
  }

  add(line: PackedLine): void {
    this.waiting.push(line);
    this.bytes += line.size;
    if (this.waiting.length >= GROUP_LINES || this.bytes >= GROUP_BYTES) this.flush();
  }

  flush(): void {
    if (this.waiting.length === 0) return;
    this.form.sync();
    append(this.root, this.path, [...lineTexts(this.waiting)].join(''), true);
    this.waiting = [];
    this.bytes = 0;
  }

  /** From now on it is only to be put in its place. */
  finish(packed: Packed): void {
    append(this.root, this.path, `${JSON.stringify({ finished: packed })}\n`, true);
  }
}

function* lineTexts(lines: readonly PackedLine[]): Generator<string> {
  for (const line of lines) yield `${JSON.stringify(line)}\n`;
}

/** What an earlier try wrote, as far as it can be read. */
export function readLog(
  root: Root,
  path: string,
): { readonly lines: readonly PackedLine[]; readonly finished: Packed | null } {
  const lines: PackedLine[] = [];
  let finished: Packed | null = null;
  for (const text of textOf(root, path).split('\n')) {
    const line = lineOf(text);
    if (line === null) break;
    if ('finished' in line) finished = line.finished;
    else lines.push(line);
  }
  return { lines, finished };
}

export const dropLog = (root: Root, path: string): void => {
  if (writtenAt(root, path) !== null) remove(root, path);
};

function textOf(root: Root, path: string): string {
  try {
    return readText(root, path, MOST_BYTES);
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return '';
    throw error;
  }
}

/** The last one may be cut off. */
function lineOf(text: string): Line | null {
  try {
    return text === '' ? null : (JSON.parse(text) as Line);
  } catch {
    return null;
  }
}
