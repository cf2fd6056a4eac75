/** A gigabyte in a thousand files, packed and proved, beside what packs or hashes the same and proves nothing. */
import { spawnSync } from 'node:child_process';
import { randomFillSync } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { bareCopy } from './copies';
import { line, median } from './measure';

const FILES = 1000;
const BYTES = 1 << 20;
const ROUNDS = 3;

/** The command line as it is built: with its threads. */
const PROGRAM = fileURLToPath(new URL('../bin/nesting.js', import.meta.url));

function timed(program: string, args: readonly string[], cwd: string): number {
  const begun = performance.now();
  const { status, stderr } = spawnSync(program, args, { cwd, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program} ${args.join(' ')}: ${stderr}`);
  return performance.now() - begun;
}

function bare(from: string, to: string, names: readonly string[]): number {
  mkdirSync(to);
  const begun = performance.now();
  for (const name of names) bareCopy(path.join(from, name), path.join(to, name));
  return performance.now() - begun;
}

export async function benchPackages(): Promise<void> {
  const top = mkdtempSync(path.join(tmpdir(), 'nesting-bench-packages-'));
  const nesting = (...args: readonly string[]) => timed(process.execPath, [PROGRAM, ...args], top);
  writeFileSync(path.join(top, 'small.nest.json'), JSON.stringify(TEMPLATE));
  nesting('create', 'small.nest.json', '--into', top, '--set', 'number=26014');
  const clips = path.join(top, '26014/clips');
  const names = Array.from({ length: FILES }, (_, i) => `clip-${i}.mov`);
  const bytes = Buffer.alloc(BYTES);
  for (const name of names) writeFileSync(path.join(clips, name), randomFillSync(bytes));
  const times = { zip: [], ours: [], verify: [], openssl: [], bag: [], bare: [] } as Record<string, number[]>;
  const add = (name: string, ms: number) => times[name]?.push(ms);
  for (let round = 0; round < ROUNDS; round++) {
    add('zip', timed('zip', ['-0', '-q', '-r', 'theirs.zip', '26014'], top));
    add('ours', nesting('pack', '26014', '--to', 'ours.zip'));
    add('verify', nesting('verify', 'ours.zip'));
    add('openssl', timed('openssl', ['dgst', '-sha256', 'ours.zip'], top));
    add('bag', nesting('pack', '26014', '--to', 'bag', '--as', 'bag'));
    add('bare', bare(clips, path.join(top, 'bare'), names));
    for (const made of ['theirs.zip', 'ours.zip', 'ours.zip.sha256', 'bag', 'bag.sha256', 'bare'])
      rmSync(path.join(top, made), { recursive: true });
  }
  rmSync(top, { recursive: true, force: true });
  const [zip = 0, ours = 0, verify = 0, openssl = 0, bag = 0, copy = 0] = Object.values(times).map(median);
  const told = (what: string, ms: number, rival: string, against: number, most: number) =>
    line(
      what,
      `${(ms / 1000).toFixed(1)} s, ${(ms / against).toFixed(2)} × ${rival}`,
      `at most ${most} ×`,
      ms / against <= most,
    );
  told('a gigabyte as a zip, hashed and read back', ours, 'zip -0 -r', zip, 1.3);
  told('the same zip and all in it proved', verify, 'openssl sha256', openssl, 1.11);
  told('the same as a bag', bag, 'the same copies in a bare loop', copy, 1.1);
}

const TEMPLATE = {
  ...{ format: 'nesting/template', formatVersion: 1, id: 'small', name: 'Small', fields: [], conventions: [] },
  registers: { families: [{ name: 'moving image', extensions: ['mov'] }] },
  root: { id: 'root', name: '{number}', folders: [{ id: 'clips', name: 'clips', accepts: ['moving image'] }] },
};
