/** The document for scripts is a good one, and says what the table says. */
import { expect, test } from '@jest/globals';
import { Validator } from '@seriousme/openapi-schema-validator';
import { ENDPOINTS, openApiOf } from '../src/index';

const document = openApiOf(ENDPOINTS, '1.2.3');

test('a validator of others accepts it, and not one in which something is wrong', async () => {
  const valid = await new Validator().validate(structuredClone(document));
  expect([valid.valid, valid.errors ?? null]).toEqual([true, null]);
  const broken = { ...structuredClone(document), paths: { '/api/x': { get: { responses: 7 } } } };
  expect((await new Validator().validate(broken)).valid).toBe(false);
});

test('every row is an operation of its own, and whatever it leads to is there', () => {
  const text = JSON.stringify(document);
  for (const name of Object.keys(ENDPOINTS)) expect(text).toContain(`"operationId":"${name}"`);
  const references = [...text.matchAll(/"\$ref":"#\/([^"]+)"/g)].map((match) => (match[1] ?? '').split('/'));
  expect(references.length).toBeGreaterThan(50);
  const lost = references.filter(
    (path) =>
      path.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], document) === undefined,
  );
  expect(lost).toEqual([]);
  expect(text).not.toMatch(/"\$ref":"(?!#\/)/);
});
