/** Where things lie: real folders, what is gone, what is a link, what leads out. */
import { mkdirSync, mkdtempSync, realpathSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { folderAt, projectRoot, volumeRoot } from '../src/flows/place';
import { Refused } from '../src/flows/world';

const home = realpathSync(mkdtempSync(path.join(tmpdir(), 'nesting-place-')));
const studio = path.join(home, 'studio');
mkdirSync(path.join(studio, '26014_harbour', 'inner'), { recursive: true });
symlinkSync(path.join(studio, '26014_harbour'), path.join(studio, 'link'));
const world = {
  config: {
    volumes: new Map([
      ['studio', studio],
      ['away', path.join(home, 'away')],
    ]),
  },
} as never;

const refusal = (volume: string, folder: string): readonly [number, string, string] => {
  try {
    projectRoot(world, { volume, folder }, 'Nothing was changed.');
  } catch (error) {
    if (error instanceof Refused) return [error.status, error.code, error.message];
    throw error;
  }
  throw new Error('not refused');
};

describe('a project’s folder', () => {
  test('is where its volume is mounted', () => {
    expect(volumeRoot(world, 'studio')).toBe(studio);
    expect(projectRoot(world, { volume: 'studio', folder: '26014_harbour' }, '')).toBe(
      path.join(studio, '26014_harbour'),
    );
    expect(folderAt(world, { volume: 'studio', folder: '26014_harbour/inner' })).toEqual({
      ok: true,
      value: path.join(studio, '26014_harbour', 'inner'),
    });
  });

  test.each([
    ['elsewhere', '26014_harbour', 404, 'no-volume', 'not configured any more'],
    ['away', '26014_harbour', 503, 'root-missing', 'cannot be reached'],
    ['studio', 'gone', 404, 'path-missing', 'moved, renamed or removed'],
    ['studio', 'link', 404, 'path-link', 'links are not followed'],
    ['studio', 'link/inner', 404, 'path-link', 'links are not followed'],
    ['studio', '../studio/26014_harbour', 404, 'path-refused', 'is not on studio'],
    ['studio', '/etc', 404, 'path-refused', 'is not on studio'],
  ])(
    'on %s at %s is refused with the reason, and with what holds all the same',
    (volume, folder, status, code, words) => {
      const [toldStatus, toldCode, message] = refusal(volume, folder);
      expect([toldStatus, toldCode]).toEqual([status, code]);
      expect(message).toContain(words);
      expect(message.endsWith(' Nothing was changed.')).toBe(true);
      expect(folderAt(world, { volume, folder }).ok).toBe(false);
    },
  );
});
