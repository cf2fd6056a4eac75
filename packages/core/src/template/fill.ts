/** Fills a starter file's text: slots of known fields are replaced, every other brace stays as it is. */

import { compileName } from '../name/pattern/compile';
import type { Field, Registers, Values } from '../name/pattern/field';
import { parsePattern } from '../name/pattern/parse';
import { hasValue, writeName } from '../name/write';
import { ownValue } from '../own-value';

const SLOT = /\{[A-Za-z][A-Za-z0-9_-]*(?:\.[A-Za-z]+)?(?::[^{}\n]{1,40})?\}/g;

/**
 * A list field is written with commas; a field without a value leaves its slot as it stands, so that it can be seen.
 */
export function fillText(text: string, values: Values, fields: readonly Field[], registers: Registers): string {
  return text.replace(SLOT, (slot) => {
    const pattern = parsePattern(slot);
    const part = pattern.ok ? pattern.value.parts[0] : undefined;
    if (!pattern.ok || part?.kind !== 'slot' || !hasValue(ownValue(values, part.field))) return slot;
    const value = ownValue(values, part.field);
    const rule = fields.find((f) => f.key === part.field);
    if (rule?.type === 'list' && Array.isArray(value)) return value.join(', ');
    const name = compileName(pattern.value, { fields, registers });
    if (!name.ok) return slot;
    const written = writeName(name.value, values);
    return written.ok ? written.value : slot;
  });
}
