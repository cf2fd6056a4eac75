/**
 * An attacker inside the process: at one call of the file system a folder becomes a link to a place outside, and stays
 * one or is put back after the call. Every task is run once for each of its calls. Prints what was hit, and what got out.
 */
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { tmpdir } from 'node:os';
import path from 'node:path';

const real = { ...fs };
// In memory where that can be: each of some thousand attacks lays its folders anew.
const memory = real.mkdtempSync(path.join(real.existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'nesting-swaps-'));
const studio = path.join(memory, 'studio');
const outside = path.join(memory, 'outside');
// Another file system where there is one: to it things are copied.
const disk = real.mkdtempSync(path.join(tmpdir(), 'nesting-swaps-'));
const other = path.join(disk, 'other');
const SECRET = 'SECRET '.repeat(30);

let calls = 0;
let at = -1;
let before: () => void = () => undefined;
let after: () => void = () => undefined;

for (const [name, call] of Object.entries(real)) {
  if (!name.endsWith('Sync') || typeof call !== 'function') continue;
  Reflect.set(fs, name, (...args: unknown[]) => {
    const isHit = calls++ === at;
    if (isHit) before();
    try {
      return Reflect.apply(call, fs, args);
    } finally {
      if (isHit) after();
    }
  });
}
syncBuiltinESMExports();
const { HOME, rootIdOf } = await import('@nesting/core/change');
const { TASKS } = await import('../../src/children/tasks');
const { useHandles } = await import('../../src/roots/handle');
// Shows that the attack is one: by paths alone something gets out.
if (process.env.NESTING_WITHOUT_HANDLES === '1') useHandles(false);

/** A project in good order, what a batch left in it, and a folder of it on another volume. */
function lay(): void {
  for (const folder of [studio, other]) real.rmSync(folder, { recursive: true, force: true });
  for (const folder of ['show/a/b', 'show/c', 'show/.nesting/batches'])
    real.mkdirSync(path.join(studio, folder), { recursive: true });
  real.mkdirSync(path.join(other, 'show/d'), { recursive: true });
  for (const file of ['show/a/x.txt', 'show/a/b/y.svg', 'show/a/b/z.txt', 'show/c/w.txt', 'show/.nesting/project.json'])
    real.writeFileSync(path.join(studio, file), file);
  real.writeFileSync(path.join(other, 'show/d/far.txt'), 'far');
}

/** The same names outside: whoever follows a link finds what he looks for. */
function layOutside(): void {
  for (const folder of ['a/b', 'b', 'c', 'd', 'show/a/b', 'show/c', 'show/d', '.nesting/batches/b1/new', 'batches/b1'])
    real.mkdirSync(path.join(outside, folder), { recursive: true });
  for (const folder of ['', 'a', 'b', 'a/b', 'c', 'd', 'show', 'show/a', 'show/c', 'show/d', '.nesting'])
    for (const file of ['x.txt', 'y.svg', 'z.txt', 'w.txt', 'far.txt', 'project.json', 'SECRET.txt'])
      real.writeFileSync(path.join(outside, folder, file), SECRET);
}

function pictureOf(folder: string): string[] {
  return real
    .readdirSync(folder, { withFileTypes: true })
    .flatMap((e) => {
      const whole = path.join(folder, e.name);
      const stats = real.lstatSync(whole);
      // Whatever is done to it changes this time.
      const line = `${whole} ${stats.ino} ${stats.ctimeMs}`;
      return e.isDirectory() ? [line, ...pictureOf(whole)] : [line];
    })
    .sort();
}

/** Folders that become links, from the volume's root or the other one's. */
const TARGETS = [
  path.join(studio, 'show'),
  path.join(studio, 'show/a'),
  path.join(studio, 'show/a/b'),
  path.join(studio, 'show/c'),
  path.join(studio, 'show/.nesting'),
  path.join(studio, 'show/.nesting/batches'),
  path.join(studio, 'show/.nesting/batches/b1'),
  path.join(studio, 'show/new'),
  path.join(other, 'show'),
  path.join(other, 'show/d'),
];

const isFolder = (at: string) => real.lstatSync(at, { throwIfNoEntry: false })?.isDirectory() === true;

function swap(target: string): boolean {
  if (!isFolder(target)) return false;
  real.renameSync(target, `${target}.was`);
  real.symlinkSync(outside, target);
  return true;
}

function back(target: string): void {
  if (!real.lstatSync(target, { throwIfNoEntry: false })?.isSymbolicLink()) return;
  real.unlinkSync(target);
  if (isFolder(`${target}.was`)) real.renameSync(`${target}.was`, target);
}

const context = { cancel: { aborted: false }, tell: async () => undefined };
const volume = { base: studio, folder: '' };
const show = { base: studio, folder: 'show' };
const mounts = [{ path: 'd', where: { base: other, folder: 'show' } }];
const SHELF = rootIdOf('shelf');
/** `shelf:` in front of a path is the other volume. */
const placeOf = (at: string | null) =>
  at === null ? null : { root: at.startsWith('shelf:') ? SHELF : HOME, path: at.replace('shelf:', '') };
const entryOf = (entry: 'file' | 'folder', before: string | null, after: string | null) => ({
  id: `${entry} ${before ?? after}`,
  subject: { kind: 'file' as const },
  group: null,
  entry,
  before: placeOf(before),
  after: placeOf(after),
  content: null,
});
const folder = (before: string | null, after: string | null) => entryOf('folder', before, after);
const file = (before: string | null, after: string | null) => entryOf('file', before, after);
const written = (before: string | null, after: string, text: string) => ({
  ...file(before, after),
  content: { kind: 'text' as const, text },
});
const changes = [
  folder(null, 'new'),
  folder(null, 'a/b/new'),
  folder('c', 'a/c'),
  file('a/x.txt', 'a/b/x.txt'),
  file('a/b/z.txt', 'a/b/new/z.txt'),
  written(null, 'new/note.txt', 'note'),
  written('a/b/y.svg', 'a/b/y.svg', '<svg/>'),
];
const from = { root: HOME, path: 'a/x.txt' };
const across = [
  folder('c', 'shelf:d/c'),
  file('shelf:d/far.txt', 'a/far.txt'),
  { ...file(null, 'shelf:d/copy.txt'), content: { kind: 'copy' as const, from } },
  {
    ...file('a/b/y.svg', 'a/b/y.svg'),
    content: { kind: 'rewritten' as const, patches: [{ at: 0, length: 2, bytes: 'WA==' }] },
  },
];
const others = [{ id: SHELF, where: { base: other, folder: 'show' } }];
const batch = {
  ...{ where: show, others, id: 'b1', what: 'test', by: '', at: '', undoes: null },
  ...{ changes, contents: new Map() },
};
const applied = () => TASKS.applyBatch.run(batch, context);
const appliedAcross = () => TASKS.applyBatch.run({ ...batch, changes: across }, context);
const started = [
  folder(null, 'a'),
  folder(null, 'a/new'),
  written(null, 'a/new/x.txt', 'one'),
  folder(null, '.nesting'),
  written(null, '.nesting/project.json', '{}'),
];
const template = JSON.parse(process.env.NESTING_SWAP_TEMPLATE ?? '{}');
const input = {
  template,
  values: { number: '26014' },
  registers: JSON.parse(process.env.NESTING_SWAP_REGISTERS ?? '{}'),
};

const ofMarker = { id: 'p1', startedAt: '2026-01-01T00:00:00Z' };

interface Attack {
  readonly name: string;
  /** Done before the attack begins. */
  readonly first?: () => Promise<unknown>;
  readonly run: () => unknown;
}

const start = { where: volume, folder: 'fresh', project: 'p1', changes: started, contents: new Map() };
async function cutOff(work: () => unknown): Promise<void> {
  // In the middle.
  at = calls + 110;
  before = () => {
    throw Object.assign(new Error('cut'), { code: 'EIO' });
  };
  after = () => undefined;
  await Promise.resolve(work()).catch(() => undefined);
}

const ATTACKS: readonly Attack[] = [
  { name: 'start', run: () => TASKS.start.run(start, context) },
  {
    name: 'start taken back',
    first: () => TASKS.start.run({ ...start, folder: 'show2' }, context),
    run: () => TASKS.unstart.run({ ...start, folder: 'show2' }),
  },
  {
    name: 'add to a folder',
    first: async () => real.rmSync(path.join(studio, 'show/.nesting'), { recursive: true }),
    run: () => TASKS.addTo.run({ ...start, folder: 'show' }, context),
  },
  { name: 'batch', run: applied },
  { name: 'batch across', run: appliedAcross },
  {
    name: 'settle',
    first: () => cutOff(applied),
    run: () => TASKS.settleBatch.run({ where: show, others, id: 'b1', way: 'take-back', by: '', at: '', lockMs: 0 }),
  },
  {
    name: 'settle across',
    first: () => cutOff(appliedAcross),
    run: () => TASKS.settleBatch.run({ where: show, others, id: 'b1', way: 'take-back', by: '', at: '', lockMs: 0 }),
  },
  { name: 'undo plan', first: async () => applied(), run: () => TASKS.planUndo.run({ where: show, others, id: 'b1' }) },
  {
    name: 'page of a batch',
    first: async () => applied(),
    run: () => TASKS.journalPage.run({ where: show, others, id: 'b1', withUndo: true }),
  },
  { name: 'rename of the folder', run: () => TASKS.renameFolder.run({ where: volume, from: 'show', to: 'shown' }) },
  {
    name: 'check',
    run: () =>
      TASKS.check.run(
        { where: show, mounts, input, helper: null, gatherEvery: 1e9, contents: { roots: ['/srv/show'], known: [] } },
        context,
      ),
  },
  { name: 'names', run: () => TASKS.namesBelow.run({ where: show, most: 1000 }) },
  { name: 'folders', run: () => TASKS.foldersBelow.run({ where: show, most: 1000 }) },
  { name: 'sizes', run: () => TASKS.sizesBelow.run({ where: show }) },
  { name: 'markers', run: () => TASKS.markersBelow.run({ where: volume, depth: 3, most: 100 }) },
  { name: 'marker', run: () => TASKS.marker.run({ where: show }) },
  { name: 'one folder', run: () => TASKS.folder.run({ where: show, mounts, path: 'd' }) },
  { name: 'names of folders', run: () => TASKS.namesInEach.run({ where: show, paths: ['a', 'a/b'] }) },
  { name: 'own changes', run: () => TASKS.ownChanges.run({ where: show, rules: input, project: ofMarker }) },
  {
    name: 'plan',
    run: () =>
      TASKS.planReshape.run({
        ...{ where: show, before: input, after: { ...input, values: { number: '26015' } }, prefix: '/srv/' },
        ...{ renamed: {}, extra: [], keep: [], project: ofMarker, mostLines: 10, withChanges: true },
      }),
  },
  {
    name: 'sweep of batches',
    first: async () => applied(),
    run: () => TASKS.sweepBatches.run({ where: show, others, before: Date.now() + 9e9 }),
  },
  {
    name: 'sweep',
    first: async () => real.mkdirSync(path.join(studio, '.nesting-unfinished-p1/a/b'), { recursive: true }),
    run: () => TASKS.sweepStart.run({ where: volume, project: 'p1' }),
  },
];

/** Every so many-th call for each folder: with ten folders each call is still attacked twice. */
const EACH = Number(process.env.NESTING_SWAP_EACH ?? 5);

layOutside();
const clean = pictureOf(outside);
const said: string[] = [];
const hits: Record<string, number> = {};

/** Whether the call was reached at all. */
async function attack({ name, first, run }: Attack, call: number, target: string, stays: boolean): Promise<boolean> {
  lay();
  await first?.();
  let hit = false;
  at = calls + call;
  const from = calls;
  before = () => {
    hit = swap(target);
  };
  after = () => {
    if (!stays) back(target);
  };
  let outcome: unknown = null;
  try {
    outcome = await run();
  } catch (error) {
    outcome = String(error);
  }
  const isReached = calls - from > call;
  at = -1;
  back(target);
  if (hit) hits[name] = (hits[name] ?? 0) + 1;
  const told = JSON.stringify(outcome, (_, value) =>
    value instanceof Map || value instanceof Set ? [...value] : value,
  );
  if (told?.includes('SECRET')) said.push(`${name}: call ${call}, ${target}: it told what is outside`);
  if (told?.includes(`"size":${SECRET.length}`)) said.push(`${name}: call ${call}, ${target}: it told a size`);
  if (JSON.stringify(pictureOf(outside)) !== JSON.stringify(clean)) {
    said.push(`${name}: call ${call}, ${target}: it changed what is outside`);
    real.rmSync(outside, { recursive: true });
    layOutside();
    clean.splice(0, clean.length, ...pictureOf(outside));
  }
  return isReached;
}

const only = process.env.NESTING_SWAP_ONLY;
for (const one of ATTACKS.filter((attack) => only === undefined || attack.name === only))
  for (const [i, target] of TARGETS.entries())
    for (let call = i % EACH; await attack(one, call, target, (call + i) % 2 === 0); call += EACH);

for (const folder of [memory, disk]) real.rmSync(folder, { recursive: true, force: true });
process.stdout.write(JSON.stringify({ hits, said: said.slice(0, 50), all: said.length }));
