import { describe, expect, test } from '@jest/globals';
import { REGISTERS } from '../../tests/names';
import { compileName } from './pattern/compile';
import type { Field, Values } from './pattern/field';
import { mustParse } from './pattern/parse';
import { writeName } from './write';

const FIELDS: readonly Field[] = [
  { key: 'scene', type: 'text', like: 's00' },
  { key: 'take', type: 'count' },
  { key: 'side', type: 'letters' },
  { key: 'task', type: 'choice', options: [{ code: 'anim', label: 'Animation', also: ['animate'] }, { code: 'comp' }] },
  { key: 'short', type: 'text', max: 5 },
  { key: 'code', type: 'text', chars: 'A-Z0-9' },
];

function write(pattern: string, values: Values): string {
  const name = compileName(mustParse(pattern), { fields: FIELDS, registers: REGISTERS, number: '26014' });
  if (!name.ok) return `! ${name.faults.map((f) => f.code).join(' ')}`;
  const written = writeName(name.value, values);
  return written.ok ? written.value : `! ${written.faults.map((f) => f.code).join(' ')}`;
}

describe('writing', () => {
  test.each<[string, Values, string]>([
    ['{number}_x', {}, '26014_x'],
    ['{title:kebab}', { title: 'Été à la mer' }, 'ete-a-la-mer'],
    ['{title}', { title: '  As it is ' }, 'As it is'],
    ['{title:snake}', { title: '' }, '! value-missing'],
    ['{title:kebab}', { title: '!!!' }, '! value-empty'],
    ['{title:kebab}', { title: '灯' }, '! value-unfoldable'],
    ['{title}', { title: 'a/b' }, '! value-characters'],
    ['{title}', { title: ['a', 'b'] }, '! value-is-list'],
    ['{short:kebab}', { short: 'abcde' }, 'abcde'],
    ['{short:kebab}', { short: 'Straße' }, '! value-too-long'],
    ['{code}', { code: 'AB12' }, 'AB12'],
    ['{code}', { code: 'ab' }, '! value-characters'],
    ['{scene}', { scene: 's03' }, 's03'],
    ['{scene}', { scene: 'S3' }, 's03'],
    ['{scene}', { scene: 3 }, 's03'],
    ['{scene}', { scene: 's0123' }, 's0123'],
    ['{scene}', { scene: 'x3' }, '! value-form'],
    ['{scene:upper}', { scene: 's3' }, 'S03'],
    ['{take:000}', { take: 7 }, '007'],
    ['{take:000}', { take: '0012' }, '012'],
    ['{take:000}', { take: 1234 }, '1234'],
    ['{take:000}', { take: -1 }, '! value-not-count'],
    ['{take:000}', { take: '1.5' }, '! value-not-count'],
    ['v{version:000}', { version: 0 }, 'v000'],
    ['rev{version:A}', { version: 'c' }, 'revC'],
    ['{side}', { side: 'b' }, 'B'],
    ['{side:a}', { side: 'B' }, 'b'],
    ['{side}', { side: '4' }, '! value-not-letters'],
    ['{task}', { task: 'Animation' }, 'anim'],
    ['{task:upper}', { task: 'animate' }, 'ANIM'],
    ['{task}', { task: 'paint' }, '! value-unknown'],
    ['{client.code}', { client: 'ottermoor town council' }, 'OTM'],
    ['{client}', { client: { code: 'QHT', name: 'whole entry' } }, 'QHT'],
    ['{client.name:kebab}', { client: 'FNR' }, 'fennel-rook-theatre'],
    ['{person}', { person: 'Lucía Verhaegen' }, 'LV'],
    ['{person.name:pascal}', { person: 'LV' }, 'LuciaVerhaegen'],
    ['{date}', { date: '2026-03-02' }, '2026-03-02'],
    ['{date:yyMMdd}', { date: '2026-03-02' }, '260302'],
    ['{date:d.M.yyyy}', { date: '2026-03-02' }, '2.3.2026'],
    ['{date:yyyy-MM-dd_HHmm}', { date: '2026-03-02T14:05' }, '2026-03-02_1405'],
    ['{date:yyyy-MM-dd}', { date: '2026-03' }, '! value-not-date'],
    ['{date:yyyy-MM}', { date: '2026-03' }, '2026-03'],
    ['{date}', { date: '2026-02-30' }, '! value-not-date'],
    ['{ext}', { ext: 'exr' }, 'exr'],
    ['{ext}', { ext: 'EXR' }, 'exr'],
    ['{ext}', { ext: 'psx' }, '! value-unknown'],
    ['a(_{part:kebab})?_b', {}, 'a_b'],
    ['a(_{part:kebab})?_b', { part: 'x' }, 'a_x_b'],
    ['a(_{part:kebab}(-{take:00})?)?', { take: 3 }, 'a'],
    ['a(_{part:kebab}(-{take:00})?)?', { part: 'p', take: 3 }, 'a_p-03'],
    ['{title}_{take}', {}, '! value-missing value-missing'],
    ['{{{number}}}((x))', {}, '{26014}(x)'],
  ])('%s of %j is %s', (pattern, values, meant) => {
    expect(write(pattern, values)).toBe(meant);
  });

  test.each([
    ['{title:loud}', 'shape-unknown'],
    ['{take:abc}', 'shape-unknown'],
    ['{side:AA}', 'shape-unknown'],
    ['{date:yyyy-QQ}', 'date-form'],
    ['{title.code}', 'property-unknown'],
    ['{client.initials}', 'property-unknown'],
    ['{number:000}', 'shape-unknown'],
    ['{ext:upper}', 'shape-unknown'],
  ])('%s cannot be used: %s', (pattern, code) => {
    expect(write(pattern, { title: 'x' })).toBe(`! ${code}`);
  });
});
