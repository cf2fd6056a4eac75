/**
 * Parts in another order: where a name cannot be explained as it stands, neighbouring tokens change places and it is
 * tried again.
 */
import { elementAt } from '../../element';
import { align, type KnownCandidates } from './align';
import { COST, type NameContext } from './candidates';
import type { Hypothesis, Move, Target } from './hypotheses';

/** Below this cost a name is explained well enough as it stands. */
const EXPLAINED = 1.6;
/** In another order a name must be nearly right: dearer explanations are not looked for. */
const CHEAP = [2.5, 5] as const;
/** More tokens than this are not tried: each pair costs an alignment. */
const MOST_TOKENS = 12;

export function alignInAnyOrder(targets: readonly Target[], name: string, context: NameContext): Hypothesis[] {
  const known: KnownCandidates = new Map();
  const asItStands = align(targets, name, context, known);
  const best = asItStands[0];
  if (best !== undefined && !best.invented && best.cost - separatorsOf(best) < EXPLAINED) return asItStands;
  const swapped = swapsOf(name, context).flatMap((swap) =>
    align(targets, swap.name, context, known, CHEAP)
      .slice(0, 1)
      .map((h) => taken(h, swap)),
  );
  const better = swapped.filter((h) => !h.invented && (best === undefined || best.invented || h.cost < best.cost));
  return better.length === 0
    ? asItStands
    : [...better, ...asItStands].sort((a, b) => Number(a.invented) - Number(b.invented) || a.cost - b.cost);
}

/** Other separators all through a name are one habit: they say nothing of its order. */
const separatorsOf = (h: Hypothesis): number =>
  h.moves.reduce((n, m) => n + (m.change === 'separator' ? COST.separator : 0), 0);

interface Swap {
  readonly name: string;
  /** Where the two tokens stand in the name itself. */
  readonly first: { readonly at: number; readonly end: number };
  readonly second: { readonly at: number; readonly end: number };
}

/**
 * The name with each pair of neighbouring tokens changed, or a known value brought to the front; the extension stays
 * where it is.
 */
function swapsOf(name: string, { bound }: NameContext): Swap[] {
  const dot = name.lastIndexOf('.');
  const stem = dot > 0 ? name.slice(0, dot) : name;
  const tokens = [...stem.matchAll(/[^_ .]+/g)].map((m) => ({ at: m.index, end: m.index + m[0].length }));
  if (tokens.length > MOST_TOKENS) return [];
  const text = (t: Swap['first']) => name.slice(t.at, t.end);
  // The number, above all, is put behind other words; it may belong before all of them.
  const known = new Set(Object.values(bound).map((value) => String(value).toLowerCase()));
  const fronts = tokens.flatMap((second, i) =>
    i > 1 && known.has(text(second).toLowerCase())
      ? [{ first: { at: tokens[0]?.at ?? 0, end: tokens[i - 1]?.end ?? 0 }, second }]
      : [],
  );
  const neighbours = tokens.slice(1).map((second, i) => ({ first: elementAt(tokens, i), second }));
  return [...neighbours, ...fronts].map(({ first, second }) => ({
    name:
      name.slice(0, first.at) + text(second) + name.slice(first.end, second.at) + text(first) + name.slice(second.end),
    first,
    second,
  }));
}

/**
 * The hypothesis told of the name itself: places go back to where the tokens stand, and the order is a change of its
 * own.
 */
function taken(hypothesis: Hypothesis, { first, second }: Swap): Hypothesis {
  const length = second.end - second.at;
  const back = (at: number): number => {
    if (at < first.at || at >= second.end) return at;
    if (at < first.at + length) return at - first.at + second.at;
    const gap = second.at - first.end;
    if (at < first.at + length + gap) return at - first.at - length + first.end;
    return at - first.at - length - gap + first.at;
  };
  const moves = hypothesis.moves
    .map((m): Move => {
      const at = back(m.at);
      const end = m.end > m.at ? back(m.end - 1) + 1 : at;
      const moved = at === second.at && m.change === null && m.end > m.at;
      return { ...m, at, end: Math.max(at, end), change: moved ? 'order' : m.change };
    })
    .sort((a, b) => a.at - b.at);
  const said = moves.some((m) => m.change === 'order')
    ? moves
    : [...moves, { target: null, at: second.at, end: second.end, text: '', change: 'order' as const }];
  return { ...hypothesis, moves: said, cost: hypothesis.cost + COST.order };
}
