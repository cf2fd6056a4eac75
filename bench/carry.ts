/**
 * npm run bench carry: a plan that carries twenty thousand files over, two projects of a hundred thousand files side by
 * side, and the copying itself on a real disk.
 */
import { createHash } from 'node:crypto';
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { HOME, home, rootIdOf } from '@nesting/core/change';
import { compareSides, itemsOfSide } from '@nesting/core/compare';
import { type FolderListing, packListing, unpackListing } from '@nesting/core/listing';
import { readName, writeName } from '@nesting/core/name';
import { carryOver, namesPlanned, PLAIN_WAY } from '@nesting/core/planners';
import { ProjectRules } from '@nesting/core/project';
import { applyOnDisk, Root } from '@nesting/disk';
import { rules, VALUES } from '../corpus/good-disk';
import { interleave, line, median } from './measure';

const SOURCE = rootIdOf('source');
const OLD = Date.UTC(2026, 2, 6);
const { template, registers } = rules();

function rulesFor(number: string, scenes: number): ProjectRules {
  const named = Array.from({ length: scenes }, (_, i) => `s${String(i + 1).padStart(3, '0')}`);
  return new ProjectRules({ template, values: { ...VALUES, number, scenes: named }, registers });
}

/** `each` working files in each scene of two surfaces. */
function listingsOf(number: string, scenes: number, each: number, modified = OLD): FolderListing[] {
  return ['portico', 'fly-tower'].flatMap((surface) =>
    Array.from({ length: scenes }, (_, i): FolderListing => {
      const scene = `s${String(i + 1).padStart(3, '0')}`;
      const nameOf = (n: number) => `${number}_${surface}_${scene}_anim_BO_v${String(n + 1).padStart(3, '0')}.usda`;
      const files = Array.from({ length: each }, (_, n) => ({ name: nameOf(n), size: 1000 + n, modified }));
      return { path: `40_motion/${surface}/${scene}/working`, folders: [], files, others: [] };
    }),
  );
}

function plans(): void {
  const [scenes, each] = [100, 100];
  const [source, target] = [rulesFor('26011', scenes), rulesFor('27003', scenes)];
  const listings = listingsOf('26011', scenes, each);
  const line0 = source.planned(listings[0]?.path ?? '');
  if (line0 === undefined) throw new Error('no such folder is planned');
  const all = listings.flatMap((l) => l.files.map((f) => `${l.path}/${f.name}`));
  // Every fortieth is a document that refers to the next ones.
  const documents = all.flatMap((at, i) =>
    i % 40 === 0
      ? [
          {
            path: at,
            targets: [1, 2, 3].map((n) => path.posix.relative(path.posix.dirname(at), all[(i + n) % all.length] ?? '')),
          },
        ]
      : [],
  );
  const texts = new Map(documents.map((d) => [d.path, d.targets.map((t) => `@${t}@\n`).join('')]));
  const asked = {
    source,
    target,
    listings,
    way: {
      ...PLAIN_WAY,
      folders: { [source.expansion.lines[0]?.node ?? 'root']: 'everything' as const },
      version: 'keep' as const,
    },
    picked: {},
    startersCome: false,
    documents,
    read: (at: string) => ({ text: texts.get(at) ?? '', expects: { size: 1, modified: OLD } }),
    roots: { source: ['/srv/a'], target: ['/srv/b'] },
    revision: null,
    rootOf: () => SOURCE,
    there: namesPlanned(target, false),
  };
  const planned = carryOver(asked);
  const times = interleave([
    {
      name: 'names',
      run: () => {
        for (const { path: at, files } of listings) {
          const [from, to] = [source.planned(at), target.planned(at)];
          if (from === undefined || to === undefined) throw new Error(at);
          for (const { name } of files) {
            const [by] = source.conventionsFor(from, name);
            const [as] = target.conventionsFor(to, name);
            const reading = by === undefined ? null : readName(by.strict, name, by.bound);
            if (as === undefined || reading === null || !writeName(as.strict, { ...reading, ...as.bound }).ok)
              throw new Error(name);
          }
        }
        return undefined;
      },
    },
    { name: 'plan', run: () => void carryOver(asked) },
  ]);
  const ratio = times.plan / times.names;
  const what = `a plan of ${planned.items.length} files, ${planned.documents.length} documents`;
  line(what, `${ratio.toFixed(2)} × their names (${times.plan.toFixed(0)} ms)`, '≤ 1.5', ratio <= 1.5);
}

function sides(): void {
  const [scenes, each] = [250, 200];
  const [left, right] = [rulesFor('26011', scenes), rulesFor('27003', scenes)];
  const packed = ['26011', '27003'].map((number) =>
    listingsOf(number, scenes, each).map((l) => ({ path: l.path, bytes: packListing(l) })),
  );
  const unpacked = () => packed.map((side) => side.map(({ path: at, bytes }) => unpackListing(at, bytes)));
  const [lefts = [], rights = []] = unpacked();
  const compare = () =>
    compareSides({
      left: itemsOfSide(left, lefts, true),
      right: itemsOfSide(right, rights, true),
      sameContent: (l, r) => l.size === r.size,
      contentOf: (_side, item) => item.path,
    });
  const rows = compare();
  if (rows.some((row) => row.state !== 'renamed')) throw new Error('they are the same under other names');
  const times = interleave(
    [
      { name: 'lists', run: () => void unpacked() },
      { name: 'compare', run: () => void compare() },
    ],
    5,
  );
  const ratio = times.compare / times.lists;
  const what = `two projects of ${rows.length} files side by side`;
  line(
    what,
    `${ratio.toFixed(1)} × unpacking both (${times.compare.toFixed(0)} ms)`,
    '≤ 1.5 × reading both from the database',
    ratio <= 1.5,
  );
}

const FILES = 400;
const BYTES = 256 * 1024;

async function copying(): Promise<void> {
  const base = mkdtempSync(path.join(tmpdir(), 'nesting-bench-'));
  const source = path.join(base, 'source');
  mkdirSync(source);
  for (let i = 0; i < FILES; i++) writeFileSync(path.join(source, `${i}.dat`), Buffer.alloc(BYTES, i));
  const ratios: number[] = [];
  for (let round = 0; round < 5; round++) {
    const bare = timed(() => bareCopies(source, path.join(base, `bare ${round}`)));
    const to = path.join(base, `ours ${round}`);
    mkdirSync(path.join(to, '.nesting'), { recursive: true });
    const start = performance.now();
    await carried(source, to);
    ratios.push((performance.now() - start) / bare);
  }
  rmSync(base, { recursive: true });
  const ratio = median(ratios);
  line(
    `${FILES} files of ${BYTES / 1024} KiB carried over`,
    `${ratio.toFixed(2)} × a bare loop`,
    '≤ 1.15',
    ratio <= 1.15,
  );
}

const timed = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

/** Read, hashed, written, synced, read again and hashed. */
function bareCopies(from: string, to: string): void {
  mkdirSync(to);
  for (const name of readdirSync(from)) {
    const bytes = readFileSync(path.join(from, name));
    const hash = createHash('sha256').update(bytes).digest('hex');
    const fd = openSync(path.join(to, name), 'wx');
    writeSync(fd, bytes);
    fsyncSync(fd);
    closeSync(fd);
    if (
      createHash('sha256')
        .update(readFileSync(path.join(to, name)))
        .digest('hex') !== hash
    )
      throw new Error(name);
  }
}

async function carried(from: string, to: string): Promise<void> {
  const [target, source] = [Root.open({ base: to, folder: '' }), Root.open({ base: from, folder: '' })];
  const changes = readdirSync(from).map((name) => ({
    id: name,
    subject: { kind: 'file' as const },
    group: null,
    entry: 'file' as const,
    before: null,
    after: home(name),
    content: { kind: 'copy' as const, from: { root: SOURCE, path: name } },
  }));
  const roots = new Map([
    [HOME, target],
    [SOURCE, source],
  ]);
  const batch = { id: 'b', what: 'carry', by: '', at: '', changes, bytesOf: () => new Uint8Array() };
  const outcome = await applyOnDisk({ ...batch, roots });
  if (outcome.state !== 'done') throw new Error(JSON.stringify(outcome));
  for (const root of [target, source]) root.close();
}

export async function benchCarry(): Promise<void> {
  plans();
  sides();
  await copying();
}
