/**
 * Folders in which the program of the first form of journals was killed, kept as it left them: they are settled by
 * today's, and what was done is undone.
 */
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
import { afterAll, describe, expect, test } from '@jest/globals';
import { closeOnDisk, onlyHome, openIn, Root, readBatch, settleOnDisk, undoOnDisk } from '../src/index';

interface KeptEntry {
  readonly path: string;
  /** Device and inode, as the journal knows them. */
  readonly id: string;
  readonly modified: number;
  /** Of a file. */
  readonly text?: string;
}

const KEPT = JSON.parse(readFileSync('packages/disk/tests/kept/first-form.json', 'utf8')) as {
  readonly before: readonly KeptEntry[];
  readonly after: readonly KeptEntry[];
  readonly cut: readonly (readonly KeptEntry[])[];
};

const all: string[] = [];
afterAll(() => {
  for (const folder of all) rmSync(folder, { recursive: true, force: true });
});

/** As it was, but for the identities that a new disk gives: the journal gets these. */
function lay(entries: readonly KeptEntry[]): string {
  const root = mkdtempSync(path.join(tmpdir(), 'nesting first form '));
  all.push(root);
  const ids = new Map<string, string>();
  for (const { path: at, text } of entries) {
    if (text === undefined) mkdirSync(path.join(root, at));
    else writeFileSync(path.join(root, at), text);
  }
  for (const { path: at, id, modified } of entries) {
    const { dev, ino } = lstatSync(path.join(root, at));
    ids.set(id, `${dev}:${ino}`);
    utimesSync(path.join(root, at), modified / 1000, modified / 1000);
  }
  const journal = path.join(root, '.nesting/batches/b1/intents.json');
  const text = readFileSync(journal, 'utf8').replace(/"(\d+:\d+)"/g, (_, id: string) => `"${ids.get(id) ?? id}"`);
  writeFileSync(journal, text);
  return root;
}

function treeOf(root: string, below = ''): string[] {
  return readdirSync(path.join(root, below), { withFileTypes: true })
    .flatMap((entry) => {
      const at = path.posix.join(below, entry.name);
      if (at === '.nesting/batches') return [];
      if (entry.isDirectory()) return [`${at}/`, ...treeOf(root, at)];
      return [
        `${at} ${readFileSync(path.join(root, at), 'utf8')} ${Math.round(lstatSync(path.join(root, at)).mtimeMs)}`,
      ];
    })
    .sort();
}

const linesOf = (entries: readonly KeptEntry[]): string[] =>
  entries
    .filter(({ path: at }) => !at.startsWith('.nesting/batches'))
    .map(({ path: at, text, modified }) => (text === undefined ? `${at}/` : `${at} ${text} ${modified}`))
    .sort();
/** What was written anew has the time of its writing. */
const timeless = (lines: readonly string[]) => lines.map((line) => line.replace(/ \d+$/, ''));
const on = (root: string) => onlyHome(Root.open({ base: root, folder: '' }));
const taking = { by: 'p', at: '', lockMs: 0 };

describe.each(KEPT.cut.map((entries, number) => ({ number, entries })))('cut short, $number', ({ entries }) => {
  test('it is finished, and then undone', async () => {
    const root = lay(entries);
    expect((await settleOnDisk(on(root), 'finish', taking)).state).toBe('done');
    expect(timeless(treeOf(root))).toEqual(timeless(linesOf(KEPT.after)));
    const undo = { roots: on(root), batch: 'b1', id: 'b2', by: 'p', at: '', ids: null };
    expect((await undoOnDisk(undo))?.state).toBe('done');
    expect(treeOf(root)).toEqual(linesOf(KEPT.before));
  });

  test('somebody took one of its files away: it is closed, with what stayed', async () => {
    const root = lay(entries);
    const frame = readdirSync(root).find((name) => name.startsWith('frame.')) ?? '';
    rmSync(path.join(root, frame));
    const closed = await closeOnDisk(on(root), taking);
    if (closed.state !== 'closed') throw new Error(closed.state);
    expect(closed.rest.map(({ code }) => code)).toContain('gone');
    const home = Root.open({ base: root, folder: '' });
    expect([openIn(home), readBatch(home, 'b1')?.ended?.rest]).toEqual([null, closed.rest]);
  });

  test('it is taken back', async () => {
    const root = lay(entries);
    expect((await settleOnDisk(on(root), 'take-back', taking)).state).toBe('taken-back');
    expect(treeOf(root)).toEqual(linesOf(KEPT.before));
    const home = Root.open({ base: root, folder: '' });
    expect([openIn(home), readBatch(home, 'b1')?.ended?.ended]).toEqual([null, 'taken-back']);
  });
});
