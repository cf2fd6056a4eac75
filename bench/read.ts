/** Reading a million names by a convention that is proved to read one way, against a hand-written expression with its groups read. */
import { compileConvention, mustParse, NO_REGISTERS, readName } from '@nesting/core';
import { interleave, line } from './measure';

const COUNT = 1_000_000;

export function benchRead(): void {
  const compiled = compileConvention(mustParse('{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}'), {
    number: '26014',
    fields: [{ key: 'surface', type: 'text', max: 24 }, { key: 'scene', type: 'text', like: 's00' }, { key: 'task', type: 'choice', options: ['anim', 'comp', 'model', 'layout', 'light', 'fx'].map((code) => ({ code })) }],
    registers: { ...NO_REGISTERS, people: ['IT', 'BO', 'LV', 'TF', 'AP', 'SD', 'ME'].map((initials) => ({ initials, name: initials })), families: [{ name: '3D scene', extensions: ['usda', 'usdc'] }] },
  });
  if (!compiled.ok || compiled.value.fast === null) throw new Error('not proved to read one way');
  const convention = compiled.value;
  const names = Array.from({ length: COUNT }, (_, i) => `26014_west-front_s${String(1 + (i % 60)).padStart(2, '0')}_${['anim', 'comp', 'light'][i % 3]}_${['BO', 'LV', 'AP'][i % 3]}_v${String(1 + (i % 900)).padStart(3, '0')}.usda`);
  const hand = /^(26014)_([a-z0-9-]{1,24})_(s[0-9]{2,})_(anim|comp|model|layout|light|fx)_(IT|BO|LV|TF|AP|SD|ME)_v([0-9]{3,})\.(usda|usdc)$/;
  let sum = 0;
  const times = interleave([
    {
      name: 'hand',
      run: () => {
        for (const name of names) {
          const m = hand.exec(name);
          if (m === null) throw new Error(name);
          const reading = { number: m[1], surface: m[2], scene: m[3], task: m[4], person: m[5], version: Number(m[6]), ext: m[7] };
          sum += reading.version;
        }
        return undefined;
      },
    },
    {
      name: 'nesting',
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
  const [own, hands] = [times.get('nesting') as number, times.get('hand') as number];
  line('read 1,000,000 names of 7 parts', `${(own / hands).toFixed(2)} × by hand (${((COUNT / own) * 1000 / 1e6).toFixed(1)} M/s)`, 'at most 2 ×', own / hands <= 2);
}
