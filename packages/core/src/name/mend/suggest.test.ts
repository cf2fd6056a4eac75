/** What only one convention or another shows of suggestions; the corpus measures the rest. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { convention, REGISTERS } from '../../../tests/names';
import { readName } from '../read/read';
import { explainName } from './suggest';

const context = {
  bound: { number: '26014' },
  known: {},
  abbreviations: REGISTERS.abbreviations,
  banned: REGISTERS.banned,
};
const best = (pattern: string, name: string, families?: readonly string[]) => {
  const [first] = explainName(
    convention(pattern, { number: '26014', ...(families && { families }) }),
    name,
    context,
  ).suggestions;
  return first === undefined ? null : [first.name, first.confidence];
};

describe('suggestions', () => {
  test.each([
    ['{number}_SPK_{scene}.{ext}', '26014_speech_s03.wav', ['26014_SPK_s03.wav', 'sure']],
    ['{number}_{scene}.{ext}', 's03_26014.wav', ['26014_s03.wav', 'sure']],
    ['{number}_{scene}.{ext}', 's03.wav', ['26014_s03.wav', 'sure']],
    ['{number}_{scene}.{ext}', '26014_s03.wav.wav', ['26014_s03.wav', 'sure']],
    ['{number}_{scene}.{ext}', '26014_26014_s03.wav', ['26014_s03.wav', 'sure']],
    ['{number}_{scene}.{ext}', '26014_S3 - Copy.WAV', ['26014_s03.wav', 'sure']],
    ['{number}_rev{version:A}.{ext}', '26014_rev_b.png', ['26014_revB.png', 'sure']],
    ['{date:yyMMdd}_{take:00}.{ext}', '2026-03-02_7.png', ['260302_07.png', 'sure']],
    ['{number}(_{scene})?_{take:00}.{ext}', '26014_7.png', ['26014_07.png', 'sure']],
    ['{number}_{scene}.{ext}', '26014_s03.jpeg', ['26014_s03.jpg', 'sure']],
    ['{number}_{scene}.{ext}', 'holiday.doc', null],
    // Whose word it is nobody knows: it is dropped only by somebody who looked.
    ['{number}_{scene}.{ext}', 'QTH 26014 s03.wav', ['26014_s03.wav', 'likely']],
    ['{number}_{scene}.{ext}', 'No 26014 s03.wav', ['26014_s03.wav', 'sure']],
  ])('%s: %s', (pattern, name, meant) => {
    expect(best(pattern, name)).toEqual(meant);
  });

  test('changes say which part, from what to what', () => {
    const [first] = explainName(
      convention('{number}_{task}_v{version:000}.{ext}', { number: '26014' }),
      '26014_animation_V3.usda',
      context,
    ).suggestions;
    expect(first?.changes).toEqual([
      { code: 'abbreviation', part: 'task', from: 'animation', to: 'anim' },
      { code: 'version-style', part: 'v', from: 'V', to: 'v' },
      { code: 'padding', part: 'version', from: '3', to: '003' },
    ]);
  });

  test('a name in another order keeps its places', () => {
    const name = '26014_v003_anim.usda';
    const { problems } = explainName(
      convention('{number}_{task}_v{version:000}.{ext}', { number: '26014' }),
      name,
      context,
    );
    expect(problems.some((p) => p.change === 'order')).toBe(true);
    for (const p of problems) expect(name.slice(p.at, p.at + p.length)).toBe(p.found);
  });

  test('a name too long to be one is said, not worked on', () => {
    const { problems, suggestions } = explainName(convention('{title}.{ext}'), 'x'.repeat(4096), context);
    expect([problems.length, suggestions.length]).toEqual([1, 0]);
  });

  test('a field that stands twice with two values: either may be meant, and it is said where', () => {
    const twice = convention('{task}_{number}_{task}.{ext}', { number: '26014' });
    const { problems, suggestions } = explainName(twice, 'anim_26014_comp.png', context);
    expect(problems).toMatchObject([{ part: 'task', at: 11, found: 'comp' }]);
    expect(suggestions.map((s) => [s.name, s.confidence])).toEqual([
      ['anim_26014_anim.png', 'likely'],
      ['comp_26014_comp.png', 'guess'],
    ]);
  });

  test('whatever does not read is refused for a reason', () => {
    const patterns = [
      '{task}_{number}_{task}.{ext}',
      '{take:00}{window}',
      '{title}.{ext}',
      '{date:yyyy-MM-dd}({task})?.{ext}',
      '{scene}_v{version}.{ext}',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...patterns),
        fc.string({ unit: fc.constantFrom(...'anim_-.26014comp v0sAé’'), maxLength: 24 }),
        (pattern, name) => {
          const c = convention(pattern, { number: '26014' });
          if (readName(c, name, context.bound) === null)
            expect(explainName(c, name, context).problems.length).toBeGreaterThan(0);
        },
      ),
      { seed: 26014, numRuns: 600 },
    );
  });

  test('lone surrogates, combining marks and marks nobody can see are explained like anything else', () => {
    for (const odd of ['26014_\ud83d_s03.wav', '26014_e\u0301_s03.wav', '26014_\u202es03.wav', '26014_🏮_s03.wav']) {
      const { problems } = explainName(convention('{number}_{scene}.{ext}', { number: '26014' }), odd, context);
      expect(problems.length).toBeGreaterThan(0);
    }
  });
});
