/** What the screens ask the server for, by name: one that was used before would silently stay what it was. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';

test('no two requests of the screens have one name', () => {
  const root = path.join(process.cwd(), 'packages/web/src');
  const names = readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((at) => at.endsWith('-api.ts'))
    .flatMap((at) => readFileSync(path.join(root, at), 'utf8').match(/\b\w+(?=: build\.)/g) ?? []);
  expect(names.length).toBeGreaterThan(100);
  expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
});
