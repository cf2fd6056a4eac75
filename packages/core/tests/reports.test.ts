/** Words for every code, lists as people write them, orders of steps, and reports that cannot be misused. */

import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { relPathOf } from '../src/listing';
import { compileName, entriesOf, examplePieces, mustParse } from '../src/name';
import { keepValues } from '../src/template';
import { base64, csv } from '../src/text';
import { wordsFor } from '../src/words';
import { FIELDS, REGISTERS } from './names';

describe('words', () => {
  test('every fault and diagnostic the core can give has a sentence', () => {
    const sources = readdirSync('packages/core/src', { recursive: true, encoding: 'utf8' }).filter(
      (f) => f.endsWith('.ts') && !f.endsWith('.test.ts'),
    );
    const text = sources.map((f) => readFileSync(path.join('packages/core/src', f), 'utf8')).join('\n');
    const unions = [...text.matchAll(/export type \w*(?:FaultCode|CompileFault) =([\s\S]*?);/g)]
      .map((m) => m[1] as string)
      .join('|');
    const codes = [...unions.matchAll(/'([a-z]+(?:-[a-z]+)+)'/g)].map((m) => m[1] as string);
    expect(codes.length).toBeGreaterThan(60);
    expect(codes.filter((code) => wordsFor(code, {}) === code)).toEqual([]);
  });
});

describe('lists as people write them', () => {
  test.each([
    ['s01..s03', ['s01', 's02', 's03']],
    ['s08–s11', ['s08', 's09', 's10', 's11']],
    ['A..D', ['A', 'B', 'C', 'D']],
    ['2026-02-27..2026-03-02', ['2026-02-27', '2026-02-28', '2026-03-01', '2026-03-02']],
    ['west-front, clock-tower;crane-7\n old mill ', ['west-front', 'clock-tower', 'crane-7', 'old mill']],
    ['sea – and – sky', ['sea – and – sky']],
    [
      ['s01..s02', 's09'],
      ['s01', 's02', 's09'],
    ],
    ['', []],
  ])('%j', (text, entries) => {
    expect(entriesOf(text as string)).toEqual({ ok: true, entries });
  });

  test.each([
    ['s09..s01', 'range-bad'],
    ['a..b..c', 'range-bad'],
    ['A..d', 'range-bad'],
    ['1..99999999', 'too-many-entries'],
    ['0001-01-01..9999-12-31', 'too-many-entries'],
  ])('%s is refused', (text, code) => {
    expect(entriesOf(text)).toMatchObject({ ok: false, code });
  });
});

describe('values', () => {
  test('codes, names and labels are kept as codes; retired and unknown ones are said', () => {
    const registers = {
      ...REGISTERS,
      people: [...REGISTERS.people, { initials: 'XY', name: 'Somebody Gone', retired: true }],
    };
    const fields = [
      { key: 'client', type: 'client' },
      { key: 'person', type: 'person' },
      { key: 'task', type: 'choice', options: [{ code: 'anim', label: 'Animation' }] },
      { key: 'shots', type: 'list', of: { type: 'text', like: 's00' } },
    ] as const;
    const kept = keepValues(
      fields,
      { client: 'ottermoor town council', person: 'XY', task: 'ANIMATION', shots: ['S1', 's02', 's01'] },
      registers,
    );
    expect(kept.values).toEqual({ client: 'OTM', person: 'XY', task: 'anim', shots: ['s01', 's02'] });
    expect(kept.faults.map((f) => [f.field, f.code, f.weight])).toEqual([
      ['person', 'person-retired', 'awkward'],
      ['shots', 'entry-twice', 'awkward'],
    ]);
  });

  test('an example can be made of every pattern', () => {
    for (const pattern of [
      '{number}_{surface:kebab}_{scene}_{task}_v{version:000}.{ext}',
      '{date:yyMMdd}(_{window:A})?_{take:0000}',
      '{client.name:kebab}-{person.initials:lower}',
      '{title}',
    ]) {
      const name = compileName(mustParse(pattern), { fields: FIELDS, registers: REGISTERS });
      expect(
        name.ok &&
          examplePieces(name.value, {})
            .map((p) => p.text)
            .join(''),
      ).toMatch(/./);
    }
  });
});

describe('reports', () => {
  test('cells that a spreadsheet would run are defused, and all others come back', () => {
    expect(csv([['=1+1', '+x', '-x', '@x', 'a,b', 'say "hi"', 7, null]])).toBe(
      `'=1+1,'+x,'-x,'@x,"a,b","say ""hi""",7,\r\n`,
    );
    fc.assert(fc.property(fc.string(), (text) => expect(csv([[text]]).replace(/^"/, '')).not.toMatch(/^[=+\-@]/)));
  });

  test('base 64 is that of everybody else', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 50 }), (bytes) =>
        expect(base64(bytes)).toBe(Buffer.from(bytes).toString('base64')),
      ),
    );
  });

  test('a path is taken only where it cannot leave', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('..', '.', 'a', '', 'b c', '\0'), { maxLength: 6 }).map((p) => p.join('/')),
        (text) => {
          const taken = relPathOf(text);
          if (taken.ok) expect(path.posix.join('/root/x', taken.value).startsWith('/root/x')).toBe(true);
          else expect(text).toMatch(/\.\.|\.|\/\/|^\/|\/$|\0/);
        },
      ),
    );
  });
});
