import { describe, expect, test } from '@jest/globals';
import { slotsOf } from './ast';
import { mustParse, parsePattern } from './parse';

const faultOf = (source: string) => {
  const answer = parsePattern(source);
  return answer.ok ? null : [answer.faults[0]?.code, answer.faults[0]?.at];
};

describe('parsePattern', () => {
  test('takes literals, slots with property and shape, and optional groups', () => {
    const pattern = mustParse('{number}_{client.code}_{title:kebab}(_{part:kebab})?_v{version:000}.{ext}');
    expect(slotsOf(pattern.parts).map((s) => [s.field, s.property, s.shape])).toEqual([
      ['number', null, null],
      ['client', 'code', null],
      ['title', null, 'kebab'],
      ['part', null, 'kebab'],
      ['version', null, '000'],
      ['ext', null, null],
    ]);
    expect(pattern.parts[5]).toMatchObject({ kind: 'group', at: 36 });
  });

  test('doubled braces and parentheses stand for themselves', () => {
    expect(mustParse('a{{b}}((c))').parts).toMatchObject([{ kind: 'literal', text: 'a{b}(c)' }]);
  });

  test.each([
    ['', 'pattern-empty', 0],
    ['a{title', 'slot-unclosed', 1],
    ['a{title_{x}', 'slot-unclosed', 1],
    ['{}', 'slot-empty', 0],
    ['{1a}', 'slot-name', 1],
    ['{title:}', 'slot-shape-empty', 6],
    ['a}b', 'brace-stray', 1],
    ['a)b', 'group-stray', 1],
    ['(_{a}', 'group-unclosed', 0],
    ['(_{a})x', 'group-no-question', 5],
    ['(abc)?', 'group-no-slot', 0],
    [`${'a'.repeat(1001)}`, 'pattern-too-long', 1000],
  ])('%s is refused at its character', (source, code, at) => {
    expect(faultOf(source)).toEqual([code, at]);
  });

  test('ten thousand slots are answered at once, not worked on', () => {
    expect(faultOf('{a}'.repeat(10_000))).toEqual(['pattern-too-long', 1000]);
    expect(faultOf('{a}'.repeat(300))).toEqual(['pattern-too-many-parts', 0]);
  });

  test('faults are collected, not the first alone', () => {
    const answer = parsePattern('{1}_{2}');
    expect(answer.ok ? [] : answer.faults.map((f) => f.at)).toEqual([1, 5]);
  });
});
