/**
 * Reading a million names by a convention that is proved to read one way, against a hand-written expression with its
 * groups read.
 */
import {
  type CompiledConvention,
  compileConvention,
  type Field,
  mustParse,
  NO_REGISTERS,
  readName,
  readValues,
} from '@nesting/core/name';
import { interleave, line, median } from './measure';

const COUNT = 1_000_000;

/** A convention of seven parts that is proved to read one way. */
function provedConvention(): CompiledConvention {
  const compiled = compileConvention(
    mustParse('{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}'),
    {
      number: '26014',
      fields: [
        { key: 'surface', type: 'text', max: 24 },
        { key: 'scene', type: 'text', like: 's00' },
        {
          key: 'task',
          type: 'choice',
          options: ['anim', 'comp', 'model', 'layout', 'light', 'fx'].map((code) => ({ code })),
        },
      ],
      registers: {
        ...NO_REGISTERS,
        people: ['IT', 'BO', 'LV', 'TF', 'AP', 'SD', 'ME'].map((initials) => ({ initials, name: initials })),
        families: [{ name: '3D scene', extensions: ['usda', 'usdc'] }],
      },
    },
  );
  if (!compiled.ok || compiled.value.fast === null) throw new Error('not proved to read one way');
  return compiled.value;
}

const nameOf = (i: number): string =>
  `26014_west-front_s${String(1 + (i % 60)).padStart(2, '0')}_${['anim', 'comp', 'light'][i % 3]}_${['BO', 'LV', 'AP'][i % 3]}_v${String(1 + (i % 900)).padStart(3, '0')}.usda`;

const HAND =
  /^(26014)_([a-z0-9-]{1,24})_(s[0-9]{2,})_(anim|comp|model|layout|light|fx)_(IT|BO|LV|TF|AP|SD|ME)_v([0-9]{3,})\.(usda|usdc)$/;

/** What a hand-written program would do: the groups of an expression, named. Gives the version. */
function readByHand(name: string): number {
  const m = HAND.exec(name);
  if (m === null) throw new Error(name);
  const [, number, surface, scene, task, person, version, ext] = m;
  const reading = { number, surface, scene, task, person, version: Number(version), ext };
  return reading.version;
}

export function benchRead(): void {
  const convention = provedConvention();
  const names = Array.from({ length: COUNT }, (_, i) => nameOf(i));
  let sum = 0;
  const each = (version: (name: string) => unknown) => () => {
    for (const name of names) sum += Number(version(name));
    return undefined;
  };
  const times = interleave([
    { name: 'hand', run: each(readByHand) },
    { name: 'values', run: each((name) => readValues(convention, name)?.[5]) },
    { name: 'reading', run: each((name) => readName(convention, name)?.version) },
  ]);
  if (!(sum > 0)) throw new Error('a name was not read');
  for (const [own, what] of [
    ['values', 'values by slot'],
    ['reading', 'readings by field'],
  ] as const) {
    const ratio = times[own] / times.hand;
    line(
      `read 1,000,000 names of 7 parts, ${what}`,
      `${ratio.toFixed(2)} × by hand (${(((COUNT / times[own]) * 1000) / 1e6).toFixed(1)} M/s)`,
      'at most 1.2 ×',
      ratio <= 1.2,
    );
  }
}

const SLOW = 200_000;

/** Conventions not proved to read one way go to the linear matcher, whatever the names. */
export function benchReadAny(): void {
  const version = (i: number): string => String(1 + (i % 900)).padStart(3, '0');
  const limited: Field[] = ['a', 'b', 'c'].map((key) => ({ key, type: 'text', max: 24 }));
  const kinds: { what: string; pattern: string; fields: readonly Field[]; name: (i: number) => string }[] = [
    {
      what: 'usual names',
      pattern: '{number}_{a}_{b}_v{version:000}.{ext}',
      fields: [],
      name: (i) => `26014_west-front_s${i % 60}_v${version(i)}.usda`,
    },
    {
      what: 'optional parts',
      pattern: '{number}(_{a})?(_{b})?_v{version:000}.{ext}',
      fields: [],
      name: (i) => `26014_west_front_v${version(i)}.usda`,
    },
    {
      what: 'limits that bite',
      pattern: '{a}_{b}_v{version:000}.{ext}',
      fields: limited,
      name: (i) => `west-front-of-the-big-hall_other_v${version(i)}.usda`,
    },
    {
      what: 'hostile, 130 characters, reads',
      pattern: '{a}_{b}_{c}_v{version:000}.{ext}',
      fields: [],
      name: (i) => `${'a_'.repeat(60)}v${version(i)}.usda`,
    },
    {
      what: 'hostile, 70 characters, limits',
      pattern: '{a}_{b}_{c}_v{version:000}.{ext}',
      fields: limited,
      name: (i) => `${'a_'.repeat(30)}v${version(i)}.usda`,
    },
    {
      what: 'hostile, does not read',
      pattern: '{a}_{b}_{c}_{d}.{ext}',
      fields: [],
      name: (i) => `${'_'.repeat(100)}${i}x`,
    },
  ];
  for (const { what, pattern, fields, name } of kinds) {
    const compiled = compileConvention(mustParse(pattern), {
      number: '26014',
      fields,
      registers: { ...NO_REGISTERS, families: [{ name: '3D scene', extensions: ['usda', 'usdc'] }] },
    });
    if (!compiled.ok || compiled.value.fast !== null) throw new Error(`${what}: not for the matcher`);
    const names = Array.from({ length: SLOW }, (_, i) => name(i));
    const times = Array.from({ length: 6 }, () => {
      const start = performance.now();
      for (const each of names) readName(compiled.value, each);
      return performance.now() - start;
    });
    const rate = (SLOW / median(times.slice(1))) * 1000;
    line(`read by the matcher, ${what}`, `${(rate / 1e6).toFixed(2)} M/s`, 'at least 0.5 M/s', rate >= 500_000);
  }
}
