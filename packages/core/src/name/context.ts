/** What the values of a project say about one convention's names, where no folder says more. */
import { ownValue } from '../own-value';
import { valuesOf } from './automaton/scan';
import type { NameContext } from './mend/costs';
import type { ReadValue, Registers, Value, Values } from './pattern/field';
import type { CompiledConvention } from './pattern/ops';
import { entriesOf } from './read/value';
import { writeSlot } from './write';

/** Values a name must carry: it is of no other project and for no other client. */
const BINDING = ['number', 'client'];

/**
 * A value may be given in any form of writing (`Harbour Lights` for `harbour-lights`, a client by name); the entries of
 * a list `scenes` are those of a field `scene`.
 */
export function contextOfValues(convention: CompiledConvention, values: Values, registers: Registers): NameContext {
  const bound: Record<string, ReadValue> = {};
  const known: Record<string, readonly string[]> = {};
  for (const { field, slot, domain } of convention.slots) {
    const read = (value: Value): ReadValue[] => {
      const written = writeSlot(slot, domain, value);
      return written.ok ? valuesOf(domain, written.value).slice(0, 1) : [];
    };
    const given = ownValue(values, field) ?? ownValue(values, `${field}s`);
    const entries = entriesOf(given);
    const all = entries.ok ? [...new Set(entries.entries.flatMap(read))] : [];
    if (BINDING.includes(field)) {
      const [only] = all;
      if (only !== undefined && all.length === 1) bound[field] = only;
    } else if (all.length > 0 && (domain.kind === 'text' || domain.kind === 'like')) known[field] = all.map(String);
  }
  return { bound, known, abbreviations: registers.abbreviations, banned: registers.banned };
}
