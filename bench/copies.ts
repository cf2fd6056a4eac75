/** Two gigabytes in two thousand files, copied and proved, beside the same copy and hash in a bare loop. */
import { createHash } from 'node:crypto';
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Change, HOME, home, rootIdOf } from '@nesting/core/change';
import { applyOnDisk, Root } from '@nesting/disk';
import { line, median } from './measure';

const FILES = 2000;
const BYTES = 1 << 20;
const CARD = rootIdOf('card');
/** Two gigabytes are written by each in a round. */
const ROUNDS = 3;

const bytes = Buffer.alloc(BYTES);

/** Read, written, synced, read back; both hashed. */
export function bareCopy(from: string, to: string): void {
  const source = openSync(from, 'r');
  const target = openSync(to, 'wx+');
  const [read, back] = [createHash('sha256'), createHash('sha256')];
  let at = 0;
  for (let n = readSync(source, bytes, 0, BYTES, 0); n > 0; n = readSync(source, bytes, 0, BYTES, at)) {
    read.update(bytes.subarray(0, n));
    for (let done = 0; done < n; ) done += writeSync(target, bytes, done, n - done, at + done);
    at += n;
  }
  fsyncSync(target);
  at = 0;
  for (let n = readSync(target, bytes, 0, BYTES, 0); n > 0; n = readSync(target, bytes, 0, BYTES, at)) {
    back.update(bytes.subarray(0, n));
    at += n;
  }
  if (read.digest('hex') !== back.digest('hex')) throw new Error('the copy is another');
  closeSync(source);
  closeSync(target);
}

const changeOf = (name: string): Change => ({
  id: name,
  subject: { kind: 'file' },
  group: null,
  entry: 'file',
  before: null,
  after: home(name),
  content: { kind: 'copy', from: { root: CARD, path: name } },
});

export async function benchCopies(): Promise<void> {
  const top = mkdtempSync(path.join(tmpdir(), 'nesting-bench-copies-'));
  const card = path.join(top, 'card');
  mkdirSync(card);
  const names = Array.from({ length: FILES }, (_, i) => `clip-${i}.mov`);
  for (const [i, name] of names.entries()) writeFileSync(path.join(card, name), Buffer.alloc(BYTES, i));
  const [ours, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    const [mine, theirs] = [path.join(top, `ours-${round}`), path.join(top, `bare-${round}`)];
    for (const folder of [mine, theirs]) mkdirSync(folder);
    mkdirSync(path.join(mine, '.nesting'));
    const roots = new Map([
      [HOME, Root.open({ base: mine, folder: '' })],
      [CARD, Root.open({ base: card, folder: '' })],
    ]);
    const a = performance.now();
    const outcome = await applyOnDisk({
      ...{ roots, id: 'b', what: 'bench', by: '', at: '' },
      changes: names.map(changeOf),
      bytesOf: () => Buffer.alloc(0),
    });
    const b = performance.now();
    if (outcome.state !== 'done') throw new Error(JSON.stringify(outcome).slice(0, 300));
    for (const name of names) bareCopy(path.join(card, name), path.join(theirs, name));
    const c = performance.now();
    ours.push(b - a);
    bare.push(c - b);
    for (const folder of [mine, theirs]) rmSync(folder, { recursive: true });
  }
  rmSync(top, { recursive: true, force: true });
  const ratio = median(ours) / median(bare);
  line(
    'two gigabytes in 2,000 files, copied and read back',
    `${(median(ours) / 1000).toFixed(1)} s, ${ratio.toFixed(2)} × the same in a bare loop`,
    'at most 1.1 ×',
    ratio <= 1.1,
  );
}
