/** Rows by COPY are the rows that were given, whatever stands in them. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { copyRows } from '../src/db/copy';
import { transaction } from '../src/index';
import { openTestWorld, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld({}, true);
});
afterAll(() => t.close());

test('texts with everything that means something to COPY come back as they were', async () => {
  const text = fc.string({
    unit: fc.constantFrom('\\', '\n', '\r', '\t', '\\N', '\\.', 'é', '🦉', "'", '"', '{', '}', ' ', 'a', 'N'),
  });
  const row = fc.tuple(
    fc.integer(),
    fc.option(text, { nil: null }),
    fc.boolean(),
    fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 }),
    fc.jsonValue(),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(row, { maxLength: 30 }), async (rows) => {
      const back = await transaction(t.world.db, async (client) => {
        await client.query(
          'create temp table given (place int, n int, words text, told boolean, amount double precision, body jsonb) on commit drop',
        );
        await copyRows(
          client,
          'given (place, n, words, told, amount, body)',
          rows.map(([n, words, told, amount, body], place) => [
            place,
            n,
            words,
            told,
            amount,
            JSON.stringify(body).replaceAll('\\u0000', ''),
          ]),
        );
        return (
          await client.query<{ n: number; words: string | null; told: boolean; amount: number; body: unknown }>(
            'select n, words, told, amount, body from given order by place',
          )
        ).rows;
      });
      expect(back.map((r) => [r.n, r.words, r.told, r.amount])).toEqual(
        rows.map(([n, words, told, amount]) => [n, words, told, amount === 0 ? 0 : amount]),
      );
      expect(back.map((r) => r.body)).toEqual(
        rows.map(([, , , , body]) => JSON.parse(JSON.stringify(body).replaceAll('\\u0000', ''))),
      );
    }),
    { numRuns: 60, seed: 8 },
  );
});

test('what no text of the database can hold is left out, and thousands of rows are one load', async () => {
  const rows = Array.from({ length: 3000 }, (_, i) => [i, i % 7 === 0 ? 'a\0b' : `row ${i}`] as const);
  const back = await transaction(t.world.db, async (client) => {
    await client.query('create temp table given (n int, words text) on commit drop');
    await copyRows(client, 'given (n, words)', rows);
    await copyRows(client, 'given (n, words)', []);
    return (await client.query<{ n: number; words: string }>('select n, words from given order by n')).rows;
  });
  expect(back).toEqual(rows.map(([n, words]) => ({ n, words: words.replace('\0', '') })));
});

test('a row that does not fit fails the whole load, and leaves the connection usable', async () => {
  await expect(
    transaction(t.world.db, async (client) => {
      await client.query('create temp table given (n int) on commit drop');
      await copyRows(client, 'given (n)', [[1], ['no number']]);
    }),
  ).rejects.toMatchObject({ code: '22P02' });
  expect((await t.world.db.query('select 1 one')).rows).toEqual([{ one: 1 }]);
});
