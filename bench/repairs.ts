/**
 * npm run bench repairs: a plan of fifty thousand findings, references to a thousand files that move, one press in a
 * project of a hundred thousand files. All on a real disk.
 */
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  rmSync,
  utimesSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Finding } from '@nesting/core/check';
import type { DocumentFacts } from '@nesting/core/planners';
import type { CheckInput } from '@nesting/core/project';
import { checkOnDisk, inRoot, listFolder, TASKS, Tree } from '@nesting/disk';
import { rules, VALUES } from '../corpus/good-disk';
import { line, median } from './measure';

const OLD = Date.UTC(2026, 2, 6) / 1000;
const { template, registers } = rules();

function inputFor(scenes: number): CheckInput {
  const named = Array.from({ length: scenes }, (_, i) => `s${String(i + 1).padStart(3, '0')}`);
  return { template, values: { ...VALUES, scenes: named }, registers, now: Date.UTC(2026, 3, 20) };
}

function put(root: string, at: string, text: string): void {
  mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
  writeFileSync(path.join(root, at), text);
  utimesSync(path.join(root, at), OLD, OLD);
}

const homeOf = (): string => {
  const root = mkdtempSync(path.join(tmpdir(), 'nesting-bench-'));
  mkdirSync(path.join(root, '.nesting'));
  return root;
};

const working = (scene: number): string => `40_motion/portico/s${String(scene).padStart(3, '0')}/working`;

interface Planning {
  readonly root: string;
  readonly input: CheckInput;
  readonly findings: readonly Finding[];
  readonly documents: readonly DocumentFacts[] | null;
}

const plan = ({ root, input, findings, documents }: Planning) =>
  TASKS.planRepair.run({
    where: { base: root, folder: '' },
    mounts: [],
    rules: input,
    findings,
    answers: {},
    from: 'sure',
    roots: [root],
    documents,
    listings: [],
    neighbours: [],
    mostLines: 5000,
    withChanges: true,
    mostSearched: null,
  });

async function timed(rounds: number, work: () => Promise<unknown> | unknown): Promise<number> {
  const all: number[] = [];
  for (let round = 0; round <= rounds; round++) {
    const start = performance.now();
    await work();
    if (round > 0) all.push(performance.now() - start);
  }
  return median(all);
}

export async function benchRepairs(): Promise<void> {
  await manyFindings();
  await manyReferences();
  await onePress();
}

/** Fifty thousand versions written otherwise, in two hundred folders. */
async function manyFindings(): Promise<void> {
  const [root, input] = [homeOf(), inputFor(200)];
  for (let i = 0; i < 50_000; i++) {
    const scene = (i % 200) + 1;
    put(root, `${working(scene)}/26011_portico_s${String(scene).padStart(3, '0')}_anim_BO_V${i + 1000}.usda`, '');
  }
  const { findings } = await checkOnDisk({ where: { base: root, folder: '' }, input });
  const wanted = findings.filter((f) => f.rule === 'version-style' || f.rule === 'name-mismatch');
  const rows = wanted.map((f) => JSON.stringify(f));
  const ours = await timed(3, () => plan({ root, input, findings: wanted, documents: [] }));
  const theirs = await timed(3, () => rows.map((row) => JSON.parse(row) as unknown));
  rmSync(root, { recursive: true });
  const ratio = ours / theirs;
  line(
    `a plan of ${wanted.length} findings, on the disk as it is`,
    `${ratio.toFixed(1)} × parsing their rows (${ours.toFixed(0)} ms)`,
    'at most 1.5 ×',
    ratio <= 1.5,
  );
}

/** Two hundred megabytes of lists; a thousand files, ten of which are named in one of them each. */
async function manyReferences(): Promise<void> {
  const [root, input] = [homeOf(), inputFor(10)];
  const filler = `${'clip,../elsewhere/some-other-file.mov,note of no consequence to anybody\n'.repeat(13_500)}`;
  for (let i = 0; i < 200; i++)
    put(
      root,
      `30_design/boards/list-${i}.csv`,
      `${filler}"../../50_sound/music/26011_MUS_${i < 10 ? `V${1000 + i}` : `v${i}`}.wav"\n`,
    );
  for (let i = 0; i < 1000; i++) put(root, `50_sound/music/26011_MUS_V${1000 + i}.wav`, '');
  const { findings, facts } = await checkOnDisk({
    where: { base: root, folder: '' },
    input,
    contents: { roots: [root], known: [] },
  });
  const wanted = findings.filter((f) => f.path.startsWith('50_sound/music') && f.rule === 'version-style');
  const documents = facts.flatMap((f) => (f.targets?.length ? [{ path: f.path, targets: f.targets }] : []));
  const found = (await plan({ root, input, findings: wanted, documents })).documents.length;
  if (found !== 10) throw new Error(`${found} documents follow`);
  const known = await timed(2, () => plan({ root, input, findings: wanted, documents }));
  const unknown = await timed(1, () => plan({ root, input, findings: wanted, documents: null }));
  const grep = await timed(2, () => spawnSync('grep', ['-rlF', '26011_MUS_V1000.wav', root]));
  rmSync(root, { recursive: true });
  line(
    `references to ${wanted.length} files that move, 200 MB of lists, as kept`,
    `${(known / grep).toFixed(2)} × grep -F for one (${known.toFixed(0)} ms)`,
    'at most 2 ×',
    known / grep <= 2,
  );
  line(
    '  with every document read anew',
    `${(unknown / grep).toFixed(1)} × grep -F for one (${unknown.toFixed(0)} ms)`,
    'none',
    true,
  );
}

/** One name in a project of a hundred thousand files, from what the last check kept to what the next one finds. */
async function onePress(): Promise<void> {
  const [root, input] = [homeOf(), inputFor(200)];
  for (let scene = 1; scene <= 200; scene++)
    for (let frame = 1; frame <= 500; frame++) {
      const s = `s${String(scene).padStart(3, '0')}`;
      put(
        root,
        `40_motion/portico/${s}/renders/26011_portico_${s}_comp_v001.${String(frame).padStart(4, '0')}.exr`,
        'x',
      );
    }
  for (let scene = 1; scene <= 200; scene++)
    put(
      root,
      `${working(scene)}/26011_portico_s${String(scene).padStart(3, '0')}_anim_BO_v001.usda`,
      // No two scenes are as large as each other.
      `(a = @./x.usda@)${'#'.repeat(scene)}`,
    );
  const times: number[] = [];
  const rival: number[] = [];
  for (let round = 0; round <= 5; round++) {
    const scene = `s${String(round + 1).padStart(3, '0')}`;
    put(
      root,
      `${working(round + 1)}/26011_portico_${scene}_anim_BO_V002.usda`,
      `(a = @./x.usda@)${'#'.repeat(500 + round)}`,
    );
    const contents = { roots: [root], known: [] };
    // As on a server: the process that checks a project knows its rules from the last time.
    const by = { where: { base: root, folder: '' }, input, fingerprint: 'the same' };
    const since = await checkOnDisk({ ...by, contents });
    const documents = since.facts.flatMap((f) => (f.targets?.length ? [{ path: f.path, targets: f.targets }] : []));
    const wanted = since.findings.filter((f) => f.rule === 'version-style');
    let start = performance.now();
    const { changes } = await plan({ root, input, findings: wanted, documents });
    const planned = performance.now() - start;
    await TASKS.applyBatch.run(
      {
        where: { base: root, folder: '' },
        others: [],
        id: randomUUID(),
        what: 'repair',
        by: '',
        at: '',
        undoes: null,
        changes,
        contents: new Map(),
      },
      { cancel: new AbortController().signal, tell: async () => undefined },
    );
    const applied = performance.now() - start;
    await checkOnDisk({
      ...by,
      since,
      contents: { roots: [root], known: since.facts },
    });
    const ours = performance.now() - start;
    start = performance.now();
    inRoot({ base: root, folder: '' }, (at) => listFolder(Tree.of(at), working(round + 1), () => undefined));
    const fd = openSync(path.join(root, 'commit'), 'w');
    writeSync(fd, 'x');
    fsyncSync(fd);
    closeSync(fd);
    const theirs = performance.now() - start;
    if (round > 0) {
      times.push(ours);
      rival.push(theirs);
    }
    if (round === 5)
      process.stdout.write(
        `  of it: planned ${planned.toFixed(0)} ms, done ${(applied - planned).toFixed(0)} ms, checked again ${(ours - applied).toFixed(0)} ms\n`,
      );
  }
  const files = readdirSync(root, { recursive: true }).length;
  rmSync(root, { recursive: true });
  const ratio = median(times) / median(rival);
  line(
    `one press in a project of ${files} files and folders`,
    `${ratio.toFixed(0)} × listing its folder and a commit (${median(times).toFixed(0)} ms)`,
    'at most 3 ×',
    ratio <= 3,
  );
}
