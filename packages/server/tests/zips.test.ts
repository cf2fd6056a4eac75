/** Zips that arrive are unpacked beside themselves: as anybody makes them, and as somebody would who means harm. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Inbox } from '@nesting/contract';
import yazl from 'yazl';
import { openTestWorld, type TestWorld } from './world';

const C = 'coordinator';
let t: TestWorld;
let names = 0;

beforeAll(async () => {
  t = await openTestWorld();
  expect((await t.ask(C, 'PUT', '/api/volumes/studio/inbox', { isInbox: true })).status).toBe(204);
});
afterAll(() => t.close());

const at = (...parts: string[]) => path.join(t.studio, ...parts);
const nextName = () => `from a client ${++names}`;

async function zipOf(files: Readonly<Record<string, string>>, compress = true): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [name, text] of Object.entries(files))
    zip.addBuffer(Buffer.from(text), name, { compress, mtime: new Date('2026-03-02T10:00:00Z') });
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** Every place of some bytes in a zip becomes others of the same length: headers and the list of entries alike. */
function renamed(zip: Buffer, from: string, to: string): Buffer {
  const out = Buffer.from(zip);
  for (let i = out.indexOf(from); i >= 0; i = out.indexOf(from, i + 1)) out.write(to, i);
  return out;
}

async function opened(
  file: string,
): Promise<[number, { folder?: string; files?: number; code?: string; message?: string }]> {
  const response = await t.ask(C, 'POST', '/api/volumes/studio/inbox/zips', { path: file });
  return [response.status, (await response.json()) as { folder?: string }];
}

/** What lies on the volume, but for what was there. */
const everything = () => readdirSync(t.studio, { recursive: true }).map(String).sort();

describe('a zip that arrived', () => {
  test('lies unpacked beside itself, byte for byte with its times; it stays, and is told among what arrived', async () => {
    const name = nextName();
    const files = { 'pictures/pier.jpg': 'a picture', 'pictures/new/mill é.jpg': 'x'.repeat(100_000), 'note.txt': '' };
    writeFileSync(at(`${name}.zip`), await zipOf(files));
    const inboxes = (await (await t.ask(C, 'GET', '/api/inboxes')).json()) as Inbox[];
    expect(inboxes.find(({ volume }) => volume === 'studio')?.zips).toEqual([
      { name: `${name}.zip`, size: statSync(at(`${name}.zip`)).size },
    ]);
    expect(await opened(`${name}.zip`)).toEqual([200, { folder: name, files: 3 }]);
    for (const [file, text] of Object.entries(files)) expect(readFileSync(at(name, file), 'utf8')).toBe(text);
    expect(statSync(at(name, 'pictures/pier.jpg')).mtimeMs).toBe(Date.parse('2026-03-02T10:00:00Z'));
    expect(existsSync(at(`${name}.zip`))).toBe(true);
    // Once more it lies beside the first: nothing is written over.
    expect(await opened(`${name}.zip`)).toEqual([200, { folder: `${name}-2`, files: 3 }]);
  });

  test('in a heap, stored and compressed, by another program', async () => {
    const name = nextName();
    mkdirSync(at(name, 'in'), { recursive: true });
    writeFileSync(at(name, 'in/a.txt'), 'one');
    writeFileSync(at(name, 'in/b.txt'), 'two '.repeat(1000));
    execFileSync('python3', ['-m', 'zipfile', '-c', at(name, 'made.zip'), at(name, 'in')]);
    expect(await opened(`${name}/made.zip`)).toEqual([200, { folder: `${name}/made`, files: 2 }]);
    expect(readFileSync(at(name, 'made/in/b.txt'), 'utf8')).toBe('two '.repeat(1000));
    const stored = nextName();
    writeFileSync(at(`${stored}.ZIP`), await zipOf({ 'a.txt': 'as it is' }, false));
    expect(await opened(`${stored}.ZIP`)).toEqual([200, { folder: stored, files: 1 }]);
  });

  test('what an earlier try left goes; two at once make one', async () => {
    const name = nextName();
    writeFileSync(at(`${name}.zip`), await zipOf({ 'a.txt': 'a'.repeat(3_000_000) }));
    const both = await Promise.all([opened(`${name}.zip`), opened(`${name}.zip`)]);
    // Where one had ended before the other began, that one lies beside it.
    const made = both.flatMap(([status, said]) => (status === 200 ? [said as { folder: string }] : []));
    expect(both.filter(([status]) => status !== 200).map(([status]) => status)).toEqual(made.length === 2 ? [] : [409]);
    expect(made.map(({ folder }) => folder).sort()).toEqual([name, `${name}-2`].slice(0, made.length));
    for (const { folder } of made) expect(statSync(at(folder, 'a.txt')).size).toBe(3_000_000);
    expect(everything().filter((one) => one.startsWith('.nesting-unfinished'))).toEqual([]);
  });
});

describe('what is refused leaves nothing behind', () => {
  const hostile: readonly (readonly [string, () => Promise<Buffer>])[] = [
    ['a path that leads up', async () => renamed(await zipOf({ 'aaa/evil.txt': 'x' }), 'aaa/evil.txt', '../evil2.txt')],
    ['a path from the root', async () => renamed(await zipOf({ 'aaa.txt': 'x' }), 'aaa.txt', '/aa.txt')],
    [
      'backslashes that lead up',
      async () => renamed(await zipOf({ 'aaa/evil.txt': 'x' }), 'aaa/evil.txt', '..\\evil2.txt'),
    ],
    ['the program’s own folder', async () => zipOf({ 'in/.Nesting/marker.json': '{}' })],
    ['one path twice', async () => renamed(await zipOf({ 'a.txt': 'x', 'b.txt': 'y' }), 'b.txt', 'a.txt')],
    ['a file where a folder is needed', async () => renamed(await zipOf({ ab: 'x', 'ax/c': 'y' }), 'ax/c', 'ab/c')],
    ['a size that lies', async () => liesOfSize(await zipOf({ 'a.txt': 'x'.repeat(5000) }))],
    ['bytes that were turned', async () => turned(await zipOf({ 'a.txt': 'as it is, and no otherwise' }, false))],
    ['no zip', async () => Buffer.from('PK and nothing')],
    ['one cut off', async () => (await zipOf({ 'a.txt': 'x'.repeat(5000) })).subarray(0, 60)],
  ];
  test.each(hostile)('%s', async (_what, make) => {
    const name = nextName();
    writeFileSync(at(`${name}.zip`), await make());
    const before = everything();
    const [status, said] = await opened(`${name}.zip`);
    expect([422, 409]).toContain(status);
    expect(said.message).toContain('Nothing was changed.');
    expect(everything()).toEqual(before);
    expect(existsSync(path.join(t.studio, '..', 'evil2.txt'))).toBe(false);
  });

  test('what is no file, is elsewhere, or lies where nothing arrives', async () => {
    symlinkSync('/etc', at('link.zip'));
    for (const [file, code] of [
      ['nowhere.zip', 'file-gone'],
      ['../secret.zip', 'path-refused'],
    ] as const)
      expect((await opened(file))[1].code).toBe(code);
    expect((await opened('link.zip'))[0]).toBeGreaterThanOrEqual(400);
    expect((await t.ask('artist', 'POST', '/api/volumes/studio/inbox/zips', { path: 'x.zip' })).status).toBe(403);
    expect((await t.ask(C, 'PUT', '/api/volumes/studio/inbox', { isInbox: false })).status).toBe(204);
    expect((await opened('from a client 1.zip'))[1].code).toBe('no-inbox');
  });
});

/** The list and the header say that an entry is five times as large as it is. */
function liesOfSize(zip: Buffer): Buffer {
  const out = Buffer.from(zip);
  for (let i = 0; i + 4 <= out.length; i++) if (out.readUInt32LE(i) === 5000) out.writeUInt32LE(25_000, i);
  return out;
}

function turned(zip: Buffer): Buffer {
  const out = Buffer.from(zip);
  const place = out.indexOf('no otherwise');
  out.writeUInt8(out.readUInt8(place) ^ 1, place);
  return out;
}
