/** What of a heap is the same as something else, and how little is read to tell. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { sameContents } from '../src/children/same-contents';
import { openRoot } from '../src/roots/open';
import { Tree } from '../src/roots/tree';

let home = '';
beforeEach(() => {
  home = mkdtempSync(path.join(tmpdir(), 'nesting-same-'));
  for (const name of ['heap', 'project']) mkdirSync(path.join(home, name));
});
afterEach(() => rmSync(home, { recursive: true }));

const LONG = 200_000;
/** So many bytes, with one that is other. */
const bytes = (size: number, at = -1): Buffer => {
  const made = Buffer.alloc(size, 7);
  if (at >= 0) made[at] = 1;
  return made;
};

async function compared(
  heap: Readonly<Record<string, Buffer>>,
  project: Readonly<Record<string, Buffer>>,
  aborted = false,
) {
  for (const [root, files] of [
    ['heap', heap],
    ['project', project],
  ] as const)
    for (const [at, content] of Object.entries(files)) {
      mkdirSync(path.dirname(path.join(home, root, at)), { recursive: true });
      writeFileSync(path.join(home, root, at), content);
    }
  const trees = ['heap', 'project'].map((name) => Tree.of(openRoot({ base: path.join(home, name), folder: '' })));
  const [left, right] = trees as [Tree, Tree];
  const files = Object.entries(heap).map(([at, { length }]) => ({
    path: at,
    size: length,
    modified: 0,
    inode: 0,
    facts: {},
  }));
  try {
    return await sameContents({ heap: left, project: right, files, cancel: { aborted }, unseen: [] });
  } finally {
    for (const tree of trees) tree.close();
  }
}

describe('the same content', () => {
  test('in the project before the heap; a copy by its name after what it is of; empty files are nobody’s', async () => {
    const { same } = await compared(
      {
        'a (1).jpg': bytes(50),
        'x/a.jpg': bytes(50),
        'there.wav': bytes(LONG),
        'empty.pdf': bytes(0),
        'empty too.pdf': bytes(0),
      },
      { 'sound/known.wav': bytes(LONG), '.nesting/own': bytes(50) },
    );
    expect(same).toEqual({
      'a (1).jpg': { where: 'heap', path: 'x/a.jpg' },
      'there.wav': { where: 'project', path: 'sound/known.wav' },
    });
  });

  test('one byte anywhere is another content: at the beginning nothing is read whole, at the end it is', async () => {
    const early = await compared({ 'a.exr': bytes(LONG, 3) }, { 'b.exr': bytes(LONG) });
    expect([early.same, early.files[0]?.sha256]).toEqual([{}, undefined]);
    const late = await compared({ 'a.exr': bytes(LONG, LONG - 1) }, { 'b.exr': bytes(LONG) });
    expect([late.same, late.files[0]?.sha256]).toEqual([{}, expect.stringMatching(/^[0-9a-f]{64}$/)]);
  });

  test('whoever waits no longer stops it', async () => {
    const files = { 'a.exr': bytes(LONG), 'b.exr': bytes(LONG) };
    await expect(compared(files, {}, true)).rejects.toMatchObject({ code: 'CANCELLED' });
  });
});
