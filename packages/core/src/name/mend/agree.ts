/** A field that stands twice has one value: where a name says two, it may mean either. */
import { valuesOf } from '../automaton/scan';
import type { ReadValue } from '../pattern/field';
import type { CompiledConvention } from '../pattern/ops';
import { textOfBound } from './candidates';
import type { Hypothesis, Move } from './hypotheses';

/** Two values of one field: as dear as another project's number. */
const DISAGREES = 2;

/** The hypothesis itself where its fields agree, else one for each value that they may all have. */
export function agreeing({ repeated }: CompiledConvention, h: Hypothesis): Hypothesis[] {
  let all = [h];
  for (const field of repeated) all = all.flatMap((each) => agreeingIn(field, each));
  return all;
}

function agreeingIn(field: string, h: Hypothesis): Hypothesis[] {
  const isOf = ({ target }: Move) => target?.kind === 'slot' && target.slot.field === field;
  const values = new Set<ReadValue>(
    h.moves.flatMap((m) =>
      isOf(m) && m.target?.kind === 'slot' ? valuesOf(m.target.slot.domain, m.text).slice(0, 1) : [],
    ),
  );
  if (values.size < 2) return [h];
  return [...values].map((value) => {
    const moves = h.moves.map((m): Move => {
      if (m.target?.kind !== 'slot' || !isOf(m)) return m;
      const text = textOfBound(m.target.slot.domain, value) ?? m.text;
      return text === m.text ? m : { ...m, text, change: 'spelling' };
    });
    return { ...h, moves, name: moves.map((m) => m.text).join(''), cost: h.cost + DISAGREES, doubtful: true };
  });
}
