import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseTemplate } from '../../../contract/src/index';
import { NO_REGISTERS } from '../name/pattern/field';
import { diagnoseTemplate } from './compile-names';
import { renameField } from './rename';

const templates = readdirSync('demo/templates')
  .filter((f) => f.endsWith('.nest.json'))
  .map((f) => {
    const parsed = parseTemplate(readFileSync(`demo/templates/${f}`, 'utf8'));
    if (!parsed.ok) throw new Error(f);
    return parsed.value;
  });
const faults = (t: (typeof templates)[number]) => diagnoseTemplate(t, NO_REGISTERS).map((d) => `${d.node} ${d.code}`);

describe('a field by another name', () => {
  test('nothing becomes wrong by it, and back it is the very same', () => {
    const pairs = templates.flatMap((t) => t.fields.map((f) => ({ t, key: f.key })));
    fc.assert(
      fc.property(fc.constantFrom(...pairs), fc.stringMatching(/^[a-z][a-z0-9_-]{0,8}x$/), ({ t, key }, to) => {
        fc.pre(!JSON.stringify(t).includes(to) && key !== 'client' && key !== 'person' && key !== 'date');
        const renamed = renameField(t, key, to);
        expect(faults(renamed)).toEqual(faults(t));
        expect(JSON.stringify(renamed.root)).not.toContain(`{${key}}`);
        expect(renameField(renamed, to, key)).toEqual(t);
      }),
    );
  });

  test('braces that stand for themselves, longer names and a convention’s own field stay', () => {
    const t = {
      format: 'nesting/template' as const,
      formatVersion: 1 as const,
      id: 'x',
      name: 'x',
      edition: 1,
      fields: [{ key: 'part', type: 'text' as const }],
      conventions: [{ id: 'c', name: 'c', pattern: '{part}', fields: [{ key: 'part', type: 'text' as const }] }],
      root: { id: 'root', name: '{{part}}_{part:kebab}_{partner}' },
    };
    const renamed = renameField(t, 'part', 'piece');
    expect(renamed.root.name).toBe('{{part}}_{piece:kebab}_{partner}');
    expect(renamed.conventions[0]?.pattern).toBe('{part}');
  });
});
