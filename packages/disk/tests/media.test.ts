/** What media tell: files of the demo read by well-kept readers, damaged ones by nobody, and readers that hang. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { factsOf } from '@nesting/media';
import fc from 'fast-check';
import jpeg from 'jpeg-js';
import { clip, photo, recording } from '../../../demo/media';
import { MediaReader } from '../src/media/reader';
import { openRoot } from '../src/roots/open';
import type { Root } from '../src/roots/root';

const MADE = { at: '2026-03-02T21:14:03', device: 'Quernway 4' };
const SAMPLES = { photo: photo(MADE, 1), clip: clip(MADE, 12, 2), recording: recording(MADE, 7, 3) };
const bytesOf = (bytes: Buffer) => ({
  size: bytes.length,
  read: (at: number, length: number) => bytes.subarray(at, at + length),
});

let home = '';
let root: Root;
let reader: MediaReader;
beforeAll(() => {
  home = mkdtempSync(path.join(tmpdir(), 'nesting-media-'));
  root = openRoot({ base: home, folder: '' });
  reader = new MediaReader({ script: new URL(`file://${process.cwd()}/dist/media-worker.js`) });
});
afterAll(() => {
  reader.close();
  root.close();
  rmSync(home, { recursive: true });
});

/** A frame of nothing but its header, by the published layout: attributes one after another, each with its bytes. */
function exrHeader(width: number, height: number): Buffer {
  const numbers = (write: 'writeInt32LE' | 'writeFloatLE', ...values: readonly number[]) => {
    const bytes = Buffer.alloc(4 * values.length);
    for (const [i, value] of values.entries()) bytes[write](value, i * 4);
    return bytes;
  };
  const ints = (...values: readonly number[]) => numbers('writeInt32LE', ...values);
  const window = ints(0, 0, width - 1, height - 1);
  const channel = Buffer.concat([Buffer.from('R\0'), ints(1, 0, 1, 1), Buffer.from([0])]);
  const attributes: readonly (readonly [string, Buffer])[] = [
    ['channels\0chlist', channel],
    ['compression\0compression', Buffer.from([0])],
    ['dataWindow\0box2i', window],
    ['displayWindow\0box2i', window],
    ['lineOrder\0lineOrder', Buffer.from([0])],
    ['pixelAspectRatio\0float', numbers('writeFloatLE', 1)],
    ['screenWindowCenter\0v2f', numbers('writeFloatLE', 0, 0)],
    ['screenWindowWidth\0float', numbers('writeFloatLE', 1)],
  ];
  const written = attributes.flatMap(([name, value]) => [Buffer.from(`${name}\0`), ints(value.length), value]);
  return Buffer.concat([Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]), ...written, Buffer.alloc(65)]);
}

/** The same, by the published layout of fixed places. */
function dpxHeader(width: number, height: number): Buffer {
  const bytes = Buffer.alloc(2048 + 64);
  bytes.write('SDPX');
  bytes.writeUInt32BE(2048, 4);
  bytes.write('V1.0', 8);
  bytes.writeUInt32BE(bytes.length, 16);
  // Lengths of its two sections.
  bytes.writeUInt32BE(1664, 24);
  bytes.writeUInt32BE(384, 28);
  bytes.writeUInt16BE(1, 770);
  bytes.writeUInt32BE(width, 772);
  bytes.writeUInt32BE(height, 776);
  // Red, green and blue of ten bits each.
  bytes.writeUInt8(50, 800);
  bytes.writeUInt8(10, 803);
  bytes.writeUInt32BE(2048, 808);
  return bytes;
}

const put = (name: string, bytes: Buffer | string) => writeFileSync(path.join(home, name), bytes);

describe('what media tell', () => {
  test('a photograph, a clip, a recording: when each was made, how long, by what', async () => {
    put('p', SAMPLES.photo);
    put('c', SAMPLES.clip);
    put('r', SAMPLES.recording);
    const [p, c, r] = await Promise.all(['p', 'c', 'r'].map((name) => reader.read(root, name)));
    expect(p).toMatchObject({ content: 'jpg', has: 'still', taken: MADE.at, device: 'Marrowby Quernway 4' });
    expect(c).toMatchObject({ content: 'mp4', has: 'picture', taken: MADE.at, seconds: 12, frameRate: 25, width: 16 });
    expect(r).toMatchObject({ content: 'wav', has: 'sound', taken: MADE.at, seconds: 7, sampleRate: 400, channels: 1 });
  });

  test('stills tell their size: photographs whatever stands beside them, frames by their headers', async () => {
    const picture = { data: Buffer.alloc(48 * 32 * 4, 90), width: 48, height: 32 };
    put('j', Buffer.from(jpeg.encode(picture, 50).data));
    put('e', exrHeader(64, 48));
    put('d', dpxHeader(2048, 1556));
    const of = (name: string) => reader.read(root, name);
    expect(await of('j')).toMatchObject({ content: 'jpg', width: 48, height: 32 });
    expect(await of('e')).toMatchObject({ content: 'exr', has: 'still', width: 64, height: 48 });
    expect(await of('d')).toMatchObject({ content: 'dpx', has: 'still', width: 2048, height: 1556 });
  });

  test('what is no media, or empty, tells nothing; what is gone is an error of the system', async () => {
    put('text', 'only text');
    put('empty', '');
    expect(await reader.read(root, 'text')).toEqual({});
    expect(await reader.read(root, 'empty')).toEqual({});
    await expect(reader.read(root, 'nowhere')).rejects.toMatchObject({ code: 'ENOENT' });
    await expect(reader.read(root, '.')).rejects.toBeDefined();
  });

  test('bytes that were changed anywhere never stop the reader: it reads the next whole one as ever', async () => {
    const damaged = fc.tuple(
      fc.constantFrom('photo' as const, 'clip' as const, 'recording' as const),
      fc.array(fc.tuple(fc.nat(600), fc.nat(255)), { minLength: 1, maxLength: 12 }),
      fc.nat(3000),
    );
    await fc.assert(
      fc.asyncProperty(damaged, async ([sample, changes, cut]) => {
        const bytes = Buffer.from(SAMPLES[sample]);
        for (const [at, value] of changes) bytes[at % bytes.length] = value;
        put('damaged', bytes.subarray(0, bytes.length - (cut % 2 === 0 ? 0 : cut % bytes.length)));
        expect(typeof (await reader.read(root, 'damaged'))).toBe('object');
      }),
      { numRuns: 120 },
    );
    expect(await reader.read(root, 'r')).toMatchObject({ has: 'sound', seconds: 7 });
    expect(await reader.read(root, 'c')).toMatchObject({ has: 'picture', seconds: 12 });
  });

  test('without a thread a photograph tells as much, and no more of it is read than is asked for', async () => {
    let most = 0;
    const { size, read } = bytesOf(Buffer.concat([SAMPLES.photo, Buffer.alloc(4 << 20)]));
    const counting = (at: number, length: number) => {
      most = Math.max(most, at + length);
      return read(at, length);
    };
    const facts = await factsOf({ size, read: counting }, null);
    expect(facts).toMatchObject({ has: 'still', taken: MADE.at });
    expect(most).toBeLessThanOrEqual(256 * 1024);
  });
});

describe('readers that fail', () => {
  const workerOf = (name: string, code: string): URL => {
    put(name, code);
    return new URL(`file://${path.join(home, name)}`);
  };

  test('one that never answers is stopped and said; one that dies too; the next file has another', async () => {
    put('one', SAMPLES.photo);
    const hanging = new MediaReader({
      script: workerOf(
        'hang.mjs',
        "import { parentPort } from 'node:worker_threads'; parentPort.on('message', () => { for (;;); });",
      ),
      mostMs: 30,
    });
    expect(await Promise.all(['one', 'one', 'one'].map((name) => hanging.read(root, name)))).toEqual(
      [1, 2, 3].map(() => ({ unread: 'took-too-long' })),
    );
    hanging.close();
    const dying = new MediaReader({
      script: workerOf(
        'die.mjs',
        "import { parentPort } from 'node:worker_threads'; parentPort.on('message', () => { throw new Error('no'); });",
      ),
    });
    expect(await dying.read(root, 'one')).toEqual({ unread: 'failed' });
    expect(await dying.read(root, 'one')).toEqual({ unread: 'failed' });
    dying.close();
  });

  test('one that eats memory is ended before it takes the machine along', async () => {
    put('one', readFileSync(path.join(home, 'p')));
    const eating = new MediaReader({
      script: workerOf(
        'eat.mjs',
        "import { parentPort } from 'node:worker_threads'; const all = []; parentPort.on('message', () => { for (;;) all.push(new Array(1e6).fill('x')); });",
      ),
    });
    expect(await eating.read(root, 'one')).toEqual({ unread: 'failed' });
    eating.close();
  }, 60_000);
});
