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
 * The steps once for each way to read the fields that stand twice: which of their groups are there, and the value that
 * all their places have. `null` for too many.
 */
function pinnedOps({ ops, slots, repeated }: CompiledConvention): Op[][] | null {
  let all = repeated.size === 0 ? [[...ops]] : withGroups([...ops], repeated);
  for (const field of repeated) {
    const entries = slots
      .filter((s) => s.field === field)
      .flatMap((s) => (s.domain.kind === 'fixed' ? s.domain.entries : []));
    const values = [...new Set(entries.map((e) => e.value))];
    if (all.length * values.length > LIMITS.proofVariants) return null;
    all = all.flatMap((each) =>
      each.some((op) => op.kind === 'slot' && op.slot.field === field)
        ? values.map((value) => each.map((op) => pin(op, field, (e) => e.value === value)))
        : [each],
    );
  }
  return all;
}

/** The steps with each group that holds such a field once taken and once left out: no two take one reading. */
function withGroups(ops: readonly Op[], repeated: ReadonlySet<string>): Op[][] {
  const at = ops.findIndex(
    (op, i) =>
      op.kind === 'enter' &&
      ops.slice(i + 1, op.skipTo).some((inner) => inner.kind === 'slot' && repeated.has(inner.slot.field)),
  );
  const enter = ops[at];
  if (enter?.kind !== 'enter') return [[...ops]];
  const without = (from: number, to: number): Op[] =>
    ops
      .filter((_, i) => i < from || i >= to)
      .map((op) => {
        if (op.kind !== 'enter' || op.skipTo <= from) return op;
        return { ...op, skipTo: op.skipTo - (Math.min(op.skipTo, to) - from) };
      });
  const all = [without(at, at + 1), without(at, enter.skipTo)].flatMap((each) => withGroups(each, repeated));
  // One of two groups alike says the same whichever it is.
  return [...new Map(all.map((each) => [shapeOf(each), each])).values()];
}

const shapeOf = (ops: readonly Op[]): string =>
  JSON.stringify(
    ops.map((op) =>
      op.kind === 'literal'
        ? op.text
        : op.kind === 'enter'
          ? op.skipTo
          : [op.slot.field, op.slot.slot.property, op.slot.slot.shape],
    ),
  );

function pin(op: Op, field: string, keep: (entry: Entry) => boolean): Op {
  if (op.kind !== 'slot' || op.slot.field !== field || op.slot.domain.kind !== 'fixed') return op;
  return { ...op, slot: { ...op.slot, domain: { ...op.slot.domain, entries: op.slot.domain.entries.filter(keep) } } };
}
