/** The disk, for real: no way out of a volume, starts that are whole or not there, walks, and workers against none. */
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { type Change, home } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import { NO_REGISTERS } from '@nesting/core/name';
import type { CheckInput } from '@nesting/core/project';
import { normaliseTemplate } from '@nesting/core/template';
import {
  checkOnDisk,
  listFolder,
  onlyHome,
  portOn,
  Root,
  startOnDisk,
  sweep,
  TASKS,
  Tree,
  UNFINISHED,
  Unreachable,
  volumeState,
} from '../src/index';

const all: string[] = [];
let root = '';
const at = (base: string, folder = '') => Root.open({ base, folder });
const list = (path: string, unseen: (u: { path: string; code: string }) => void = () => undefined) =>
  listFolder(Tree.of(at(root)), path, unseen);
beforeEach(() => {
  root = mkdtempSync(path.join(tmpdir(), 'nesting disk '));
  all.push(root);
});
afterAll(() => {
  for (const folder of all) rmSync(folder, { recursive: true, force: true });
});

const made = (path: string, text?: string): Change => ({
  id: path,
  subject: { kind: 'line', line: path },
  group: null,
  entry: text === undefined ? 'folder' : 'file',
  before: null,
  after: home(path),
  content: text === undefined ? null : { kind: 'text', text },
});
const changes = [made('a'), made('a/b'), made('a/b/x.txt', 'one'), made('y.txt', 'two')];
const bytesOf = (content: { kind: string; text?: string }) => Buffer.from(content.text ?? '');
const start = (more: Partial<Parameters<typeof startOnDisk>[0]> = {}) =>
  startOnDisk({ parent: at(root), folder: 'show', project: 'p1', changes, bytesOf, ...more });

describe('no way out of a volume', () => {
  test.each([
    ['../x', 'path-refused'],
    ['a/../../x', 'path-refused'],
    ['/etc/passwd', 'path-refused'],
    ['a//b', 'path-refused'],
    ['./a', 'path-refused'],
    ['a\0b', 'path-refused'],
    ['C:/x', 'path-refused'],
    ['out', 'path-link'],
    ['out/passwd', 'path-link'],
    ['deep/link/x', 'path-link'],
    ['gone', 'path-missing'],
    ['x'.repeat(5000), 'path-refused'],
  ])('%j is refused: %s', (relative, code) => {
    symlinkSync('/etc', path.join(root, 'out'));
    mkdirSync(path.join(root, 'deep'));
    symlinkSync(root, path.join(root, 'deep/link'));
    let answer = 'taken';
    try {
      at(root, relative).close();
    } catch (error) {
      answer = error instanceof Unreachable ? error.code : 'another error';
    }
    expect(answer).toBe(code);
  });

  test('a port refuses to write outside its folder', () => {
    expect(() => portOn(onlyHome(at(root))).make(home('../evil'))).toThrow(/EREFUSED/);
    expect(() => portOn(onlyHome(at(root))).write(home('/tmp/evil'), new Uint8Array())).toThrow(/EREFUSED/);
  });

  test('walks name links and do not follow them, loops neither', () => {
    mkdirSync(path.join(root, 'a'));
    symlinkSync('/etc', path.join(root, 'a/etc'));
    symlinkSync('..', path.join(root, 'a/loop'));
    expect(list('')).toMatchObject({ folders: ['a'], others: [] });
    expect(list('a')).toMatchObject({ folders: [], others: ['etc', 'loop'] });
    expect(TASKS.namesBelow.run({ where: { base: root, folder: '' }, most: 10 })).toEqual({
      paths: ['a/'],
      whole: true,
    });
    expect(TASKS.foldersBelow.run({ where: { base: root, folder: '' }, most: 10 })).toEqual({
      folders: ['a'],
      whole: true,
    });
  });
});

describe('a start is whole or not there', () => {
  test('everything is written under the final name', async () => {
    expect(await start()).toEqual({ ok: true });
    expect(readFileSync(path.join(root, 'show/a/b/x.txt'), 'utf8')).toBe('one');
    expect(readdirSync(root)).toEqual(['show']);
  });

  test.each([
    ['a folder', (at: string) => mkdirSync(at)],
    ['a file', (at: string) => writeFileSync(at, 'mine')],
    ['a broken link', (at: string) => symlinkSync('/nowhere', at)],
  ])('%s of that name stays as it is', async (_what, make) => {
    make(path.join(root, 'show'));
    expect(await start()).toEqual({ ok: false, code: 'EEXIST', at: '', stayed: [] });
    expect(readdirSync(root)).toEqual(['show']);
  });

  test('a folder that appears while it is being written is not touched', async () => {
    const outcome = await start({
      progress: (done) => {
        if (done === 3) mkdirSync(path.join(root, 'show/theirs'), { recursive: true });
      },
    });
    expect(outcome).toEqual({ ok: false, code: 'EEXIST', at: '', stayed: [] });
    expect(readdirSync(path.join(root, 'show'))).toEqual(['theirs']);
    expect(readdirSync(root)).toEqual(['show']);
  });

  test('a full disk half way leaves nothing behind, and says where it was full', async () => {
    const outcome = await start({
      bytesOf: (content) => {
        if (content.kind === 'text' && content.text === 'two')
          throw Object.assign(new Error('full'), { code: 'ENOSPC' });
        return bytesOf(content);
      },
    });
    expect(outcome).toEqual({ ok: false, code: 'ENOSPC', at: 'y.txt', stayed: [] });
    expect(readdirSync(root)).toEqual([]);
  });

  test('what somebody put into the unfinished folder stays, and is said', async () => {
    const outcome = await start({
      progress: (done) => {
        if (done === 3) writeFileSync(path.join(root, `${UNFINISHED}p1/a/theirs.txt`), 'mine');
        if (done === 4) mkdirSync(path.join(root, 'show'));
      },
    });
    expect(outcome).toMatchObject({ ok: false, code: 'EEXIST', stayed: [`${UNFINISHED}p1/a`, `${UNFINISHED}p1`] });
    expect(readFileSync(path.join(root, `${UNFINISHED}p1/a/theirs.txt`), 'utf8')).toBe('mine');
  });

  test('cancelling takes everything back', async () => {
    const cancel = { aborted: false };
    expect(
      await start({
        cancel,
        progress: (done) => {
          cancel.aborted = done === 2;
        },
      }),
    ).toMatchObject({ ok: false, code: 'CANCELLED', stayed: [] });
    expect(readdirSync(root)).toEqual([]);
  });

  test('a crash leaves one folder with our name, and sweeping removes that alone', () => {
    mkdirSync(path.join(root, `${UNFINISHED}p1/a`), { recursive: true });
    mkdirSync(path.join(root, `${UNFINISHED}p2`));
    mkdirSync(path.join(root, 'theirs'));
    expect(sweep(at(root), (project) => project === 'p1')).toEqual([`${UNFINISHED}p1`]);
    expect(readdirSync(root).sort()).toEqual([`${UNFINISHED}p2`, 'theirs']);
  });

  test('a volume that is away, or read-only, is told apart', () => {
    expect(volumeState(path.join(root, 'gone')).state).toBe('missing');
    expect(volumeState(root)).toMatchObject({ state: 'ready', freeBytes: expect.any(Number) });
    writeFileSync(path.join(root, 'file'), '');
    expect(volumeState(path.join(root, 'file')).state).toBe('missing');
  });
});

describe('checks on a disk', () => {
  const template = normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'Many',
    fields: [{ key: 'days', type: 'list', of: { type: 'count' } }],
    conventions: [{ name: 'Frame', id: 'f', pattern: '{number}_{frame:0000}.{ext}' }],
    root: {
      name: '{number}',
      folders: [{ name: 'day{day:000}', onePer: { list: 'days', as: 'day' }, conventions: ['f'] }],
    },
  });
  const input: CheckInput = { template, values: { number: '26014', days: '1..300' }, registers: NO_REGISTERS };

  function many(): void {
    for (let day = 1; day <= 300; day++) {
      const folder = path.join(root, `day${String(day).padStart(3, '0')}`);
      if (day % 50 !== 0) mkdirSync(folder);
      if (day % 50 !== 0)
        for (let n = 1; n <= 4; n++)
          writeFileSync(path.join(folder, n === 4 && day % 7 === 0 ? `26014-000${n}.png` : `26014_000${n}.png`), 'x');
    }
    mkdirSync(path.join(root, 'stray/deep/er'), { recursive: true });
    writeFileSync(path.join(root, 'loose.txt'), '');
    mkdirSync(path.join(root, '.nesting/journal'), { recursive: true });
  }

  test('helpers find what one process finds, to the letter', async () => {
    many();
    const script = path.join(process.cwd(), 'dist/disk-child.js');
    expect(existsSync(script)).toBe(true);
    const where = { base: root, folder: '' };
    const alone = await checkOnDisk({ where, input });
    expect(alone.findings.length).toBeGreaterThan(40);
    // Who saw which folder, and when, is another each time.
    const told = ({ part: _part, ...outcome }: Awaited<ReturnType<typeof checkOnDisk>>) => outcome;
    for (const helpers of [1, 2])
      expect(told(await checkOnDisk({ where, input, script: new URL(`file://${script}`), helpers }))).toEqual(
        told(alone),
      );
  });

  test('what cannot be seen is said, and the rest is whole', async () => {
    many();
    chmodSync(path.join(root, 'day001'), 0o000);
    const unseen: string[] = [];
    // Root reads everything: there the folder is taken away between listing and looking instead.
    if (process.getuid?.() === 0) rmSync(path.join(root, 'day001'), { recursive: true });
    expect(list('day001', (u) => unseen.push(join(u.path, u.code)))).toBeNull();
    expect(unseen).toHaveLength(1);
    const outcome = await checkOnDisk({ where: { base: root, folder: '' }, input });
    expect(outcome.summary.folders).toBeGreaterThan(290);
  });
});
