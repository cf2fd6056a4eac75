/** A name as it would look: values that are known, and a plain example for each that is not. */
import { never } from '../answer';
import type { CompiledName } from './ops';
import type { Value, Values } from './field';
import type { Form } from './form';
import { hasValue, likeText, type WrittenPiece, writePieces } from './write';

export function examplePieces(name: CompiledName, known: Values): readonly WrittenPiece[] {
  const values: Record<string, Value> = {};
  for (const { field, form } of name.slots) {
    const given = known[field];
    values[field] = hasValue(given) && !Array.isArray(given) && typeof given !== 'object' ? given : exampleOf(field, form);
  }
  const pieces = writePieces(name, values);
  if (pieces.ok) return pieces.value;
  const plain = writePieces(name, Object.fromEntries(name.slots.map((s) => [s.field, exampleOf(s.field, s.form)])));
  return plain.ok ? plain.value : [];
}

function exampleOf(field: string, form: Form): Value {
  switch (form.kind) {
    case 'fixed':
      return form.entries.find((e) => !e.retired)?.value ?? '';
    case 'text':
      return form.chars === null ? field.slice(0, form.max) : form.chars.slice(0, 1);
    case 'like':
      return likeText(form).replace(/0(?!.*0)/, '1');
    case 'code':
      return form.of === 'number' ? '00001' : 'txt';
    case 'digits':
      return field === 'version' ? 4 : 1;
    case 'letters':
      return 'A';
    case 'date':
      return `${form.pivot}-03-02T14:05:00`;
    default:
      return never(form);
  }
}
