/** The one-way proof of a convention: whether some name has two readings, decided exactly within bounds. */
import { type Ambiguity, ambiguityOf } from './automaton';
import type { CompiledConvention } from './ops';
import { readings } from './read';

/** Whether any name has two readings, with the shortest example; `null` where that was not decided in time. */
export function proveOneWay(convention: CompiledConvention): Ambiguity | 'one-way' | null {
  if (convention.oneWay) return 'one-way';
  return ambiguityOf(convention.ops, { exact: true }, (name) => readings(convention, name, 2));
}
