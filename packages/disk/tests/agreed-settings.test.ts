/** Files held to what the setup sheet agreed: real media on a real disk, read by the built reader. */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { NO_REGISTERS } from '@nesting/core/name';
import type { CheckInput } from '@nesting/core/project';
import { normaliseTemplate, type Setup } from '@nesting/core/template';
import jpeg from 'jpeg-js';
import { clip, photo, recording } from '../../../demo/media';
import { checkOnDisk, type DiskCheck, type DiskOutcome } from '../src/index';

const MADE = { at: '2026-03-02T21:14:03', device: 'Quernway 4' };
const setup: Setup = {
  settings: [
    { label: 'Frame rate', value: '25', fact: 'frameRate' },
    { label: 'Sound', value: '400 Hz', fact: 'soundRate' },
    { label: 'Output', value: '16×16', fact: 'pictureSize', within: ['out'] },
    { label: 'Scenes', value: 'm', fact: 'units' },
    { label: 'Colour', value: 'as delivered' },
  ],
};
const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'T',
  fields: [],
  conventions: [],
  setup,
  root: {
    name: '{number}',
    folders: [
      { id: 'in', name: 'in', free: true },
      { id: 'out', name: 'out', folders: [{ id: 'stills', name: 'stills' }] },
      { id: 'work', name: 'work', older: { folder: 'old' } },
    ],
  },
});
const input: CheckInput = { template, values: { number: '26014' }, registers: NO_REGISTERS };
const script = new URL(`file://${process.cwd()}/dist/disk-child.js`);

let root = '';
beforeEach(() => {
  root = mkdtempSync(path.join(tmpdir(), 'nesting-agreed-'));
  for (const name of ['in', 'out/stills', 'work/old']) mkdirSync(path.join(root, name), { recursive: true });
});
afterEach(() => rmSync(root, { recursive: true, force: true }));

const put = (at: string, bytes: Buffer | string) => {
  mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
  writeFileSync(path.join(root, at), bytes);
};
const check = (more: Partial<DiskCheck> = {}) =>
  checkOnDisk({ where: { base: root, folder: '' }, input, script, contents: { roots: [], known: [] }, ...more });
const mismatches = ({ findings }: DiskOutcome) =>
  findings
    .filter(({ rule }) => rule === 'setting-mismatch')
    .map(({ path: at, params, related }) => [at, params, related] as const);
const picture = (width: number, height: number): Buffer =>
  Buffer.from(jpeg.encode({ data: Buffer.alloc(width * height * 4, 120), width, height }, 50).data);
const usd = (metres: number | null) =>
  `#usda 1.0\n(\n    doc = """metersPerUnit = 7"""\n${metres === null ? '' : `    metersPerUnit = ${metres}\n`})\n\ndef Xform "a"\n{\n    float metersPerUnit = 9\n}\n`;

test('each folder says once what its files have, where that is not what was agreed', async () => {
  put('work/a.mp4', clip(MADE, 2, 1));
  put('work/b.mp4', clip(MADE, 2, 2, 24));
  put('work/c.mp4', clip(MADE, 3, 3, 24));
  put('work/d.mp4', clip(MADE, 2, 4, 50));
  put('in/CARD/CLIPS/e.mp4', clip(MADE, 2, 5, 50));
  put('work/old/f.mp4', clip(MADE, 2, 6, 50));
  put('work/g.wav', recording(MADE, 2, 1));
  const about = (name: string, found: string, count: number) => ({
    ...{ name, found, count, setting: 'Frame rate', agreed: '25' },
  });
  expect(mismatches(await check())).toEqual([
    ['in/CARD/CLIPS/e.mp4', about('e.mp4', '50', 1), []],
    ['work/b.mp4', about('b.mp4', '24', 2), ['work/c.mp4']],
    ['work/d.mp4', about('d.mp4', '50', 1), []],
  ]);
});

test('sizes of stills count only where a folder is named for it; scenes tell their units', async () => {
  put('work/photo.jpg', picture(48, 32));
  put('out/stills/photo.jpg', picture(48, 32));
  put('out/stills/right.jpg', picture(16, 16));
  put('out/exif.jpg', photo(MADE, 3));
  put('work/a.usda', usd(0.01));
  put('work/b.usda', usd(1));
  put('work/c.usda', usd(null));
  put(
    'work/d.dae',
    '<?xml version="1.0"?>\n<COLLADA version="1.5.0"><asset><unit name="inch" meter="0.0254"/></asset></COLLADA>',
  );
  expect(
    mismatches(await check()).map(([at, params]) => [
      at,
      'setting' in params && params.setting,
      'found' in params && params.found,
    ]),
  ).toEqual([
    ['out/exif.jpg', 'Output', '8 × 8'],
    ['out/stills/photo.jpg', 'Output', '48 × 32'],
    ['work/a.usda', 'Scenes', 'cm'],
    ['work/d.dae', 'Scenes', 'in'],
  ]);
});

test('what was chosen for the project counts, what cannot be understood is passed over, and off is off', async () => {
  put('work/a.mp4', clip(MADE, 2, 1, 24));
  const by = (settings: Record<string, string>) => check({ input: { ...input, settings } }).then(mismatches);
  expect(await by({})).toHaveLength(1);
  expect(await by({ 'Frame rate': '24 fps' })).toEqual([]);
  expect(await by({ 'Frame rate': 'as it comes' })).toEqual([]);
  const off = { ...template, checks: { rules: { 'setting-mismatch': 'off' as const } } };
  const outcome = await check({ input: { ...input, template: off } });
  expect(mismatches(outcome)).toEqual([]);
  expect(outcome.facts.every(({ media }) => media === undefined)).toBe(true);
});

test('what is known is not read again, and what changed is', async () => {
  put('work/a.mp4', clip(MADE, 2, 1, 24));
  const first = await check();
  expect(first.facts.find((fact) => fact.path === 'work/a.mp4')?.media?.frameRate).toBe(24);
  // Only whoever reads the file can say 25: what is known is taken as it is.
  const known = first.facts.map((fact) => ({ ...fact, media: { has: 'picture' as const, frameRate: 25 } }));
  expect(mismatches(await check({ contents: { roots: [], known } }))).toEqual([]);
  put('work/a.mp4', clip(MADE, 3, 1, 24));
  expect(mismatches(await check({ contents: { roots: [], known } }))).toHaveLength(1);
  const quick = await check({ contents: { roots: [], known: first.facts }, since: await check() });
  expect(mismatches(quick)).toHaveLength(1);
});

test('broken media tell nothing, and are no reason to end', async () => {
  const bytes = clip(MADE, 2, 1, 24);
  put('work/short.mp4', bytes.subarray(0, 40));
  put('work/empty.mov', '');
  put('work/text.wav', 'no sound at all');
  put('work/hollow.mp4', Buffer.concat([bytes.subarray(0, 32), Buffer.alloc(bytes.length - 32)]));
  put('work/whole.mp4', bytes);
  const outcome = await check();
  expect(mismatches(outcome).map(([at]) => at)).toEqual(['work/whole.mp4']);
  expect(outcome.unseen).toEqual([]);
});

test('the command line says it too', () => {
  put('work/a.mp4', clip(MADE, 2, 1, 24));
  // What was written just now is not judged yet.
  utimesSync(path.join(root, 'work/a.mp4'), new Date('2026-03-02'), new Date('2026-03-02'));
  put('.rules.json', JSON.stringify(template));
  put('.values.json', JSON.stringify(input.values));
  const args = [path.join(root, '.rules.json'), root, '--values', path.join(root, '.values.json'), '--json'];
  let out = '';
  try {
    out = execFileSync(process.execPath, ['bin/nesting.js', 'check', ...args], { encoding: 'utf8' });
  } catch (error) {
    out = String((error as { stdout: unknown }).stdout);
  }
  const { findings } = JSON.parse(out) as { findings: { rule: string; message: string }[] };
  expect(findings.find(({ rule }) => rule === 'setting-mismatch')?.message).toBe(
    '“Frame rate” is 24 in a.mp4; 25 was agreed.',
  );
});
