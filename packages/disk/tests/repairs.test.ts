/**
 * Every damage of a working week on a real disk: found, planned, put right, found no more; and taken back, to the same
 * bytes, names and times.
 */
import { randomUUID } from 'node:crypto';
import {
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Finding } from '@nesting/core/check';
import type { Family } from '@nesting/core/name';
import type { Answer } from '@nesting/core/planners';
import type { CheckInput } from '@nesting/core/project';
import { damaged, drawDamages } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { type Disk, type Entry, goodDisk, rules, VALUES } from '../../../corpus/good-disk';
import { undoOnDisk } from '../src/batch';
import { checkOnDisk } from '../src/check/check';
import { applyBatch } from '../src/children/changes';
import { type PlannedRepair, planRepair } from '../src/children/repair';
import { inRoot } from '../src/roots/open';
import { onlyHome } from '../src/roots/port';

const { rules: of, template, registers } = rules();
const NOW = Date.UTC(2026, 3, 20);
const input = { template, values: VALUES, registers, now: NOW };

let base: string;
beforeAll(() => {
  base = mkdtempSync(path.join(tmpdir(), 'nesting-repairs-'));
});
afterAll(() => rmSync(base, { recursive: true, force: true }));

/** As in memory, with times of its own day. */
function write(disk: Disk): string {
  const root = mkdtempSync(path.join(base, 'p-'));
  mkdirSync(path.join(root, '.nesting'));
  for (const at of [...disk.keys()].sort()) {
    const entry = disk.get(at);
    const whole = path.join(root, at);
    if (entry?.folder) mkdirSync(whole, { recursive: true });
    else {
      mkdirSync(path.dirname(whole), { recursive: true });
      writeFileSync(whole, entry?.size === 0 ? '' : (entry?.content ?? at));
      utimesSync(whole, Date.UTC(2026, 2, 6) / 1000, Date.UTC(2026, 2, 6) / 1000);
    }
  }
  return root;
}

const whereOf = (root: string) => ({ base: root, folder: '' });
const rootsOf = (root: string) => [root];

const check = async (root: string, by: CheckInput = input): Promise<readonly Finding[]> =>
  (await checkOnDisk({ where: whereOf(root), input: by, contents: { roots: rootsOf(root), known: [] } })).findings;

async function plan(
  root: string,
  findings: readonly Finding[],
  answers: Readonly<Record<string, Answer>> = {},
  by: CheckInput = input,
) {
  return planRepair({
    where: whereOf(root),
    mounts: [],
    rules: by,
    findings,
    answers,
    from: 'sure',
    roots: rootsOf(root),
    documents: null,
    listings: [],
    neighbours: [],
    mostLines: 5000,
    withChanges: true,
    mostSearched: null,
  });
}

const STARTERS = new Map(
  of.expansion.lines.flatMap(({ starter }) =>
    starter === null
      ? []
      : [[`${starter.fill ? 'filled' : 'plain'} ${starter.from}`, Buffer.from('a starter')] as const],
  ),
);

async function apply(root: string, { changes }: PlannedRepair): Promise<string> {
  const id = randomUUID();
  const batch = { id, what: 'repair', by: 'somebody', at: new Date(NOW).toISOString(), undoes: null };
  const task = { ...batch, where: whereOf(root), others: [], changes, contents: STARTERS };
  const context = { cancel: new AbortController().signal, tell: async () => undefined };
  const outcome = await applyBatch(task, context);
  if (outcome.state !== 'done') throw new Error(JSON.stringify(outcome));
  return id;
}

const undo = (root: string, batch: string) =>
  inRoot(whereOf(root), (home) =>
    undoOnDisk({
      roots: onlyHome(home),
      batch,
      id: randomUUID(),
      by: 'somebody',
      at: new Date(NOW).toISOString(),
      ids: null,
    }),
  );

/** Names, bytes and times of all that is nobody's own but the project's. */
function treeOf(root: string): string[] {
  return readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((at) => at !== '.nesting' && !at.startsWith('.nesting/'))
    .map((at) => {
      const entry = lstatSync(path.join(root, at));
      return entry.isDirectory() ? `${at}/` : `${at} ${entry.mtimeMs} ${readFileSync(path.join(root, at), 'utf8')}`;
    })
    .sort();
}

describe('on a real disk', () => {
  test.each(
    DISK_DAMAGES.filter((d) => !/limit|at another rate|in centimetres/.test(d.kind)).map((d) => [d.kind, d] as const),
  )('%s', async (_kind, damage) => {
    const root = write(damaged(of, [damage], 2).disk);
    const before = treeOf(root);
    const findings = await check(root);
    const planned = await plan(root, findings);
    // Planned twice it is the same plan, and nothing was touched by it.
    expect((await plan(root, findings)).fingerprint).toBe(planned.fingerprint);
    expect(treeOf(root)).toEqual(before);
    expect(planned.orderFaults).toEqual([]);
    if (planned.changes.length > 0) {
      const ready = new Set(planned.lines.filter((l) => l.state === 'ready').map((l) => l.id));
      const batch = await apply(root, planned);
      const again = await check(root);
      expect(again.filter((f) => ready.has(f.id))).toEqual([]);
      const known = new Set(findings.map((f) => `${f.rule} ${path.basename(f.path)}`));
      expect(
        again.filter((f) => !known.has(`${f.rule} ${path.basename(f.path)}`)).map((f) => `${f.rule} ${f.path}`),
      ).toEqual([]);
      expect((await undo(root, batch))?.state).toBe('done');
      expect(treeOf(root)).toEqual(before);
    }
    rmSync(root, { recursive: true });
  });

  test('twenty at once, every choice by its first answer, and back', async () => {
    for (let seed = 1; seed <= 4; seed++) {
      const root = write(damaged(of, drawDamages(20, seed), seed).disk);
      const before = treeOf(root);
      const findings = await check(root);
      const asked = await plan(root, findings);
      const answers = Object.fromEntries(
        asked.lines.flatMap((l) =>
          l.state === 'ask' && l.options[0] !== undefined ? [[l.id, { key: l.options[0].key }]] : [],
        ),
      );
      const planned = await plan(root, findings, answers);
      expect(planned.orderFaults).toEqual([]);
      const ready = new Set(
        planned.lines
          .filter((l) => l.state === 'ready' && l.options.find((o) => o.key === l.chosen)?.way !== 'accept')
          .map((l) => l.id),
      );
      expect(ready.size).toBeGreaterThan(8);
      const batch = await apply(root, planned);
      const stayed = (await check(root)).filter((f) => ready.has(f.id));
      expect(stayed.map((f) => `${f.rule} ${f.path}`)).toEqual([]);
      expect((await undo(root, batch))?.state).toBe('done');
      expect(treeOf(root)).toEqual(before);
    }
  });
});

describe('documents follow what moves', () => {
  const working = '40_motion/portico/s01/working/26011_portico_s01_anim_BO_v003.usda';

  function withDocument(bytes: Uint8Array): string {
    const disk = goodDisk(of);
    const root = write(disk);
    const sound = path.join(root, '50_sound/music');
    writeFileSync(path.join(sound, '26011_MUS_V04.wav'), 'music');
    writeFileSync(path.join(root, working), bytes);
    for (const at of [path.join(sound, '26011_MUS_V04.wav'), path.join(root, working)])
      utimesSync(at, Date.UTC(2026, 2, 6) / 1000, Date.UTC(2026, 2, 6) / 1000);
    return root;
  }

  const text = '#usda 1.0\n(a = @../../../../50_sound/music/26011_MUS_V04.wav@) # \u00e9\u{1d11e}\n';

  test('byte-exact but for the reference, with its old bytes back when it is undone', async () => {
    const root = withDocument(Buffer.from(text));
    const before = treeOf(root);
    const planned = await plan(root, await check(root));
    expect(planned.documents.map((d) => d.path)).toEqual([working]);
    const batch = await apply(root, planned);
    expect(readFileSync(path.join(root, working), 'utf8')).toBe(text.replace('_V04', '_v04'));
    expect((await check(root)).filter((f) => f.rule === 'broken-reference')).toEqual([]);
    await undo(root, batch);
    expect(treeOf(root)).toEqual(before);
  });

  test('one whose bytes are not certain is listed, and left', async () => {
    const bytes = Buffer.concat([Buffer.from(text), Buffer.from([0xff, 0xfe, 0x00])]);
    const root = withDocument(bytes);
    const planned = await plan(root, await check(root));
    expect(planned.documents).toEqual([]);
    // Nobody knows what it refers to: it is none of the documents that are known.
    await apply(root, planned);
    expect(readFileSync(path.join(root, working))).toEqual(bytes);
  });

  test('one that was changed since the plan stops it before it began', async () => {
    const root = withDocument(Buffer.from(text));
    const planned = await plan(root, await check(root));
    writeFileSync(path.join(root, working), `${text}# more`);
    await expect(apply(root, planned)).rejects.toThrow('changed');
    expect(lstatSync(path.join(root, '50_sound/music/26011_MUS_V04.wav')).isFile()).toBe(true);
  });
});

describe('documents that are more than a file', () => {
  const WHOLE = { '3D scene': { folder: true }, sound: { stem: true } } as const;
  const more = (families: readonly Family[] | undefined): Family[] =>
    (families ?? []).map((f) => ({
      ...f,
      ...(f.name === '3D scene' && { extensions: [...f.extensions, 'set'], document: WHOLE['3D scene'] }),
      ...(f.name === 'sound' && { document: WHOLE.sound }),
    }));
  const by: CheckInput = {
    ...input,
    registers: { ...registers, families: more(registers.families) },
    template: { ...template, registers: { ...template.registers, families: more(template.registers?.families) } },
  };
  const text = (content: string): Entry => ({ folder: false, size: content.length, modified: 0, content });

  test('a folder that is one document is judged by its name alone, and moves whole; what refers into it follows', async () => {
    const disk = goodDisk(of);
    const working = '40_motion/portico/s01/working';
    const wrong = `${working}/26011_portico_s01_anim_BO_V4.set`;
    disk.set(wrong, { folder: true, size: 0, modified: 0 });
    disk.set(`${wrong}/no rule: knows this?.exr`, text('inside'));
    disk.set(`${wrong}/parts/FINAL final`, text('more of it'));
    disk.set(`${wrong}/empty`, text(''));
    const list = '30_design/boards/26011_BRD_list_v001.csv';
    disk.set(
      list,
      text('what,where\nset,../../40_motion/portico/s01/working/26011_portico_s01_anim_BO_V4.set/parts/a.png\n'),
    );
    const root = write(disk);
    const before = treeOf(root);
    const found = (await check(root, by)).filter((f) => f.path.startsWith(wrong));
    expect(found.map((f) => [f.rule, f.path])).toEqual([['version-style', wrong]]);
    const planned = await plan(root, found, {}, by);
    const batch = await apply(root, planned);
    const right = wrong.replace('_V4', '_v004');
    expect(readFileSync(path.join(root, right, 'parts/FINAL final'), 'utf8')).toBe('more of it');
    expect(readFileSync(path.join(root, list), 'utf8')).toContain('_BO_v004.set/parts/a.png');
    expect((await check(root, by)).filter((f) => f.path.startsWith(working) && f.weight !== 'note')).toEqual([]);
    expect((await undo(root, batch))?.state).toBe('done');
    expect(treeOf(root)).toEqual(before);
  });

  test('files that share a name go where their document goes, with the words in front of it and behind', async () => {
    const disk = goodDisk(of);
    const at = '50_sound/music';
    for (const name of ['26011_MUS_V7.wav', '26011_MUS_V7.peaks', '26011_MUS_V7 levels 2.dat', 'of_26011_MUS_V7.idx'])
      disk.set(`${at}/${name}`, text(name));
    // One that only begins alike is a file of its own.
    disk.set(`${at}/26011_MUS_V77.dat`, text('another'));
    const root = write(disk);
    const before = treeOf(root);
    const found = (await check(root, by)).filter((f) => f.path.includes('V7'));
    expect(found.map((f) => path.basename(f.path)).sort()).toEqual(['26011_MUS_V7.wav', '26011_MUS_V77.dat']);
    const planned = await plan(
      root,
      found.filter((f) => f.path.endsWith('.wav')),
      {},
      by,
    );
    const batch = await apply(root, planned);
    expect(
      readdirSync(path.join(root, at))
        .filter((name) => /07|V77/.test(name))
        .sort(),
    ).toEqual([
      '26011_MUS_V77.dat',
      '26011_MUS_v07 levels 2.dat',
      '26011_MUS_v07.peaks',
      '26011_MUS_v07.wav',
      'of_26011_MUS_v07.idx',
    ]);
    expect((await undo(root, batch))?.state).toBe('done');
    expect(treeOf(root)).toEqual(before);
  });
});
