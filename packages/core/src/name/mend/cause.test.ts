import { expect, test } from '@jest/globals';
import { convention, FIELDS, REGISTERS, WORKING } from '../../../tests/names';
import { readName } from '../read/read';
import { causeOf } from './cause';

const c = convention(WORKING, { number: '26014', families: ['3D scene'] });
const frames = convention('{number}_{surface:kebab}_{scene}_v{version:000}.{frame:0000}.{ext}', {
  number: '26014',
  families: ['still'],
  fields: FIELDS,
});
const context = {
  bound: { number: '26014' },
  known: { surface: ['west-front', 'clock-tower'] },
  abbreviations: REGISTERS.abbreviations,
  banned: REGISTERS.banned,
};

test.each([
  [c, '26009_west-front_s03_anim_BO_v004.usda', 'foreign-project'],
  [c, '26014_west-front_s03_anim_XX_v004.usda', 'unknown-code'],
  [c, '26014_west-front_s03_paint_BO_v004.usda', 'unknown-code'],
  [c, '26014_west-front_s03_anim_BO_V004.usda', 'version-style'],
  [c, '26014_west-front_s03_anim_BO_v4.usda', 'version-style'],
  [c, '26014_west-front_s03_anim_BO_4.usda', 'version-style'],
  [frames, '26014_west-front_s03_v004.12.exr', 'sequence-padding'],
  [c, '26014_west-front_s03_anim_BO_v004_final.usda', 'banned-word'],
  [c, '26014_west-front_s03_anim_BO_v4_final.usda', 'name-mismatch'],
  [c, 'holiday pictures.usda', 'name-mismatch'],
  [c, '260145_west-front_s03_anim_BO_v004.usda', 'name-mismatch'],
] as const)('%# %s', (rule, name, code) => {
  expect(readName(rule, name)).toBeNull();
  expect(causeOf(rule, name, context).code).toBe(code);
});

test('says whose number, and which code nobody knows', () => {
  expect(causeOf(c, '26009_west-front_s03_anim_BO_v004.usda', context)).toMatchObject({ number: '26009' });
  expect(causeOf(c, '26014_west-front_s03_paint_XX_v004.usda', context)).toEqual({
    code: 'unknown-code',
    codes: [
      { field: 'task', found: 'paint' },
      { field: 'person', found: 'XX' },
    ],
  });
});
