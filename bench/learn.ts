/** Learning conventions from 10,000 sample names of six kinds, and grouping 1,000,000 frames in one pass. */
import { elementAt } from '@nesting/core';
import { groupFrames, learnConventions } from '@nesting/core/name';
import { CASES, REGISTERS } from '../corpus/conventions';
import { rightNames } from '../corpus/learning';
import { generator } from '../corpus/make';
import { interleave, line, median } from './measure';

export function benchLearn(): void {
  const random = generator(7);
  const names = CASES.flatMap((c) => rightNames(c, 2000, random)).slice(0, 10_000);
  const times = Array.from({ length: 6 }, () => {
    const start = performance.now();
    learnConventions(names, REGISTERS);
    return performance.now() - start;
  });
  const time = median(times.slice(1));
  line(
    `learn from ${names.length} names of ${CASES.length} kinds`,
    `${(time / 1000).toFixed(2)} s`,
    'under 2 s',
    time < 2000,
  );
}

export function benchFrames(): void {
  const names = Array.from(
    { length: 1_000_000 },
    (_, i) =>
      `26014_west-front_s${String(1 + Math.floor(i / 10_000)).padStart(3, '0')}_v003.${String(1 + (i % 10_000)).padStart(5, '0')}.exr`,
  );
  const pass = /^(.*?)(\d+)(\.[^.]+)$/;
  const times = interleave(
    [
      {
        name: 'hand',
        run: () => {
          const heads = new Map<string, number>();
          for (const name of names) {
            const m = pass.exec(name);
            if (m) heads.set(elementAt(m, 1), (heads.get(elementAt(m, 1)) ?? 0) + 1);
          }
          if (heads.size !== 100) throw new Error();
          return undefined;
        },
      },
      {
        name: 'nesting',
        run: () => {
          if (groupFrames(names).sequences.length !== 100) throw new Error('sequences');
          return undefined;
        },
      },
    ],
    5,
  );
  const own = times.nesting;
  line(
    'group 1,000,000 frames',
    `${own.toFixed(0)} ms, ${(own / times.hand).toFixed(2)} × an expression and a count`,
    'one pass',
    true,
  );
}
