/** A name as it would look: values that are known, and a plain example for each that is not. */
import { ownValue } from '../../own-value';
import { assertNever } from '../../result';
import { hasValue, likeText, type WrittenPiece, writePieces } from '../write';
import type { Value, Values } from './field';
import type { CompiledName } from './ops';
import type { SlotDomain } from './slot-domain';

export function examplePieces(name: CompiledName, known: Values): readonly WrittenPiece[] {
  const values: Record<string, Value> = {};
  for (const { field, domain } of name.slots) {
    const given = ownValue(known, field);
    values[field] =
      hasValue(given) && !Array.isArray(given) && typeof given !== 'object' ? given : exampleOf(field, domain);
  }
  const pieces = writePieces(name, values);
  if (pieces.ok) return pieces.value;
  const plain = writePieces(name, Object.fromEntries(name.slots.map((s) => [s.field, exampleOf(s.field, s.domain)])));
  return plain.ok ? plain.value : [];
}

function exampleOf(field: string, domain: SlotDomain): Value {
  switch (domain.kind) {
    case 'fixed':
      return domain.entries.find((e) => !e.retired)?.value ?? '';
    case 'text':
      return domain.chars === null ? field.slice(0, domain.max) : domain.chars.slice(0, 1);
    case 'like':
      return likeText(domain).replace(/0(?!.*0)/, '1');
    case 'code':
      return domain.of === 'number' ? '00001' : 'txt';
    case 'digits':
      return field === 'version' ? 4 : 1;
    case 'letters':
      return 'A';
    case 'date':
      return `${domain.pivot}-03-02T14:05:00`;
    default:
      return assertNever(domain);
  }
}

/**
 * The longest name a pattern allows, groups and all; numbers with one digit more than they are padded to, projects'
 * numbers as they stand.
 */
export function longestName({ ops }: CompiledName): string {
  return ops
    .map((op) => (op.kind === 'literal' ? op.text : op.kind === 'slot' ? longestOf(op.slot.domain) : ''))
    .join('');
}

function longestOf(domain: SlotDomain): string {
  switch (domain.kind) {
    case 'fixed':
      return domain.entries.reduce((longest, e) => (e.text.length > longest.length ? e.text : longest), '');
    case 'text':
      return (domain.shape === 'upper' || domain.shape === 'pascal' ? 'W' : 'w').repeat(domain.max);
    case 'like':
      return domain.pieces.map((p) => (p.kind === 'literal' ? p.text : '9'.repeat(p.min + 1))).join('');
    case 'code':
      return domain.of === 'number' ? '00000' : 'xxxx';
    case 'digits':
      return '9'.repeat(domain.min + 1);
    case 'letters':
      return domain.upper ? 'ZZ' : 'zz';
    case 'date':
      return domain.pattern.source.replace(/[A-Za-z]/g, '0');
    default:
      return assertNever(domain);
  }
}
