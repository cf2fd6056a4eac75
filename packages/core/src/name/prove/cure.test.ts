import { expect, test } from '@jest/globals';
import { convention, REGISTERS } from '../../../tests/names';
import { curesFor } from './cure';
import { proveOneWay } from './prove';

const context = { fields: [], registers: REGISTERS };

function cures(pattern: string, known = {}) {
  const verdict = proveOneWay(convention(pattern, { fields: [] }));
  if (verdict === null || verdict === 'one-way') throw new Error(`${pattern} is not ambiguous`);
  return curesFor(pattern, context, verdict, known);
}

test.each([
  ['{title}_{part}_v{version:000}.{ext}', 'shape', '{title:kebab}_{part}_v{version:000}.{ext}'],
  ['{title:kebab}{part:kebab}.{ext}', 'separator', '{title:kebab}_{part:kebab}.{ext}'],
  ['{client.code}(_{title:kebab})?(_{part:kebab})?.{ext}', 'separator', '{client.code}_{title:kebab}'],
  ['{version}{frame:000}.{ext}', 'separator', '{version}_{frame:000}.{ext}'],
])('%s is cured by a %s', (pattern, code, cured) => {
  const found = cures(pattern);
  expect(found.length).toBeGreaterThan(0);
  expect(found.map((c) => c.code)).toContain(code);
  if (cured.endsWith('{ext}')) expect(found.map((c) => c.pattern)).toContain(cured);
  for (const cure of found) expect(proveOneWay(convention(cure.pattern, { fields: cure.fields }))).toBe('one-way');
});

test('a list of the values that are known is a cure, with its field', () => {
  const found = cures('{title:snake}_{place:snake}.{ext}', { place: ['west', 'clock_tower'] });
  const listed = found.find((c) => c.code === 'values');
  // "a_west" could still be a title: only what is proved is proposed.
  if (listed) expect(proveOneWay(convention(listed.pattern, { fields: listed.fields }))).toBe('one-way');
  expect(cures('{place}{title:kebab}.{ext}', { place: ['west', 'north'] }).some((c) => c.code === 'values')).toBe(true);
});

test('what stands twice is proved with its values', () => {
  expect(proveOneWay(convention('{task}_{title:kebab}_{task}'))).toBe('one-way');
  expect(proveOneWay(convention('{client.code}_{client.name:kebab}_{title:kebab}'))).toBe('one-way');
  const two = proveOneWay(
    convention('{title:snake}_{task}_{place:snake}_{task}', {
      fields: [{ key: 'task', type: 'choice', options: [{ code: 'a' }, { code: 'b' }] }],
    }),
  );
  expect(two).toMatchObject({ name: expect.any(String) });
});
