/** Learning, as properties: what was written by a convention is read by what was learned from it. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { scoreLearning } from '../../../corpus/learning';
import { compileConvention, learnConventions, mustParse, NO_REGISTERS, readName, writeName } from '../src/name';
import { convention, REGISTERS, SLOTS } from './names';

const runs = { seed: 20262, numRuns: 120 };

function compiled(learned: ReturnType<typeof learnConventions>['conventions'][number]) {
  const made = compileConvention(mustParse(learned.pattern), {
    fields: learned.fields,
    families: learned.families,
    registers: REGISTERS,
  });
  if (!made.ok) throw new Error(learned.pattern);
  return made.value;
}

describe('learning', () => {
  test('claims only what it reads, and every name is claimed once or a misfit', () => {
    const kinds = Object.keys(SLOTS).filter((slot) => !slot.includes('ext'));
    fc.assert(
      fc.property(
        fc
          .uniqueArray(fc.constantFrom(...kinds), {
            minLength: 1,
            maxLength: 4,
            selector: (slot) => slot.replace(/[.:}].*$/, ''),
          })
          .chain((slots) =>
            fc.tuple(
              fc.constant(`${slots.join('_')}.{ext}`),
              fc.array(
                fc
                  .tuple(...[...slots, '{ext}'].map((slot) => SLOTS[slot] as fc.Arbitrary<object>))
                  .map((all) => Object.assign({}, ...all)),
                { minLength: 12, maxLength: 40 },
              ),
            ),
          ),
        fc.array(fc.string({ maxLength: 30 }), { maxLength: 4 }),
        ([pattern, all], strays) => {
          const from = convention(pattern);
          const right = all.flatMap((values) => {
            const written = writeName(from, values);
            return written.ok ? [written.value] : [];
          });
          const names = [...right, ...strays];
          const { conventions, misfits } = learnConventions(names, REGISTERS);
          const seen = [...conventions.flatMap((c) => c.reads), ...misfits].sort((a, b) => a - b);
          expect(seen).toEqual(names.map((_, i) => i));
          for (const c of conventions) {
            const rule = compiled(c);
            for (const i of c.reads) expect(readName(rule, names[i] as string)).not.toBeNull();
          }
        },
      ),
      runs,
    );
  });

  test('a plain heap gives back its convention, with types, widths, lists and the misfits', () => {
    const names = ['a', 'b', 'c', 'd', 'e', 'f'].flatMap((t, i) =>
      ['anim', 'comp'].map((task, k) => `26014_${t}-tower_s0${i + 1}_${task}_BO_v00${k + 1}.usda`),
    );
    const { conventions, misfits } = learnConventions(
      [...names, '26014_a-tower_s01_anim_BO_v3.usda', 'holiday.usda'],
      REGISTERS,
    );
    expect(conventions.map((c) => c.pattern)).toEqual([
      '{number}_{title:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}',
    ]);
    expect(conventions[0]).toMatchObject({
      oneWay: true,
      families: ['3D scene'],
      fields: [
        { key: 'title', type: 'text' },
        { key: 'scene', like: 's00' },
        { key: 'task', options: [{ code: 'anim' }, { code: 'comp' }] },
      ],
    });
    expect(misfits).toEqual([12, 13]);
  });

  test('mixed heaps part; nothing is made of nothing', () => {
    const photos = Array.from(
      { length: 20 },
      (_, i) => `2026-03-${String(1 + i).padStart(2, '0')}_north_${String(i + 1).padStart(4, '0')}.jpg`,
    );
    const takes = Array.from({ length: 20 }, (_, i) => `tower-${i % 4}_revA_t${String(i + 1).padStart(2, '0')}.wav`);
    const patterns = learnConventions([...photos, ...takes], REGISTERS)
      .conventions.map((c) => c.pattern)
      .sort();
    expect(patterns).toHaveLength(2);
    expect(patterns[1]).toContain('{date:yyyy-MM-dd}');
    expect(learnConventions([], NO_REGISTERS)).toEqual({ conventions: [], misfits: [] });
    expect(
      learnConventions(['one.txt'], NO_REGISTERS).misfits.length +
        (learnConventions(['one.txt'], NO_REGISTERS).conventions[0]?.reads.length ?? 0),
    ).toBe(1);
    expect(
      learnConventions(['\ud800', '{}', '(((', '__', '..', 'x'.repeat(5000)], NO_REGISTERS).misfits.length,
    ).toBeGreaterThan(3);
  });

  test('the score of the corpus holds', () => {
    const score = scoreLearning();
    expect(score.read / score.right).toBeGreaterThan(0.95);
    expect(score.refused / score.broken).toBeGreaterThan(0.9);
  });
});

test('a title of one word is the project’s where it is known, and `4k` and `8k` are a list', () => {
  const names = ['4k', '8k'].flatMap((size) => [1, 2, 3, 4].map((v) => `26014_lights_${size}_v00${v}.mov`));
  const known = learnConventions(names, NO_REGISTERS, 'Lights').conventions[0];
  expect(known?.pattern).toContain('{title');
  expect(known?.fields).toContainEqual(
    expect.objectContaining({ type: 'choice', options: [{ code: '4k' }, { code: '8k' }] }),
  );
  expect(known?.reads).toHaveLength(names.length);
  expect(known?.oneWay).toBe(true);
  // Nobody said what the title is: it is a word that stands in every name.
  expect(learnConventions(names, NO_REGISTERS).conventions[0]?.pattern).toContain('_lights_');
});

test('optional parts lie where they were; days stand in brackets; what is learnt reads one way', () => {
  const learned = (names: readonly string[]) => {
    const { conventions, misfits } = learnConventions(names, REGISTERS);
    expect([conventions.length, misfits]).toEqual([1, []]);
    return conventions[0];
  };
  const works = ['quay', 'pier', 'mill', 'tower'];
  const between = works.flatMap((w) =>
    ['', '_nl', '_en'].flatMap((l) => [1, 2].map((v) => `26014_${w}${l}_v0${v}.exr`)),
  );
  expect(learned(between)?.pattern).toBe('{number}_{task}(_{task2})?_v{version:00}.{ext}');
  const behind = works.flatMap((w) => ['', '_a', '_b'].flatMap((l) => [1, 2].map((v) => `26014_${w}_v0${v}${l}.exr`)));
  expect(learned(behind)?.pattern).toBe('{number}_{task}_v{version:00}(_{task2})?.{ext}');
  const papers = ['quote', 'permit', 'schedule', 'rights', 'nights', 'plan'];
  expect(learned(papers.flatMap((t) => [1, 2].map((d) => `${t} (2026-03-0${d}).wav`)))?.pattern).toBe(
    '{title:kebab} (({date:yyyy-MM-dd})).{ext}',
  );
  expect(learned(papers.map((t, i) => `[2026-03-0${i + 1}] ${t}.wav`))?.pattern).toBe(
    '[{date:yyyy-MM-dd}] {title:kebab}.{ext}',
  );
  // Two texts parted by what both may hold: as texts they could be read in two ways.
  const both = ['opening', 'tide-table', 'storm', 'calm'].flatMap((t) =>
    ['red', 'blue-ish', 'green'].map((c) => `${t}-${c}.exr`),
  );
  const [only] = learnConventions(both, REGISTERS).conventions;
  expect(only?.oneWay).toBe(true);
  expect(only?.reads.length).toBeGreaterThanOrEqual(both.length - 1);
});
