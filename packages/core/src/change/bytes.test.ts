import { expect, test } from '@jest/globals';
import { bytesNeeded } from './bytes';
import type { Change } from './change';
import { HOME, home, rootIdOf } from './place';

const AWAY = rootIdOf('away');
const base = { subject: { kind: 'file' }, group: null, entry: 'file', content: null } as const;
const newBytes = () => 10_000;

function needed(...changes: Omit<Change, 'id' | 'subject' | 'group'>[]): Record<string, number> {
  const whole = changes.map((change, i): Change => ({ ...base, id: String(i), ...change }));
  return Object.fromEntries(bytesNeeded(whole, newBytes));
}

test('what is made takes whole blocks, what is renamed takes none', () => {
  expect(
    needed(
      { entry: 'folder', before: null, after: home('a'), content: null },
      { entry: 'file', before: null, after: home('a/b'), content: { kind: 'text', text: 'x' } },
      { entry: 'file', before: home('c'), after: home('d'), content: null, expects: { size: 9e9, modified: 0 } },
    ),
  ).toEqual({ [HOME]: 4096 + 3 * 4096 });
});

test('what crosses to another root takes its size there, and a copy takes it once more', () => {
  const expects = { size: 5000, modified: 0 };
  expect(
    needed(
      { entry: 'file', before: home('c'), after: { root: AWAY, path: 'c' }, content: null, expects },
      { entry: 'file', before: null, after: home('d'), content: { kind: 'copy', from: home('x'), expects } },
    ),
  ).toEqual({ [AWAY]: 8192, [HOME]: 8192 });
});

test('a file that is written anew takes the size it will have', () => {
  const content = { kind: 'rewritten', patches: [{ at: 0, length: 100, bytes: btoa('y'.repeat(4197)) }] } as const;
  const at = home('e');
  expect(needed({ entry: 'file', before: at, after: at, content, expects: { size: 8192, modified: 0 } })).toEqual({
    [HOME]: 4096 * 4,
  });
  expect(needed({ entry: 'file', before: at, after: null, content: null })).toEqual({});
});
