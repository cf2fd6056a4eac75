import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { layoutOf, sideBySide } from './layout';

const part = fc.constantFrom('a', 'A', 'b', 'a_b', 'b_a', '2_a', '1');
const paths = fc.uniqueArray(
  fc.array(part, { minLength: 1, maxLength: 4 }).map((parts) => parts.join('/')),
  {
    maxLength: 20,
  },
);

test('side by side no two files have one name, on systems that do not tell capitals apart either', () => {
  fc.assert(
    fc.property(paths, (all) => {
      const names = sideBySide(all);
      expect([...names.keys()].sort()).toEqual([...all].sort());
      const lower = [...names.values()].map((name) => name.toLowerCase());
      expect(new Set(lower).size).toBe(all.length);
      expect(lower.some((name) => name.includes('/'))).toBe(false);
    }),
  );
});

test('a name that is alone stays as it is; others tell their folders', () => {
  const names = sideBySide(['a/one.txt', 'b/two.txt', 'c/two.txt']);
  expect([...names.values()].sort()).toEqual(['b_two.txt', 'c_two.txt', 'one.txt']);
});

test('what describes a package stands beside whatever has its name already', () => {
  const layout = layoutOf('zip', 'top', new Set(['_Package', 'sha256sums.txt']));
  expect([layout.record('x'), layout.sums]).toEqual(['_package-2/x', 'sha256sums-2.txt']);
});
