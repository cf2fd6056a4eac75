/** Where things lie: real folders, what is gone, what is a link, what leads out. */
import { mkdirSync, mkdtempSync, realpathSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { Disks } from '@nesting/disk';
import { projectWhere, reached, volumeRoot } from '../src/flows/place';
import { Refused } from '../src/flows/world';

const home = realpathSync(mkdtempSync(path.join(tmpdir(), 'nesting-place-')));
const studio = path.join(home, 'studio');
mkdirSync(path.join(studio, '26014_harbour', 'inner'), { recursive: true });
symlinkSync(path.join(studio, '26014_harbour'), path.join(studio, 'link'));
writeFileSync(path.join(studio, '.nesting-volume'), '{"format":"nesting/volume","id":"one"}');
const world = {
  disks: new Disks(null),
  identities: { of: (volume: string) => (volume === 'other' ? 'another' : 'one') },
  config: {
    volumes: new Map([
      ['studio', studio],
      ['away', path.join(home, 'away')],
      ['other', studio],
    ]),
  },
} as never;

const refusal = async (volume: string, folder: string): Promise<readonly [number, string, string]> => {
  try {
    await projectWhere(world, { volume, folder });
  } catch (error) {
    if (error instanceof Refused) return [error.status, error.code, error.message];
    throw error;
  }
  throw new Error('not refused');
};

describe('a project’s folder', () => {
  test('is where its volume is mounted', async () => {
    expect(volumeRoot(world, 'studio')).toBe(studio);
    for (const folder of ['26014_harbour', '26014_harbour/inner']) {
      const where = { base: studio, folder, volume: 'one' };
      expect(await projectWhere(world, { volume: 'studio', folder })).toEqual(where);
      expect(await reached(world, { volume: 'studio', folder })).toEqual(where);
    }
  });

  test.each([
    ['elsewhere', '26014_harbour', 404, 'no-volume', 'No volume is called elsewhere'],
    ['away', '26014_harbour', 503, 'root-missing', 'cannot be reached'],
    ['other', '26014_harbour', 503, 'root-missing', 'cannot be reached'],
    ['studio', 'gone', 404, 'path-missing', 'moved, renamed or removed'],
    ['studio', 'link', 404, 'path-link', 'links are not followed'],
    ['studio', 'link/inner', 404, 'path-link', 'links are not followed'],
    ['studio', '../studio/26014_harbour', 400, 'path-refused', 'leads out of its folder'],
    ['studio', '/etc', 400, 'path-refused', 'leads out of its folder'],
  ])(
    'on %s at %s is refused with the reason, and with what holds all the same',
    async (volume, folder, status, code, words) => {
      const [toldStatus, toldCode, message] = await refusal(volume, folder);
      expect([toldStatus, toldCode]).toEqual([status, code]);
      expect(message).toContain(words);
      expect(message.endsWith(' Nothing was changed.')).toBe(true);
      expect(await reached(world, { volume, folder })).toBeNull();
    },
  );
});
