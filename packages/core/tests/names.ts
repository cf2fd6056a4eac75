/**
 * What several tests need of names: the scenario's registers, fields and patterns, and generators of values for them.
 */
import fc from 'fast-check';
import {
  type CompiledConvention,
  compileConvention,
  type Field,
  mustParse,
  type Registers,
  type Values,
} from '../src/name';

export const REGISTERS: Registers = {
  clients: [
    { code: 'QHT', name: 'Quillhaven Harbour Trust' },
    { code: 'OTM', name: 'Ottermoor Town Council' },
    { code: 'FNR', name: 'Fennel & Rook Theatre' },
  ],
  people: [
    { initials: 'IT', name: 'Ines Thorvald' },
    { initials: 'BO', name: 'Bram Okonjo' },
    { initials: 'LV', name: 'Lucía Verhaegen' },
    { initials: 'AP', name: 'Aiko Pendry' },
  ],
  families: [
    { name: '3D scene', extensions: ['usda', 'usdc'] },
    { name: 'still', extensions: ['exr', 'png', 'jpg'] },
    { name: 'sound', extensions: ['wav', 'tar.gz'] },
  ],
  abbreviations: [
    { short: 'SPK', long: 'speech' },
    { short: 'MUS', long: 'music' },
  ],
  banned: ['final', 'new'],
};

export const FIELDS: readonly Field[] = [
  { key: 'surface', type: 'text', max: 24 },
  { key: 'scene', type: 'text', like: 's00' },
  {
    key: 'task',
    type: 'choice',
    options: [
      { code: 'anim', label: 'Animation', also: ['animate'] },
      { code: 'comp', label: 'Compositing' },
      { code: 'light', label: 'Lighting' },
    ],
  },
  { key: 'take', type: 'count' },
  { key: 'window', type: 'letters' },
];

export const WORKING = '{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}';

export function convention(
  pattern: string,
  options: { number?: string; families?: readonly string[]; fields?: readonly Field[] } = {},
): CompiledConvention {
  const compiled = compileConvention(mustParse(pattern), {
    fields: options.fields ?? FIELDS,
    registers: REGISTERS,
    families: options.families,
    ...(options.number !== undefined && { number: options.number }),
  });
  if (!compiled.ok) throw new Error(`${pattern}: ${compiled.faults[0]?.code}`);
  return compiled.value;
}

/** Slots for generated patterns: what each may be written from. */
export const SLOTS: Readonly<Record<string, fc.Arbitrary<Values>>> = {
  '{title:kebab}': words('title'),
  '{title:pascal}': words('title'),
  '{note:lower}': words('note'),
  '{scene}': fc.integer({ min: 1, max: 140 }).map((n) => ({ scene: `s${String(n).padStart(2, '0')}` })),
  '{task}': fc.constantFrom('anim', 'comp', 'light').map((task) => ({ task })),
  '{client.code}': fc.constantFrom('QHT', 'OTM', 'FNR').map((client) => ({ client })),
  '{person.initials}': fc.constantFrom('IT', 'BO', 'LV', 'AP').map((person) => ({ person })),
  '{version:000}': fc.integer({ min: 0, max: 2000 }).map((version) => ({ version })),
  '{take:00}': fc.integer({ min: 0, max: 300 }).map((take) => ({ take })),
  '{window:A}': fc.constantFrom('A', 'B', 'Z', 'AA').map((window) => ({ window })),
  '{date:yyyy-MM-dd}': fc.constantFrom('2026-03-02', '2024-02-29', '2026-12-31').map((date) => ({ date })),
  '{date:MM-dd}': fc.constantFrom('--03-02', '--02-29').map((date) => ({ date })),
  '{date:dd}': fc.constantFrom('---02', '---31').map((date) => ({ date })),
  '{date:yyyy.M}': fc.constantFrom('2026-03', '2024-12').map((date) => ({ date })),
  '{date:HHmm}': fc.constantFrom('T21:14', 'T00:05').map((date) => ({ date })),
  '{client.name:kebab}': fc.constantFrom('QHT', 'Ottermoor Town Council', 'FNR').map((client) => ({ client })),
  '{date:yyMMdd}': fc.constantFrom('2026-03-02', '2024-02-29').map((date) => ({ date })),
  '{ext}': fc.constantFrom('usda', 'wav', 'tar.gz').map((ext) => ({ ext })),
};

function words(field: string): fc.Arbitrary<Values> {
  return fc
    .array(fc.stringMatching(/^[a-z][a-z0-9]{0,5}$/), { minLength: 1, maxLength: 3 })
    .map((all) => ({ [field]: all.join(' ') }));
}

/** A pattern of up to five different slots with separators, some in optional groups, and values for all of it. */
export const patternWithValues: fc.Arbitrary<{ pattern: string; values: Values }> = fc
  .uniqueArray(fc.constantFrom(...Object.keys(SLOTS)), {
    minLength: 1,
    maxLength: 5,
    selector: (slot) => slot.replace(/[.:}].*$/, ''),
  })
  .chain((slots) =>
    fc
      .tuple(
        fc.array(fc.constantFrom('_', '-', '.', '_v', ' ', ''), { minLength: 5, maxLength: 5 }),
        fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
        fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
        fc.tuple(...slots.map((slot) => SLOTS[slot] as fc.Arbitrary<Values>)),
      )
      .map(([joiners, optional, given, values]) => ({
        pattern: slots
          .map((slot, i) =>
            i > 0 && optional[i] ? `(${joiners[i] || '_'}${slot})?` : (i === 0 ? '' : (joiners[i] as string)) + slot,
          )
          .join(''),
        values: Object.assign({}, ...values.filter((_, i) => i === 0 || !optional[i] || given[i])) as Values,
      })),
  );
