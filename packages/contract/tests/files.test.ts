import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import {
  looseTemplateSchema,
  parseConvention,
  parseRegisters,
  parseTemplate,
  parseValues,
  SCHEMAS,
} from '../src/index';

const facade = readFileSync('demo/templates/facade-show.nest.json', 'utf8');

describe('files from outside', () => {
  test('the shipped JSON Schemas are those the program checks with (npm run schemas makes them anew)', () => {
    for (const [name, schema] of Object.entries(SCHEMAS))
      expect(JSON.parse(readFileSync(`docs/schemas/${name}.schema.json`, 'utf8'))).toEqual(
        JSON.parse(JSON.stringify(schema())),
      );
  });

  test('a template comes out as it went in, and importing it again changes nothing', () => {
    const once = parseTemplate(facade);
    expect(once.ok && looseTemplateSchema.safeParse(once.value).success).toBe(true);
    expect(parseTemplate(JSON.stringify(once.ok ? once.value : null))).toEqual(once);
  });

  test('ids and numbers that are left out are given, and kept from then on', () => {
    const bare = parseTemplate(
      JSON.stringify({
        format: 'nesting/template',
        formatVersion: 1,
        name: 'Bare',
        root: {
          name: '{number}',
          numbering: { digits: 2, joiner: '_', reserved: [{ number: 2 }] },
          folders: [{ name: 'a' }, { name: 'b' }, { name: 'c', number: 7 }, { name: 'd' }, { name: 'a' }],
        },
      }),
    );
    expect(bare.ok && bare.value.root.folders?.map((f) => [f.id, f.number])).toEqual([
      ['a', 1],
      ['b', 3],
      ['c', 7],
      ['d', 8],
      ['a-2', 9],
    ]);
  });

  test.each([
    ['no JSON', '{', 'not JSON'],
    ['something else', '{"format":"other"}', 'format'],
    ['a later version', '{"format":"nesting/template","formatVersion":2}', 'later than this program'],
    ['no root', '{"format":"nesting/template","formatVersion":1,"name":"x"}', 'root'],
    ['a mark nobody knows', facade.replace('"mark": "moss"', '"mark": "neon"'), 'mark'],
    ['a field of no type', facade.replace('"type": "client"', '"type": "clients"'), 'fields.0'],
    ['a key misspelt', facade.replace('"accepts": [', '"acepts": ['), 'nothing is called “acepts”; “accepts” is'],
    [
      'a key of nobody’s',
      facade.replace('"purpose": "Light', '"wombat": 1, "purpose": "Light'),
      'nothing is called “wombat”',
    ],
    [
      'a rule misspelt',
      facade.replace('"checks": {', '"checks": {"rules": {"banned-wrod": "must"},'),
      'checks.rules.banned-wrod: nothing is called “banned-wrod”; “banned-word” is',
    ],
    ['a number in words', facade.replace('"number": 20,', '"number": "twenty",'), 'number'],
  ])('%s is said in one line', (_what, text, words) => {
    const answer = parseTemplate(text);
    expect(answer.ok ? '' : answer.faults.join('\n')).toContain(words);
    expect(answer.ok ? '' : answer.faults[0]).not.toContain('\n');
  });

  test('conventions, registers and values', () => {
    expect(parseConvention('{"format":"nesting/convention","formatVersion":1,"name":"W","pattern":"{a}"}')).toEqual({
      ok: true,
      value: { id: 'W', name: 'W', pattern: '{a}' },
    });
    expect(parseConvention('{"format":"nesting/convention","formatVersion":3}').ok).toBe(false);
    expect(parseRegisters('{"banned":["final"]}')).toMatchObject({
      ok: true,
      value: { clients: [], banned: ['final'] },
    });
    expect(parseRegisters('{"clients":[{"code":""}]}').ok).toBe(false);
    expect(parseRegisters('{"banned":[],"people":[{"initials":"A","name":"A","retird":true}]}')).toMatchObject({
      ok: false,
      faults: [expect.stringContaining('people.0.retird: nothing is called “retird”; “retired” is')],
    });
    expect(
      parseConvention('{"format":"nesting/convention","formatVersion":1,"name":"W","pattern":"{a}","options":[]}'),
    ).toMatchObject({
      faults: [expect.stringContaining('options: “options” does not belong here')],
    });
    // What an editor is told by is nobody's key.
    expect(
      parseConvention('{"$schema":"x","format":"nesting/convention","formatVersion":1,"name":"W","pattern":"{a}"}').ok,
    ).toBe(true);
    expect(parseRegisters('{"name":"something else"}').ok).toBe(false);
    expect(parseValues('{"scenes":{"a":["s01"]},"n":3}').ok).toBe(true);
    expect(parseValues('[]').ok).toBe(false);
  });
});
