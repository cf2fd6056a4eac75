import { describe, expect, test } from '@jest/globals';
import type { FolderCount, FolderSign } from '@nesting/contract';
import { NO_REGISTERS } from '@nesting/core/name';
import { expandTemplate, normaliseTemplate } from '@nesting/core/template';
import { overlayOf } from '../src/features/projects/overlay';
import { linesOfTemplate } from '../src/features/templates/tree';

const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'T',
  conventions: [],
  fields: [{ key: 'scenes', type: 'list', of: { type: 'text', like: 's00' } }],
  root: {
    name: '{number}',
    numbering: { digits: 2, joiner: '_', reserved: [{ number: 2, label: 'kept' }] },
    folders: [
      { name: 'motion', folders: [{ name: '{scene}', onePer: { list: 'scenes', as: 'scene' } }] },
      { name: 'sound' },
      { name: 'extras', presence: 'optional' },
    ],
  },
});
const expansion = expandTemplate(template, { number: '26014', scenes: 's01..s05' }, NO_REGISTERS);
const there = (path: string, state: FolderCount['state'] = 'planned'): FolderCount => ({
  path,
  files: 2,
  bytes: 10,
  state,
  families: {},
});
const finding = (path: string, weight: FolderSign['weight']): FolderSign => ({
  path,
  rule: 'name-mismatch',
  weight,
  count: 1,
});

describe('the disk laid over the plan', () => {
  const rows = [
    there(''),
    there('01_motion'),
    ...['s01', 's02', 's04', 's05'].map((s) => there(`01_motion/${s}`)),
    there('01_motion/stuff', 'unplanned'),
    there('01_motion/stuff/deep', 'inside-unplanned'),
  ];
  const overlay = overlayOf(expansion, rows, [finding('01_motion/s04', 'should'), finding('01_motion/s04', 'must')]);
  const state = Object.fromEntries(overlay.nodes.map((n) => [n.pieces.map((p) => p.text).join(''), n.state]));

  test('there, absent, not made yet, unplanned', () => {
    expect(state).toMatchObject({
      '01_motion': 'there',
      s01: 'there',
      s03: 'absent',
      '03_sound': 'absent',
      '04_extras': 'planned',
      stuff: 'unplanned',
      deep: 'unplanned',
    });
    expect(overlay.unplanned).toEqual([{ path: '01_motion/stuff', parent: '01_motion', files: 2 }]);
  });

  test('the heaviest finding is shown on every folder above it, and keeps its folder out of a fold', () => {
    const by = new Map(overlay.nodes.map((n) => [n.key, n]));
    expect(by.get('root')?.weight).toBe('must');
    const s04 = overlay.nodes.find((n) => n.pieces[0]?.text === 's04');
    expect([s04?.weight, s04?.group]).toEqual(['must', undefined]);
    expect(overlay.signsAt('01_motion/s04')).toBe(2);
  });

  test('what lies in a folder stands right behind it', () => {
    const names = overlay.nodes.map((n) => `${'>'.repeat(n.depth)}${n.pieces.map((p) => p.text).join('')}`);
    expect(names).toEqual([
      '26014',
      '>01_motion',
      '>>s01',
      '>>s02',
      '>>s03',
      '>>s04',
      '>>s05',
      '>>stuff',
      '>>>deep',
      '>03_sound',
      '>04_extras',
    ]);
  });

  test('a template shows patterns, and reserved numbers as the gaps they are', () => {
    expect(linesOfTemplate(template, NO_REGISTERS).map((l) => l.tree.pieces.map((p) => p.text).join(''))).toEqual([
      '{number}',
      '01_motion',
      '{scene}',
      '02',
      '03_sound',
      '04_extras',
    ]);
  });
});
