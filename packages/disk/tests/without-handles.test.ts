/** On a system whose paths cannot begin at an open folder: starts, and a project's folder that takes another name. */
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type Change, HOME, home, VOLUME } from '@nesting/core/change';
import { projectFolderChange } from '@nesting/core/planners';
import { applyOnDisk, openIn, Root, readBatch, startOnDisk } from '../src/index';
import { useHandles } from '../src/roots/handle';

let studio = '';
beforeAll(() => {
  useHandles(false);
  studio = mkdtempSync(path.join(tmpdir(), 'nesting without handles '));
});
afterAll(() => {
  useHandles(true);
  rmSync(studio, { recursive: true, force: true });
});

const bytesOf = (content: { readonly kind: string; readonly text?: string }) => Buffer.from(content.text ?? '');
const write = (at: string): Change => ({
  ...{ id: at, subject: { kind: 'line', line: at }, group: null, entry: 'file', before: null, after: home(at) },
  content: { kind: 'text', text: at },
});

test('a start is whole under its name', async () => {
  const parent = Root.open({ base: studio, folder: '' });
  expect(await startOnDisk({ parent, folder: 'show', project: 'p1', changes: [write('x.txt')], bytesOf })).toEqual({
    ok: true,
  });
  expect([readdirSync(studio), readdirSync(path.join(studio, 'show'))]).toEqual([['show'], ['x.txt']]);
});

test('a batch whose last step is the project’s own name ends in the folder of that name', async () => {
  mkdirSync(path.join(studio, 'was/.nesting'), { recursive: true });
  writeFileSync(path.join(studio, 'was/y.txt'), 'y');
  const roots = new Map([
    [HOME, Root.open({ base: studio, folder: 'was' })],
    [VOLUME, Root.open({ base: studio, folder: '' })],
  ]);
  const changes = [write('x.txt'), projectFolderChange('was', 'now')];
  const batch = { roots, id: 'b1', what: 'test', by: 'p', at: '', changes, bytesOf };
  expect((await applyOnDisk(batch)).state).toBe('done');
  expect(existsSync(path.join(studio, 'was'))).toBe(false);
  expect(readdirSync(path.join(studio, 'now')).sort()).toEqual(['.nesting', 'x.txt', 'y.txt']);
  const now = Root.open({ base: studio, folder: 'now' });
  expect([openIn(now), readBatch(now, 'b1')?.ended?.ended]).toEqual([null, 'done']);
});
