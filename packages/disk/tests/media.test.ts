/** What media tell: files of the demo read by well-kept readers, damaged ones by nobody, and readers that hang. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { factsOf } from '@nesting/media';
import fc from 'fast-check';
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
