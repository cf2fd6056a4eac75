/**
 * Checks of disks as they are: rights, links, names that are no text, files that go, huge and hollow ones; whole,
 * quick, cut short and gone on with.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import {
  chmodSync,
  mkdirSync,
  mkdtempSync,
  renameSync,
  rmSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { NO_REGISTERS } from '@nesting/core/name';
import type { CheckInput } from '@nesting/core/project';
import { normaliseTemplate } from '@nesting/core/template';
import fc from 'fast-check';
import { Helper, shareOut } from '../src/check/helpers';
import { checkOnDisk, type DiskOutcome, type Gathered } from '../src/index';

const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'T',
  fields: [],
  conventions: [{ id: 'f', name: 'F', pattern: '{number}_{what:kebab}.{ext}' }],
  root: {
    name: '{number}',
    folders: [
      { id: 'a', name: 'a', conventions: ['f'] },
      { id: 'b', name: 'b', conventions: ['f'] },
      { id: 'c', name: 'c', free: true },
    ],
  },
});
const input: CheckInput = { template, values: { number: '26014' }, registers: NO_REGISTERS };
const script = new URL(`file://${path.join(process.cwd(), 'dist/disk-child.js')}`);
const whereOf = (base: string) => ({ base, folder: '' });

let root: string;
beforeEach(() => {
  root = mkdtempSync(path.join(tmpdir(), 'nesting-checks-'));
  for (const folder of ['a', 'b', 'c']) mkdirSync(path.join(root, folder));
});
afterEach(() => {
  execFileSync('chmod', ['-R', 'u+rwx', root]);
  rmSync(root, { recursive: true, force: true });
});

const put = (at: string, content = 'x') => {
  mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
  writeFileSync(path.join(root, at), content);
};
const found = (outcome: DiskOutcome) => outcome.findings.map((f) => `${f.rule} ${f.path}`);
const contents = { roots: [] as string[], known: [] };

describe('a disk as it is', () => {
  test('loops of links are not followed; a name that is no text is said, and the rest is seen', async () => {
    put('a/26014_x.png');
    symlinkSync(root, path.join(root, 'c/loop'));
    symlinkSync('/etc', path.join(root, 'c/out'));
    writeFileSync(
      Buffer.concat([Buffer.from(`${root}/a/26014_`), Buffer.from([0xff, 0xfe]), Buffer.from('.png')]),
      'x',
    );
    const outcome = await checkOnDisk({ where: whereOf(root), input, contents });
    expect(outcome.summary.files).toBe(1);
    expect(outcome.unseen.map((u) => u.code)).toEqual(['NOT-UTF-8']);
    expect(found(outcome)).toEqual(['unportable-name a/26014_\\xff\\xfe.png']);
    // A quick check that does not list that folder again says so again.
    expect((await checkOnDisk({ where: whereOf(root), input, contents, since: outcome })).unseen).toEqual(
      outcome.unseen,
    );
  });

  test('a folder without permission is said and what is beside it is judged', () => {
    put('a/broken name.png');
    put('b/26014_x.png');
    chmodSync(path.join(root, 'b'), 0o000);
    rmSync(path.join(root, 'c'), { recursive: true });
    chmodSync(root, 0o755);
    writeFileSync(path.join(root, '.rules.json'), JSON.stringify(template));
    writeFileSync(path.join(root, '.values.json'), JSON.stringify(input.values));
    // Root reads everything: the command line is run as nobody then.
    const args = [
      'bin/nesting.js',
      'check',
      path.join(root, '.rules.json'),
      root,
      '--values',
      path.join(root, '.values.json'),
      '--json',
    ];
    const as = process.getuid?.() === 0 ? { uid: 65_534, gid: 65_534 } : {};
    const run = spawnSync(process.execPath, args, { encoding: 'utf8', ...as });
    chmodSync(path.join(root, 'b'), 0o755);
    expect(run.stderr).toContain('not seen: b (EACCES)');
    expect(
      (JSON.parse(run.stdout) as { findings: { rule: string; path: string }[] }).findings
        .map((f) => `${f.rule} ${f.path}`)
        .filter((f) => !f.includes('.rules') && !f.includes('.values')),
    ).toEqual(['name-mismatch a/broken name.png', 'missing-folder c']);
  });

  test('files of terabytes that hold nothing, times to come and times before all', async () => {
    put('a/26014_huge.png');
    truncateSync(path.join(root, 'a/26014_huge.png'), 4 * 2 ** 40);
    put('a/26014_later.png');
    utimesSync(path.join(root, 'a/26014_later.png'), new Date('2999-01-01'), new Date('2999-01-01'));
    put('a/26014_first.png', 'y');
    utimesSync(path.join(root, 'a/26014_first.png'), 0, 0);
    const outcome = await checkOnDisk({
      where: whereOf(root),
      input: { ...input, now: Date.now() },
      contents: { ...contents, roots: ['/srv/somewhere/26014'] },
    });
    expect(outcome.bytes).toBeGreaterThan(4e12);
    expect(found(outcome)).toEqual([]);
    // Two of a size would have to be read to their ends: that is said, and not done.
    put('b/26014_huge-too.png');
    truncateSync(path.join(root, 'b/26014_huge-too.png'), 4 * 2 ** 40);
    const two = await checkOnDisk({ where: whereOf(root), input, contents });
    expect(two.unseen.map((u) => [u.path, u.code])).toEqual([
      ['a/26014_huge.png', 'TOO-LARGE'],
      ['b/26014_huge-too.png', 'TOO-LARGE'],
    ]);
  });

  test('a folder that lies on another volume is looked at where it lies; where that is away nothing is missed', async () => {
    const other = mkdtempSync(path.join(tmpdir(), 'nesting-other-'));
    try {
      const redirected = normaliseTemplate({
        ...template,
        root: {
          ...template.root,
          folders: [
            ...(template.root.folders ?? []),
            {
              id: 'd',
              name: 'd',
              conventions: ['f'],
              folders: [
                { id: 'e', name: 'e' },
                { id: 'g', name: 'g' },
              ],
            },
          ],
        },
      });
      const moved: CheckInput = { ...input, template: { ...redirected, adjusted: { d: { volume: 'other' } } } };
      mkdirSync(path.join(other, 'd/e'), { recursive: true });
      writeFileSync(path.join(other, 'd/e/bad name.png'), 'x');
      const mounts = [{ path: 'd', where: whereOf(other) }];
      for (const more of [{}, { script, helpers: 1 }]) {
        const outcome = await checkOnDisk({ where: whereOf(root), mounts, input: moved, contents, ...more });
        expect(found(outcome)).toEqual(['name-mismatch d/e/bad name.png', 'missing-folder d/g']);
        expect(
          found(await checkOnDisk({ where: whereOf(root), mounts, input: moved, contents, since: outcome, ...more })),
        ).toEqual(found(outcome));
      }
      expect(
        found(
          await checkOnDisk({
            where: whereOf(root),
            mounts: [{ path: 'd', where: whereOf(path.join(other, 'away')) }],
            input: moved,
          }),
        ),
      ).toEqual([]);
      expect(found(await checkOnDisk({ where: whereOf(root), input: moved }))).toEqual([]);
    } finally {
      rmSync(other, { recursive: true, force: true });
    }
  });

  test('what goes while it is looked into is said, and nothing else is lost by it', async () => {
    for (let n = 0; n < 60; n++) put(`a/26014_${String.fromCharCode(97 + (n % 26))}${'z'.repeat(n)}.png`, 'same');
    let gone = false;
    const outcome = await checkOnDisk({
      where: whereOf(root),
      input,
      contents,
      progress: () => {
        if (gone) return;
        gone = true;
        rmSync(path.join(root, 'a/26014_a.png'));
        put('a/26014_new.png', 'same');
      },
    });
    expect(outcome.cancelled).toBe(false);
    expect(found(outcome).filter((f) => f.startsWith('same-content'))).toHaveLength(1);
  });

  test('fifty thousand files in one folder', async () => {
    mkdirSync(path.join(root, 'a'), { recursive: true });
    for (let n = 0; n < 50_000; n++) writeFileSync(path.join(root, `a/26014_${n.toString(36)}.png`), '');
    put('a/broken name.png');
    const outcome = await checkOnDisk({
      where: whereOf(root),
      input: { ...input, template: { ...template, checks: { rules: { 'empty-file': 'off' } } } },
      script,
      helpers: 1,
    });
    expect(outcome.summary.files).toBe(50_001);
    expect(found(outcome)).toEqual(['name-mismatch a/broken name.png']);
  });
});

describe('a check again', () => {
  type Act = { readonly what: 'put' | 'remove' | 'rename' | 'folder'; readonly at: string; readonly to: string };
  const places = [
    'a/26014_x.png',
    'a/bad name.png',
    'b/26014_x.png',
    'b/26014_y.png',
    'c/deep/er/z.txt',
    'stuff/q.txt',
    'loose.txt',
    'a/26014_z.png',
  ];
  const act = fc.record({
    what: fc.constantFrom('put', 'remove', 'rename', 'folder') as fc.Arbitrary<Act['what']>,
    at: fc.constantFrom(...places),
    to: fc.constantFrom(...places),
  });

  function doIt({ what, at, to }: Act): void {
    const [from, into] = [path.join(root, at), path.join(root, to)];
    try {
      if (what === 'put') put(at, at.length % 2 === 0 ? 'even' : 'odd');
      else if (what === 'remove') rmSync(from, { recursive: true, force: true });
      else if (what === 'folder') mkdirSync(from, { recursive: true });
      else renameSync(from, into);
    } catch {
      // Not every act is possible everywhere.
    }
  }

  test('a quick one finds what a whole one finds, whatever was done in between', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(act, { maxLength: 8 }), fc.array(act, { maxLength: 5 }), async (first, then) => {
        rmSync(root, { recursive: true, force: true });
        for (const folder of ['a', 'b', 'c']) mkdirSync(path.join(root, folder), { recursive: true });
        first.forEach(doIt);
        const before = await checkOnDisk({ where: whereOf(root), input, contents });
        then.forEach(doIt);
        // A disk's times have steps: a change in the same one would not be seen.
        for (const folder of ['', 'a', 'b', 'c', 'c/deep', 'c/deep/er', 'stuff'])
          if (then.length > 0) execFileSync('touch', ['-c', path.join(root, folder)]);
        const quick = await checkOnDisk({
          where: whereOf(root),
          input,
          since: before,
          contents: { ...contents, known: before.facts },
        });
        const whole = await checkOnDisk({ where: whereOf(root), input, contents });
        expect(quick.findings).toEqual(whole.findings);
        expect(quick.summary).toEqual(whole.summary);
      }),
      { numRuns: 60, seed: 8 },
    );
  });

  test('a folder that is renamed before a helper opens it: said with its code, and no process breaks down', async () => {
    const where = { ...whereOf(root), folder: 'renamed meanwhile' };
    const helper = new Helper(script, { where, mounts: [], input, shallow: false });
    const sharing = {
      ...{ helpers: [helper], queue: [''], wanted: () => true, here: null, cancel: undefined },
      ...{ progress: () => undefined, gatherEvery: 1e9, gathered: async () => undefined },
    };
    await expect(shareOut(sharing)).rejects.toMatchObject({ code: 'path-missing', path: 'renamed meanwhile' });
    helper.end();
    expect(String(await helper.ended)).toContain('SIGKILL');
  });

  test('one that was cut short goes on, and finds the same as in one piece', async () => {
    for (let n = 0; n < 400; n++) put(`c/f${n}/x.txt`, String(n));
    put('a/bad name.png');
    const whole = await checkOnDisk({ where: whereOf(root), input, script, helpers: 1 });
    let left: Gathered | null = null;
    const cancel = { aborted: false };
    const cut = await checkOnDisk({
      where: whereOf(root),
      input,
      script,
      helpers: 1,
      cancel,
      gathered: {
        every: 0,
        keep: async (g) => {
          left = g;
          cancel.aborted = true;
        },
      },
    });
    expect(cut.cancelled).toBe(true);
    const kept = left as Gathered | null;
    expect(kept?.part.rows.length).toBeLessThan(whole.rows.length);
    expect(kept?.queue.length).toBeGreaterThan(0);
    const outcome = await checkOnDisk({
      where: whereOf(root),
      input,
      script,
      helpers: 1,
      ...(kept && { from: structuredClone(kept) }),
    });
    expect({ findings: outcome.findings, summary: outcome.summary }).toEqual({
      findings: whole.findings,
      summary: whole.summary,
    });
  });

  test('one that was cut off while it looked into files need not walk again', async () => {
    for (let n = 0; n < 300; n++) put(`c/f${n}/x.txt`, `${n % 7}`.repeat(5));
    const whole = await checkOnDisk({ where: whereOf(root), input, contents, script, helpers: 1 });
    let left: Gathered | null = null;
    const cancel = { aborted: false };
    const cut = await checkOnDisk({
      where: whereOf(root),
      input,
      contents,
      script,
      helpers: 1,
      cancel,
      progress: (p) => {
        cancel.aborted = p.stage === 'reading';
      },
      gathered: {
        every: Number.POSITIVE_INFINITY,
        keep: async (g) => {
          left = g;
        },
      },
    });
    expect(cut.cancelled).toBe(true);
    const kept = left as Gathered | null;
    expect([kept?.queue, kept?.part.rows.length]).toEqual([[], whole.rows.length]);
    const outcome = await checkOnDisk({
      where: whereOf(root),
      input,
      contents,
      script,
      helpers: 1,
      ...(kept && { from: kept }),
    });
    expect(found(outcome)).toEqual(found(whole));
    expect(found(whole).length).toBe(7);
  });

  test('what is known of a file is not read again, and is, once it has changed', async () => {
    put('a/26014_x.png', 'same');
    put('b/26014_y.png', 'same');
    const first = await checkOnDisk({ where: whereOf(root), input, contents });
    expect(found(first)).toEqual(['same-content a/26014_x.png']);
    const forged = first.facts.map((l) => ({ ...l, ...(l.sha256 && { sha256: `${l.path}` }) }));
    expect(found(await checkOnDisk({ where: whereOf(root), input, contents: { ...contents, known: forged } }))).toEqual(
      [],
    );
    put('b/26014_y.png', 'sane');
    expect(
      found(await checkOnDisk({ where: whereOf(root), input, contents: { ...contents, known: first.facts } })),
    ).toEqual([]);
  });
});
