/** Words for every code, lists as people write them, orders of steps, and reports that cannot be misused. */

import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Change, type MakingPort, performSteps, takeBack } from '../src/change';
import { relPathOf } from '../src/listing';
import { compileName, entriesOf, examplePieces, mustParse } from '../src/name';
import { makingSteps } from '../src/planners';
import { keepValues } from '../src/template';
import { base64, csv } from '../src/text';
import { wordsFor } from '../src/words';
import { FIELDS, REGISTERS } from './names';

const steps = (changes: readonly Change[]) => {
  const made = makingSteps(changes);
  if (!made.ok) throw new Error(made.faults[0]?.code);
  return made.value;
};

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

describe('plans', () => {
  const change = (after: string, what: Change['what']): Change => ({
    key: after,
    what,
    before: null,
    after,
    content: what === 'file' ? { kind: 'text', text: after } : null,
  });

  /** A disk in memory that refuses what a real one refuses. */
  function memory(failAt = Number.POSITIVE_INFINITY) {
    const entries = new Map<string, string | null>([['', null]]);
    const parent = (at: string) => at.slice(0, Math.max(0, at.lastIndexOf('/')));
    let steps = 0;
    const add = (at: string, content: string | null) => {
      if (++steps === failAt) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      if (entries.has(at)) throw Object.assign(new Error('exists'), { code: 'EEXIST' });
      if (entries.get(parent(at)) !== null) throw Object.assign(new Error('no parent'), { code: 'ENOENT' });
      entries.set(at, content);
    };
    const drop = (at: string) => {
      if ([...entries.keys()].some((k) => k.startsWith(`${at}/`)))
        throw Object.assign(new Error('not empty'), { code: 'ENOTEMPTY' });
      entries.delete(at);
    };
    const port: MakingPort = {
      make: (at) => add(at, null),
      write: (at, bytes) => add(at, Buffer.from(bytes).toString()),
      unwrite: drop,
      unmake: drop,
    };
    return { entries, port };
  }

  const paths = fc.uniqueArray(
    fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 4 }).map((p) => p.join('/')),
    { maxLength: 15 },
  );
  const bytesOf = (content: { kind: string; text?: string }) => Buffer.from(content.text ?? '');

  test('in whatever order changes come, folders are made before what is in them', async () => {
    await fc.assert(
      fc.asyncProperty(paths, fc.nat(), async (all, seed) => {
        const folders = [
          ...new Set(all.flatMap((p) => p.split('/').map((_, i, parts) => parts.slice(0, i + 1).join('/')))),
        ];
        const changes = [
          ...folders.map((f) => change(f, 'folder')),
          ...folders.map((f) => change(`${f}/x.txt`, 'file')),
        ].sort((a, b) => (seed % 2 ? 1 : -1) * ((a.after ?? '').length - (b.after ?? '').length));
        const { entries, port } = memory();
        expect((await performSteps(steps(changes), port, { bytesOf })).failed).toBeNull();
        expect(entries.size).toBe(1 + changes.length);
      }),
    );
  });

  test('a plan with a fault has no steps at all', () => {
    const twice = makingSteps([change('a', 'folder'), change('b', 'folder'), change('A', 'folder')]);
    expect(twice).toMatchObject({ ok: false, faults: [{ code: 'name-taken' }] });
    expect(makingSteps([change('b/x.txt', 'file'), change('b', 'file')]).ok).toBe(false);
  });

  test('wherever it fails, taking back leaves nothing', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 12 }), async (failAt) => {
        const { entries, port } = memory(failAt);
        const made = steps([
          change('a', 'folder'),
          change('a/b', 'folder'),
          change('c', 'folder'),
          change('a/b/1', 'file'),
          change('c/2', 'file'),
        ]);
        const { done, failed } = await performSteps(made, port, { bytesOf });
        expect(failed?.code ?? null).toBe(failAt <= 5 ? 'ENOSPC' : null);
        expect(await takeBack(done, port)).toEqual([]);
        expect([...entries.keys()]).toEqual(['']);
      }),
    );
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
