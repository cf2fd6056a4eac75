/**
 * The one-way proof at its stated bounds: 12 parts, texts of 64, registers of 2,000; patterns that are one way and ones
 * that are not.
 */
import { compileConvention, type Field, mustParse, NO_REGISTERS, proveOneWay } from '@nesting/core/name';
import { line, median } from './measure';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const code = (i: number): string =>
  [i % 26, Math.floor(i / 26) % 26, Math.floor(i / 676) % 26].map((n) => LETTERS[n]).join('');
const clients = Array.from({ length: 2000 }, (_, i) => ({ code: code(i), name: `Client ${i}` }));
const people = Array.from({ length: 2000 }, (_, i) => ({ initials: code(i + 5000), name: `Person ${i}` }));
const families = [{ name: 'still', extensions: ['exr', 'png', 'jpg'] }];
const fields: Field[] = ['title', 'part', 'note', 'place', 'mood'].map((key) => ({ key, type: 'text', max: 64 }));

const PATTERNS: Readonly<Record<string, string>> = {
  'kebab texts, two registers':
    '{number}_{client.code}_{title:kebab}_{part:kebab}_{note:kebab}_{place:kebab}_{mood:kebab}_{person.initials}_{date:yyyyMMdd}_v{version:000}_{take:00}.{ext}',
  'as-is texts': '{number}_{client.code}_{title}_{part}_{note}_v{version:000}.{ext}',
  'optional parts':
    '{number}_{client.code}(_{title:kebab})?(_{part:kebab})?(_{note:kebab})?_v{version:000}(_{date:yyyyMMdd})?.{ext}',
  'texts without separators': '{title:lower}{part:lower}_{client.code}{person.initials}_v{version:000}.{ext}',
};

export function benchProve(): void {
  for (const [what, pattern] of Object.entries(PATTERNS)) {
    let verdict = '';
    const times = Array.from({ length: 8 }, () => {
      const start = performance.now();
      const compiled = compileConvention(mustParse(pattern), {
        fields: [...fields, { key: 'take', type: 'count' }],
        registers: { ...NO_REGISTERS, clients, people, families },
        number: '26014',
      });
      if (!compiled.ok) throw new Error(compiled.faults[0]?.code);
      const proof = proveOneWay(compiled.value);
      verdict = proof === null ? 'not decided' : proof === 'one-way' ? 'one way' : `two ways: ${proof.name}`;
      return performance.now() - start;
    });
    const time = median(times.slice(1));
    line(`compile and prove, ${what}`, `${time.toFixed(1)} ms, ${verdict}`, 'under 50 ms', time < 50);
  }
}
