import { describe, expect, test } from '@jest/globals';
import { SHOW, SHOW_VALUES, STUDIO } from '../../tests/templates';
import { extensionOf } from '../listing/extension';
import { ProjectRules } from '../project/rules';
import { stateOf } from './match';

const rules = new ProjectRules({ template: SHOW, values: SHOW_VALUES, registers: STUDIO });
const state = (path: string) => {
  const s = stateOf(rules, path);
  return s.kind === 'planned' ? `${s.kind}${s.older ? ', older' : ''}` : s.kind;
};

describe('what the plan says of a folder, by its path alone', () => {
  test.each([
    ['', 'planned'],
    ['40_motion/west-front/s02/working', 'planned'],
    ['40_motion/west-front/s02/working/older', 'planned, older'],
    ['40_motion/west-front/s02/working/older/deeper', 'inside-unplanned'],
    ['40_motion/west-front/s02/renders/older', 'unplanned'],
    ['90_cache/anything', 'free'],
    ['90_cache/any/depth', 'free'],
    ['40_motion/clock tower', 'unplanned'],
    ['40_motion/clock tower/s01', 'inside-unplanned'],
    ['43_extras', 'planned'],
    ['26014_brief.md', 'unplanned'],
    ['nowhere/at/all', 'inside-unplanned'],
  ])('%s is %s', (path, meant) => {
    expect(state(path)).toBe(meant);
  });

  test('a name in decomposed form is the one that was planned', () => {
    const french = new ProjectRules({
      template: { ...SHOW, root: { ...SHOW.root, numbering: undefined, folders: [{ id: 'e', name: 'été' }] } },
      values: SHOW_VALUES,
      registers: STUDIO,
    });
    expect(stateOf(french, 'e\u0301te\u0301').kind).toBe('planned');
  });

  test('the longest known extension counts', () => {
    const known = new Set(['gz', 'tar.gz', 'exr']);
    expect(
      ['a.tar.gz', 'a.b.exr', 'A.EXR', 'a.b.gz', 'noext', '.hidden', 'a.'].map((n) => extensionOf(n, known)),
    ).toEqual(['tar.gz', 'exr', 'exr', 'gz', '', '', '']);
  });

  test('conventions of a folder know its entries, and are compiled once for all folders alike', () => {
    const lines = rules.expansion.lines.filter((l) => l.node === 'working');
    const [first, second] = lines.map((l) => rules.conventionsIn(l)[0]);
    expect(first?.bound).toEqual({ number: '26014', surface: 'west-front', scene: 's01' });
    expect(second?.bound).toEqual({ number: '26014', surface: 'west-front', scene: 's02' });
    expect(first?.strict).toBe(second?.strict);
    expect(first?.context.known.surface).toEqual(['west-front', 'clock-tower']);
    expect([...(first?.extensions ?? [])]).toEqual(['usda']);
  });
});
