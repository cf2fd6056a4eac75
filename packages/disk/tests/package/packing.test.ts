/** Packages on a real disk: every form is read by others, and what happens meanwhile is told. */
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { PACKAGE_KINDS } from '@nesting/core/package';
import { WHOLE_PROJECT } from '@nesting/core/planners';
import { planPack } from '../../src/children/pack';
import { lookAtPackage, unpackPackage, verifyFiles } from '../../src/children/packages';
import { type Files, faultsOfBag, has, packed, put, run, THEN, taskFor, treeOf } from './made';

let base: string;
let made = 0;
beforeAll(() => {
  base = mkdtempSync(path.join(tmpdir(), 'nesting-package-'));
});
afterAll(() => rmSync(base, { recursive: true, force: true }));

const WORK: Files = {
  'motion/26014_s01_v001.mov': 'first',
  'motion/26014_s01_v002.mov': new Uint8Array(5_000_000).map((_, i) => (i * 7919) >> 3),
  'motion/long.txt': 'the same again\n'.repeat(20_000),
  'motion/empty.txt': '',
  'motion/ö % b\\c\nd.txt': 'a name that nobody should give',
  'motion/west.cache': 'made along the way',
  'quotes/2026-02-11_quote.txt': 'dear',
};

function project(files: Files = WORK): { readonly root: string; readonly into: string } {
  const at = path.join(base, String(++made));
  const [root, into] = [path.join(at, '26014_show'), path.join(at, 'packages')];
  mkdirSync(into, { recursive: true });
  mkdirSync(path.join(root, 'empty'), { recursive: true });
  put(root, files);
  return { root, into };
}

const context = { cancel: new AbortController().signal, tell: async () => undefined };
const verified = (into: string, name: string) =>
  verifyFiles({ where: { base: into, folder: '' }, path: name }, context);
const going = [
  'motion/26014_s01_v001.mov',
  'motion/26014_s01_v002.mov',
  'motion/empty.txt',
  'motion/long.txt',
  'motion/ö % b\\c\nd.txt',
];

describe.each(PACKAGE_KINDS)('%s', (kind) => {
  test('holds what goes, is whole, and becomes the same project again', async () => {
    const { root, into } = project();
    const before = treeOf(root);
    const task = taskFor(root, into, kind);
    const outcome = await packed(task);
    expect(outcome.state).toBe('done');
    expect(treeOf(root)).toEqual(before);
    expect(readdirSync(into).sort()).toEqual([task.name, `${task.name}.sha256`]);
    const verdict = await verified(into, task.name);
    expect([verdict.isWhole, verdict.isOuterRight, verdict.beside]).toEqual([true, true, []]);
    const at = { where: { base: into, folder: '' }, path: task.name };
    const { read } = await lookAtPackage(at, context);
    if (read === null) throw new Error('not read');
    expect(read.files.map((file) => file.path).sort()).toEqual([...going].sort());
    const own = [{ path: '.nesting/project.json', text: '{}' }];
    await unpackPackage({ ...at, read, into: { base: into, folder: '' }, folder: 'again', own, id: 'x' }, context);
    const again = treeOf(path.join(into, 'again'));
    for (const one of going) expect(again[one]).toBe(before[one]);
    expect(Object.keys(again)).toHaveLength(going.length + 1);
    expect(existsSync(path.join(into, 'again/empty'))).toBe(true);
    // A second time its name is taken.
    await expect(packed(task)).rejects.toMatchObject({ code: 'EEXIST' });
    await expect(
      unpackPackage({ ...at, read, into: { base: into, folder: '' }, folder: 'again', own, id: 'y' }, context),
    ).rejects.toMatchObject({ code: 'EEXIST' });
  });

  test('ended at any file it goes on, and comes to the same bytes', async () => {
    const { root, into } = project();
    const whole = await packed(taskFor(root, into, kind));
    if (whole.state !== 'done') throw new Error('not packed');
    for (let after = 0; after <= going.length; after++) {
      const other = path.join(path.dirname(into), `again ${after}`);
      mkdirSync(other);
      const task = taskFor(root, other, kind);
      let seen = -1;
      const cancel = {
        get aborted() {
          return seen >= after;
        },
      } as AbortSignal;
      const tell = ({ files }: { readonly files: number }) => {
        seen = Math.max(seen, files);
      };
      const first = await packed(task, { cancel, tell }).catch((error: { readonly code: string }) => error.code);
      if (typeof first !== 'string') {
        expect(first).toEqual(whole);
        continue;
      }
      expect(first).toBe('STOPPED');
      // What stands behind the last whole entry is torn.
      const part = path.join(other, `${task.name}.part`);
      if (kind !== 'bag' && existsSync(part)) writeFileSync(part, 'torn', { flag: 'a' });
      const done = await packed(task);
      expect(done).toEqual(whole);
      expect(readdirSync(other).sort()).toEqual([task.name, `${task.name}.sha256`]);
    }
  });

  test('what was changed since an earlier try is packed anew', async () => {
    const { root, into } = project();
    const task = taskFor(root, into, kind);
    chmodSync(path.join(root, 'motion/long.txt'), 0o644);
    symlinkSync('/nowhere', path.join(root, 'motion/link'));
    const first = await packed({ ...task, shown: 'another plan' }).catch((error: { code: string }) => error.code);
    expect(first).toBe('EOTHERPLAN');
    writeFileSync(path.join(root, 'motion/26014_s01_v001.mov'), 'later');
    utimesSync(path.join(root, 'motion/26014_s01_v001.mov'), THEN + 60, THEN + 60);
    const done = await packed(task);
    expect(done.state).toBe('done');
    expect((await verified(into, task.name)).isWhole).toBe(true);
  });
});

test('programs of others read the zip, its times and its checksums', async () => {
  const { root, into } = project({ ...WORK, 'motion/ö % b\\c\nd.txt': 'x', 'motion/grün.txt': 'x' });
  rmSync(path.join(root, 'motion/ö % b\\c\nd.txt'));
  await packed(taskFor(root, into, 'zip'));
  expect(run('sha256sum', ['-c', '26014_show.zip.sha256'], into)).toContain('OK');
  if (has('python3')) expect(run('python3', ['-m', 'zipfile', '-t', '26014_show.zip'], into)).toContain('Done');
  if (!has('unzip')) return;
  run('unzip', ['-q', '26014_show.zip', '-d', 'out'], into);
  const out = path.join(into, 'out/26014_show');
  expect(run('sha256sum', ['-c', '--quiet', 'sha256sums.txt'], out)).toBe('');
  expect(treeOf(out)['motion/grün.txt']).toBe(treeOf(root)['motion/grün.txt']);
});

test('a bag is one by the letter of its standard, and sha256sum checks it', async () => {
  const { root, into } = project();
  await packed(taskFor(root, into, 'bag'));
  expect(faultsOfBag(path.join(into, '26014_show'))).toEqual([]);
  expect(run('sha256sum', ['-c', '--quiet', 'tagmanifest-sha256.txt'], path.join(into, '26014_show'))).toBe('');
  expect(run('sha256sum', ['-c', '26014_show.sha256'], into)).toContain('OK');
});

test('what cannot be read is told, and waits until it may be left out', async () => {
  const { root, into } = project();
  const gone = path.join(root, 'motion/long.txt');
  const task = taskFor(root, into, 'zip');
  // It is planned, and is a link when its turn comes.
  let isSwapped = false;
  const swap = () => {
    if (isSwapped) return;
    isSwapped = true;
    rmSync(gone);
    symlinkSync('/etc/hostname', gone);
  };
  const outcome = await packed(task, { tell: swap });
  expect(outcome).toEqual({ state: 'waits', notPacked: [{ path: 'motion/long.txt', code: 'ELOOP' }] });
  expect(existsSync(path.join(into, task.name))).toBe(false);
  rmSync(gone);
  put(root, { 'motion/long.txt': 'here again' });
  expect((await packed(task)).state).toBe('done');
});

test('what is written all the time is left out only where that is wanted', async () => {
  const { root, into } = project();
  const busy = path.join(root, 'motion/26014_s01_v002.mov');
  let second = THEN;
  const write = () => utimesSync(busy, ++second, second);
  const task = taskFor(root, into, 'zip');
  const cancel = {
    get aborted() {
      write();
      return false;
    },
  } as unknown as AbortSignal;
  const outcome = await packed(task, { cancel });
  expect(outcome).toEqual({ state: 'waits', notPacked: [{ path: 'motion/26014_s01_v002.mov', code: 'ECHANGED' }] });
  const done = await packed({ ...task, mayLeaveOut: true }, { cancel });
  expect(done).toMatchObject({ state: 'done', packed: { files: going.length - 1 } });
  expect((await verified(into, task.name)).isWhole).toBe(true);
});

test('who gets it: quotes stay in the house, caches stay, and what is picked by hand goes', async () => {
  const { root, into } = project();
  const plan = async (selection: object) => {
    const { staying, files } = await planPack({
      ...taskFor(root, into, 'zip'),
      selection: { ...WHOLE_PROJECT, ...selection },
    });
    return [files, staying.map(({ stays, files: n }) => `${stays} ${n}`).sort()];
  };
  expect(await plan({})).toEqual([5, ['generated 1', 'outsiders 1']]);
  expect(await plan({ isForOutsiders: false })).toEqual([6, ['generated 1']]);
  expect(await plan({ picked: { quotes: true, 'motion/west.cache': true } })).toEqual([7, []]);
  expect(await plan({ comes: 'current' })).toEqual([4, ['generated 1', 'outsiders 1', 'superseded 1']]);
  expect(await plan({ within: 'quotes', isForOutsiders: false })).toEqual([1, ['elsewhere 6']]);
});

test('licensed material goes with its terms, which are shown before; a note that is a link says nothing', async () => {
  const { root, into } = project({
    'library/gulls.wav': 'gulls',
    'library/gulls.licence.txt': 'May be used for: a show\nMay be used until: 2025-01-01\n',
    'library/waves.wav': 'waves',
  });
  symlinkSync('/etc/hostname', path.join(root, 'library/waves.licence.txt'));
  const { rules } = taskFor(root, into, 'bag');
  const folders = [...(rules.template.root.folders ?? []), { id: 'library', name: 'library', licensed: true }];
  const licensing = { ...rules, template: { ...rules.template, root: { ...rules.template.root, folders } } };
  const task = taskFor(root, into, 'bag', { rules: licensing });
  expect((await planPack(task)).licensed).toMatchObject([
    { path: 'library/gulls.wav', note: 'library/gulls.licence.txt', use: 'a show', day: '2025-01-01' },
    { path: 'library/waves.wav', note: 'library/waves.licence.txt', use: '' },
  ]);
  await packed(task);
  expect(readFileSync(path.join(into, '26014_show/licences.csv'), 'utf8')).toBe(
    'path,may be used for,may be used until,may be given to,note\r\n' +
      'library/gulls.wav,a show,2025-01-01,,library/gulls.licence.txt\r\nlibrary/waves.wav,,,,library/waves.licence.txt\r\n',
  );
  expect(faultsOfBag(path.join(into, '26014_show'))).toEqual([]);
  expect((await verified(into, '26014_show')).isWhole).toBe(true);
});

test('links and names that are no text cannot go: it is said before, and written in the package', async () => {
  const { root, into } = project();
  symlinkSync('/etc/hostname', path.join(root, 'motion/link'));
  writeFileSync(Buffer.concat([Buffer.from(`${root}/motion/`), Buffer.from([0x66, 0xff, 0x2e, 0x74])]), 'no text');
  const { cannot, files } = await planPack(taskFor(root, into, 'zip'));
  expect([files, cannot.map(({ code }) => code).sort()]).toEqual([going.length, ['ELOOP', 'NOT-UTF-8']]);
  expect(
    (await planPack({ ...taskFor(root, into, 'zip'), selection: { ...WHOLE_PROJECT, within: 'quotes' } })).cannot,
  ).toEqual([]);
  await packed(taskFor(root, into, 'zip'));
  const { read } = await lookAtPackage({ where: { base: into, folder: '' }, path: '26014_show.zip' }, context);
  expect(read?.record.leftOut).toHaveLength(2);
});

test('a zip with more entries than a short list can count is read by others', async () => {
  const { root, into } = project({});
  for (let i = 0; i < 66_000; i++) {
    if (i % 1000 === 0) mkdirSync(path.join(root, `motion/${i / 1000}`), { recursive: true });
    writeFileSync(path.join(root, `motion/${Math.floor(i / 1000)}/${i}.txt`), '');
  }
  await packed(taskFor(root, into, 'zip'));
  expect((await verified(into, '26014_show.zip')).proved).toBeGreaterThan(66_000);
  if (has('python3'))
    expect(
      run(
        'python3',
        ['-c', 'import zipfile; z = zipfile.ZipFile("26014_show.zip"); print(len(z.namelist()), z.testzip())'],
        into,
      ),
    ).toMatch(/^660\d\d None\n$/);
  truncateSync(path.join(into, '26014_show.zip'), 1_000_000);
  expect((await verified(into, '26014_show.zip')).isWhole).toBe(false);
  expect(readFileSync(path.join(into, '26014_show.zip.sha256'), 'utf8')).toMatch(/^[0-9a-f]{64} {2}26014_show\.zip\n$/);
}, 300_000);
