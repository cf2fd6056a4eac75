/** The one-way proof of a convention: whether some name has two readings, decided exactly within bounds. */
import { LIMITS } from '../../limits';
import { type Ambiguity, ambiguityOf } from '../automaton/automaton';
import type { CompiledConvention, Op } from '../pattern/ops';
import type { Entry } from '../pattern/slot-domain';
import { readings } from '../read/read';

/** Whether any name has two readings, with the shortest example; `null` where that was not decided in time. */
export function proveOneWay(convention: CompiledConvention): Ambiguity | 'one-way' | null {
  if (convention.oneWay) return 'one-way';
  const pinned = pinnedOps(convention);
  return pinned === null
    ? null
    : ambiguityOf(convention.ops, { exact: true }, (name) => readings(convention, name, 2), pinned);
}

/**
 * The steps once for each choice of values of the fields that stand twice, so that both places have one; `null` for too
 * many.
 */
function pinnedOps({ ops, slots, repeated }: CompiledConvention): Op[][] | null {
  let all: Op[][] = [[...ops]];
  for (const field of repeated) {
    const entries = slots
      .filter((s) => s.field === field)
      .flatMap((s) => (s.domain.kind === 'fixed' ? s.domain.entries : []));
    const values = [...new Set(entries.map((e) => e.value))];
    if (all.length * values.length > LIMITS.proofVariants) return null;
    all = all.flatMap((each) => values.map((value) => each.map((op) => pin(op, field, (e) => e.value === value))));
  }
  return all;
}

function pin(op: Op, field: string, keep: (entry: Entry) => boolean): Op {
  if (op.kind !== 'slot' || op.slot.field !== field || op.slot.domain.kind !== 'fixed') return op;
  return { ...op, slot: { ...op.slot, domain: { ...op.slot.domain, entries: op.slot.domain.entries.filter(keep) } } };
}
