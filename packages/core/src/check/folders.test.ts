/** Folders that are lacking and folders nobody knows, put together by meaning. */
import { describe, expect, test } from '@jest/globals';
import { checkListing } from '../check';
import type { FolderListing } from '../listing';
import { NO_REGISTERS } from '../name';
import { ProjectRules } from '../project';
import { normaliseTemplate } from '../template';

const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'T',
  fields: [],
  conventions: [
    { id: 'p', name: 'Photo', pattern: '{number}_P{n:000}.{ext}', fields: [{ key: 'n', type: 'count' }] },
    { id: 's', name: 'Sound', pattern: '{number}_S{n:000}.{ext}', fields: [{ key: 'n', type: 'count' }] },
  ],
  root: {
    name: '{number}',
    folders: [
      { id: 'photos', name: 'photos', conventions: ['p'] },
      { id: 'sound', name: 'sound', conventions: ['s'] },
      {
        id: 'set',
        name: 'set',
        folders: [
          { id: 'walls', name: 'walls' },
          { id: 'props', name: 'props' },
          { id: 'light', name: 'light' },
        ],
      },
    ],
  },
} as never);
const rules = new ProjectRules({ template, values: { number: '26014' }, registers: NO_REGISTERS });

function found(paths: readonly string[]): string[] {
  const folders = new Map<string, { folders: string[]; files: { name: string; size: number; modified: number }[] }>([
    ['', { folders: [], files: [] }],
  ]);
  for (const path of paths) {
    const parts = path.split('/');
    parts.forEach((part, i) => {
      const above = folders.get(parts.slice(0, i).join('/'));
      if (i === parts.length - 1 && part.includes('.')) above?.files.push({ name: part, size: 1, modified: 0 });
      else {
        const at = parts.slice(0, i + 1).join('/');
        if (!folders.has(at)) {
          above?.folders.push(part);
          folders.set(at, { folders: [], files: [] });
        }
      }
    });
  }
  const listings: FolderListing[] = [...folders].map(([path, inside]) => ({ path, ...inside, others: [] }));
  return checkListing(rules, listings).findings.map(({ rule, path, params }) => {
    const { meant, home } = params as { readonly meant?: string; readonly home?: string };
    return `${rule} ${path}${meant || home ? ` → ${meant || home}` : ''}`;
  });
}

const whole = ['photos', 'sound', 'set/walls', 'set/props', 'set/light'];
const without = (...gone: readonly string[]) =>
  whole.filter((p) => !gone.some((g) => p === g || p.startsWith(`${g}/`)));

describe('by meaning', () => {
  test.each([
    ['letters exchanged', [...without('photos'), 'phtoos'], ['misspelt-folder phtoos → photos']],
    [
      'both misspelt: the best pairs, not the first ones',
      [...without('set').map((p) => p), 'set/wals', 'set/walls2x', 'set/props', 'set/light'],
      ['misspelt-folder set/wals → walls', 'unplanned-folder set/walls2x'],
    ],
    [
      'another name, but its files',
      [...without('photos'), 'camera/26014_P001.jpg', 'camera/26014_P002.jpg', 'camera/26014_P003.jpg'],
      ['misspelt-folder camera → photos'],
    ],
    [
      'another name and place, but its files',
      [...without('sound'), 'photos/takes/26014_S001.wav', 'photos/takes/26014_S002.wav'],
      ['misplaced-folder photos/takes → sound'],
    ],
    [
      'one file tells nothing',
      [...without('photos'), 'camera/26014_P001.jpg'],
      ['missing-folder photos', 'unplanned-folder camera'],
    ],
    [
      'files of two kinds tell nothing',
      [
        ...without('photos', 'sound'),
        'mixed/26014_P001.jpg',
        'mixed/26014_S001.wav',
        'mixed/26014_P002.jpg',
        'mixed/26014_S002.wav',
      ],
      ['missing-folder photos', 'missing-folder sound', 'unplanned-folder mixed'],
    ],
    [
      'another name, but its folders',
      [...without('set'), 'stage/walls', 'stage/props', 'stage/light'],
      ['misspelt-folder stage → set'],
    ],
    [
      'a second one says where its files belong',
      [...whole, 'camera/26014_P001.jpg', 'camera/26014_P002.jpg'],
      ['unplanned-folder camera → photos'],
    ],
    ['all is there', whole, []],
  ])('%s', (_what, paths, expected) => {
    expect(found(paths).sort()).toEqual([...expected].sort());
  });
});
