/**
 * Reading a million names by a convention that is proved to read one way, against a hand-written expression with its
 * groups read.
 */
import { compileConvention, type Field, mustParse, NO_REGISTERS, readName, readValues } from '@nesting/core/name';
import { interleave, line, median } from './measure';

const COUNT = 1_000_000;

export function benchRead(): void {
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
  const convention = compiled.value;
  const names = Array.from(
    { length: COUNT },
    (_, i) =>
      `26014_west-front_s${String(1 + (i % 60)).padStart(2, '0')}_${['anim', 'comp', 'light'][i % 3]}_${['BO', 'LV', 'AP'][i % 3]}_v${String(1 + (i % 900)).padStart(3, '0')}.usda`,
  );
  const hand =
    /^(26014)_([a-z0-9-]{1,24})_(s[0-9]{2,})_(anim|comp|model|layout|light|fx)_(IT|BO|LV|TF|AP|SD|ME)_v([0-9]{3,})\.(usda|usdc)$/;
  let sum = 0;
  const times = interleave([
    {
      name: 'hand',
      run: () => {
        for (const name of names) {
          const m = hand.exec(name);
          if (m === null) throw new Error(name);
          const reading = {
            number: m[1],
            surface: m[2],
            scene: m[3],
            task: m[4],
            person: m[5],
            version: Number(m[6]),
            ext: m[7],
          };
          sum += reading.version;
        }
        return undefined;
      },
    },
    {
      name: 'values',
      run: () => {
        for (const name of names) {
          const values = readValues(convention, name);
          if (values === null) throw new Error(name);
          sum += values[5] as number;
        }
        return undefined;
      },
    },
    {
      name: 'reading',
      run: () => {
        for (const name of names) {
          const reading = readName(convention, name);
          if (reading === null) throw new Error(name);
          sum += reading.version as number;
        }
        return undefined;
      },
    },
  ]);
  if (sum === 0) throw new Error('nothing was read');
  const hands = times.get('hand') as number;
  for (const [own, what] of [
    ['values', 'values by slot'],
    ['reading', 'readings by field'],
  ] as const) {
    const time = times.get(own) as number;
    line(
      `read 1,000,000 names of 7 parts, ${what}`,
      `${(time / hands).toFixed(2)} × by hand (${(((COUNT / time) * 1000) / 1e6).toFixed(1)} M/s)`,
      'at most 1.2 ×',
      time / hands <= 1.2,
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
