/** Packages that are not whole, of ours and of others: each fault is found, and nobody is led out of a folder. */
import { createHash } from 'node:crypto';
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { lookAtPackage, verifyFiles } from '../../src/children/packages';
import { type Files, faultsOfBag, packed, put, taskFor } from './made';

let base: string;
let made = 0;
beforeAll(() => {
  base = mkdtempSync(path.join(tmpdir(), 'nesting-proving-'));
});
afterAll(() => rmSync(base, { recursive: true, force: true }));

const WORK: Files = {
  'motion/26014_s01_v001.mov': new Uint8Array(3000).map((_, i) => (i * 7919) >> 3),
  'motion/26014_s01_v002.mov': 'second',
  'motion/empty.txt': '',
};

const context = { cancel: new AbortController().signal, tell: async () => undefined };
const verify = (into: string, name: string) => verifyFiles({ where: { base: into, folder: '' }, path: name }, context);

function place(): string {
  const into = path.join(base, String(++made));
  mkdirSync(into);
  return into;
}

async function packedAs(kind: 'zip' | 'bag' | 'bag-zip'): Promise<{ readonly into: string; readonly name: string }> {
  const [root, into] = [path.join(place(), '26014_show'), place()];
  put(root, WORK);
  const task = taskFor(root, into, kind);
  await packed(task);
  return { into, name: task.name };
}

describe('a byte that is another, anywhere', () => {
  test.each(['zip', 'bag-zip'] as const)('is found in a %s by the checksum beside it', async (kind) => {
    const { into, name } = await packedAs(kind);
    const whole = readFileSync(path.join(into, name));
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.integer({ min: 1, max: 255 }), async (at, by) => {
        const other = Buffer.from(whole);
        other[at] = (other[at] ?? 0) ^ by;
        writeFileSync(path.join(into, name), other);
        expect(await verify(into, name)).toMatchObject({ isWhole: false, isOuterRight: false });
      }),
      { numRuns: 200 },
    );
    writeFileSync(path.join(into, name), whole);
    expect((await verify(into, name)).isWhole).toBe(true);
  });

  test('is found in a zip that came alone, but for what compressing leaves open', async () => {
    const { into, name } = await packedAs('zip');
    rmSync(path.join(into, `${name}.sha256`));
    const whole = readFileSync(path.join(into, name));
    const found = { missed: 0, all: 0 };
    // Every second byte by one of its bits in turn.
    for (let at = 0; at < whole.length; at += 2) {
      const other = Buffer.from(whole);
      other[at] = (other[at] ?? 0) ^ (1 << ((at / 2) % 8));
      writeFileSync(path.join(into, name), other);
      found.all++;
      if ((await verify(into, name)).isWhole) found.missed++;
    }
    // In a compressed entry a few bits mean nothing: the last ones, and lengths of codes that are not used.
    expect(found.all).toBeGreaterThan(1500);
    expect(found.missed).toBeLessThan(found.all / 200);
  });

  test('is found in each file of a bag', async () => {
    const { into, name } = await packedAs('bag');
    const bag = path.join(into, name);
    for (const at of readdirSync(bag, { recursive: true, encoding: 'utf8' })) {
      const whole = statSync(path.join(bag, at)).isFile() ? readFileSync(path.join(bag, at)) : Buffer.alloc(0);
      for (let byte = 0; byte < whole.length; byte += Math.max(1, Math.floor(whole.length / 25))) {
        const other = Buffer.from(whole);
        other[byte] = (other[byte] ?? 0) ^ 0x20;
        writeFileSync(path.join(bag, at), other);
        expect([at, byte, (await verify(into, name)).isWhole]).toEqual([at, byte, false]);
      }
      if (whole.length > 0) writeFileSync(path.join(bag, at), whole);
    }
    expect([(await verify(into, name)).isWhole, faultsOfBag(bag)]).toEqual([true, []]);
  });
});

test('what is missing, changed and extra is named, in a bag and in a folder with a list of checksums', async () => {
  const { into, name } = await packedAs('bag');
  const at = (file: string) => path.join(into, name, file);
  writeFileSync(at('data/motion/26014_s01_v002.mov'), 'Second');
  rmSync(at('data/motion/empty.txt'));
  writeFileSync(at('data/motion/more.txt'), 'more');
  writeFileSync(at('beside.txt'), 'nobody lists it');
  expect(await verify(into, name)).toMatchObject({
    ...{ form: 'bag', isWhole: false, missing: ['data/motion/empty.txt'], extra: ['data/motion/more.txt'] },
    ...{ changed: [{ path: 'data/motion/26014_s01_v002.mov', isUnreadable: false }], beside: ['beside.txt'] },
  });
  const folder = place();
  const hash = (text: string) => createHash('sha256').update(text).digest('hex');
  put(path.join(folder, 'sent'), {
    'one.txt': 'one',
    'two.txt': 'two!',
    'more.txt': 'more',
    SHA256SUMS: `${hash('one')} *one.txt\r\n${hash('two')}  ./two.txt\r\n${hash('x')}  gone/x.txt\r\n`,
  });
  expect(await verify(folder, 'sent')).toMatchObject({
    ...{ form: 'sums', proved: 1, missing: ['gone/x.txt'], extra: ['more.txt'] },
    changed: [{ path: 'two.txt', isUnreadable: false }],
  });
  expect(await verify(folder, '')).toMatchObject({ form: 'sums', root: 'sent', proved: 1 });
});

describe('bags of others', () => {
  const sum = (algorithm: string, text: string) => createHash(algorithm).update(text).digest('hex');
  const DECLARATION = 'BagIt-Version: 0.97\r\nTag-File-Character-Encoding: UTF-8\r\n';
  async function verdictOn(files: Files) {
    const at = place();
    put(path.join(at, 'bag'), files);
    const { isWhole, faults, missing, extra } = await verify(at, 'bag');
    return { isWhole, faults: faults.map(({ code }) => code), missing, extra };
  }
  const one = { 'bagit.txt': DECLARATION, 'data/one.txt': 'one' };

  test('other algorithms, line ends and percent codes are read', async () => {
    const files = { ...one, 'data/100%.txt': 'x', 'data/a\nb.txt': 'y' };
    const lines = (algorithm: string) =>
      `${sum(algorithm, 'one').toUpperCase()}\tdata/one.txt\r\n${sum(algorithm, 'x')} data/100%25.txt\r\n${sum(algorithm, 'y')} data/a%0Ab.txt\r\n`;
    const lists = { 'manifest-md5.txt': lines('md5'), 'manifest-sha512.txt': lines('sha512') };
    expect(await verdictOn({ ...files, ...lists })).toEqual({ isWhole: true, faults: [], missing: [], extra: [] });
    expect(await verdictOn({ ...files, ...lists, 'manifest-blake9.txt': '' })).toMatchObject({ isWhole: true });
    expect(await verdictOn({ ...one, 'manifest-blake9.txt': '' })).toMatchObject({ faults: ['algorithm-unknown'] });
  });

  test.each([
    ['no manifest', one, ['no-manifest']],
    [
      'a declaration of its own',
      { ...one, 'bagit.txt': 'BagIt', 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n` },
      ['bag-declaration'],
    ],
    [
      'out of it',
      { ...one, 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n${sum('md5', 'x')} data/../../x\n` },
      ['path-unsafe'],
    ],
    [
      'from the top',
      { ...one, 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n${sum('md5', 'x')} /etc/passwd\n` },
      ['path-unsafe', 'path-unsafe'],
    ],
    ['twice', { ...one, 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n`.repeat(2) }, ['listed-twice']],
    [
      'a line that is none',
      { ...one, 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\nwhat\n` },
      ['line-unreadable'],
    ],
    [
      'to be fetched',
      {
        ...one,
        'fetch.txt': 'http://127.0.0.1/ 3 data/x\n',
        'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n`,
      },
      ['to-be-fetched'],
    ],
    [
      'other bytes',
      { ...one, 'bag-info.txt': 'Payload-Oxum: 4.1\n', 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n` },
      ['bytes-differ'],
    ],
    [
      'only in one',
      { ...one, 'manifest-sha1.txt': '', 'manifest-md5.txt': `${sum('md5', 'one')} data/one.txt\n` },
      ['not-in-every-manifest'],
    ],
  ])('%s', async (_, files, faults) => {
    expect(await verdictOn(files)).toMatchObject({ isWhole: false, faults });
  });

  test('a name in other capitals is another file', async () => {
    const list = { 'manifest-md5.txt': `${sum('md5', 'one')} data/One.txt\n` };
    expect(await verdictOn({ ...one, ...list })).toMatchObject({ missing: ['data/One.txt'], extra: ['data/one.txt'] });
  });
});

describe('zips that deceive', () => {
  /** Headers by the letter of the format, with whatever one says in them. */
  function zipOf(
    entries: readonly {
      name: string;
      data: string;
      at?: number;
      method?: number;
      flags?: number;
      size?: number;
      localName?: string;
    }[],
  ): Buffer {
    const [locals, central]: [Buffer[], Buffer[]] = [[], []];
    let end = 0;
    for (const { name, data, at, method = 0, flags = 0x800, size = data.length, localName = name } of entries) {
      const local = Buffer.alloc(30);
      local.writeUInt32LE(0x04034b50);
      for (const [offset, value] of [
        [4, 20],
        [6, flags],
        [8, method],
        [26, Buffer.byteLength(localName)],
      ] as const)
        local.writeUInt16LE(value, offset);
      for (const [offset, value] of [
        [18, data.length],
        [22, size],
      ] as const)
        local.writeUInt32LE(value, offset);
      const head = Buffer.alloc(46);
      head.writeUInt32LE(0x02014b50);
      for (const [offset, value] of [
        [4, 20],
        [6, 20],
        [8, flags],
        [10, method],
        [28, Buffer.byteLength(name)],
      ] as const)
        head.writeUInt16LE(value, offset);
      for (const [offset, value] of [
        [20, data.length],
        [24, size],
        [42, at ?? end],
      ] as const)
        head.writeUInt32LE(value, offset);
      central.push(head, Buffer.from(name));
      const written = Buffer.concat([local, Buffer.from(localName), Buffer.from(data)]);
      if (at === undefined) locals.push(written);
      if (at === undefined) end += written.length;
    }
    const list = Buffer.concat(central);
    const tail = Buffer.alloc(22);
    tail.writeUInt32LE(0x06054b50);
    for (const offset of [8, 10]) tail.writeUInt16LE(entries.length, offset);
    tail.writeUInt32LE(list.length, 12);
    tail.writeUInt32LE(end, 16);
    return Buffer.concat([...locals, list, tail]);
  }

  const hash = createHash('sha256').update('one').digest('hex');
  const fine = [
    { name: 'one.txt', data: 'one' },
    { name: 'sha256sums.txt', data: `${hash}  one.txt\n` },
  ];
  const verdictOn = async (bytes: Uint8Array) => {
    const at = place();
    writeFileSync(path.join(at, 'a.zip'), bytes);
    return verify(at, 'a.zip');
  };

  test('one of others is whole where its list says so', async () => {
    expect(await verdictOn(zipOf(fine))).toMatchObject({ isWhole: true, proved: 1, faults: [] });
  });

  test.each([
    [
      'entries within each other',
      [...fine, { name: 'two.txt', data: 'one', at: 0, localName: 'one.txt' }],
      'header-differs',
    ],
    ['one entry for two names', [...fine, { name: 'one.txt', data: 'one', at: 0 }], 'entry-twice'],
    ['out of the folder', [...fine, { name: '../x', data: 'x' }], 'path-unsafe'],
    ['out of it with backslashes', [...fine, { name: '..\\x', data: 'x' }], 'path-unsafe'],
    ['from the top', [...fine, { name: '/etc/x', data: 'x' }], 'path-unsafe'],
    ['encrypted', [...fine, { name: 'x', data: 'x', flags: 0x801 }], 'encrypted'],
    ['a method nobody knows', [...fine, { name: 'x', data: 'x', method: 99 }], 'method-unknown'],
    ['two names of one entry', [...fine, { name: 'xy', data: 'x', localName: 'xz' }], 'header-differs'],
    [
      'more than compressing can make',
      [...fine, { name: 'bomb', data: 'x', method: 8, size: 4_000_000_000 }],
      'header-differs',
    ],
  ])('%s', async (_, entries, code) => {
    const { isWhole, faults } = await verdictOn(zipOf(entries));
    expect(isWhole).toBe(false);
    expect(faults.map((fault) => fault.code)).toContain(code);
  });

  test('cut off anywhere, and any bytes at all, it is not whole, and nothing is thrown', async () => {
    const bytes = zipOf(fine);
    for (let length = 0; length < bytes.length; length++)
      expect([length, (await verdictOn(bytes.subarray(0, length))).isWhole]).toEqual([length, false]);
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ maxLength: 200 }), async (noise) => {
        expect((await verdictOn(Buffer.concat([noise, bytes.subarray(-22)]))).isWhole).toBe(false);
      }),
    );
  });
});

test('a record that leads out of its folder is none', async () => {
  const { into, name } = await packedAs('bag');
  const file = path.join(into, name, 'package.json');
  const record = JSON.parse(readFileSync(file, 'utf8')) as object;
  for (const change of [
    { folder: '../x' },
    { folder: 'a/b' },
    { folder: '' },
    { emptyFolders: ['../x'] },
    { emptyFolders: ['.Nesting/batches'] },
    { values: null },
    { format: 'x' },
  ]) {
    const copy = path.join(into, 'copy');
    cpSync(path.join(into, name), copy, { recursive: true });
    writeFileSync(path.join(copy, 'package.json'), JSON.stringify({ ...record, ...change }));
    // Whoever deceives leaves out what would tell.
    rmSync(path.join(copy, 'tagmanifest-sha256.txt'));
    const { read, verdict } = await lookAtPackage({ where: { base: into, folder: '' }, path: 'copy' }, context);
    expect([read, verdict.isWhole]).toEqual([null, true]);
    rmSync(copy, { recursive: true });
  }
  renameSync(file, `${file}.away`);
  expect((await verify(into, name)).missing).toEqual(['package.json']);
});
