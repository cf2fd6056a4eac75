/**
 * Parts in another order: where a name cannot be explained as it stands, parts that can be told wherever they stand are
 * taken out and put in their places, and neighbouring words change places.
 */

import { elementAt } from '../../element';
import { ownValue } from '../../own-value';
import { Remembered } from '../../remembered';
import type { CompiledConvention, CompiledSlot } from '../pattern/ops';
import { type Asked, align, targetsOf } from './align';
import { aroundOf } from './claims';
import { type ChangeCode, COST, type NameContext } from './costs';
import { type Found, partsFound } from './elsewhere';
import type { Hypothesis, Move, Target } from './hypotheses';

/** Below this cost a name is explained well enough as it stands. */
const EXPLAINED = 1.6;
/** In another order a name must be nearly right: dearer explanations are not looked for. */
const CHEAP = [2.5, 5] as const;
/** More tokens than this are not tried: each pair costs an alignment. */
const MOST_TOKENS = 12;
/** A name explained as cheaply as this in another order needs no further one. */
const GOOD = 2.6;
/** Parts that are taken out one by one, and then two at a time. */
const MOST_FOUND = 8;

const targets = new Remembered(targetsOf);

export function alignInAnyOrder(convention: CompiledConvention, name: string, context: NameContext): Hypothesis[] {
  const asked: Asked = { targets: targets.of(convention), around: aroundOf(convention, context) };
  const asItStands = align(asked, name);
  const best = asItStands[0];
  if (best !== undefined && isInOrder(best)) return asItStands;
  const moved = movedIn(asked, convention, name, best);
  const isFound = moved.some((h) => !h.invented && h.cost < GOOD);
  // Where all words have a place, and one part is missing, nothing is to be exchanged.
  const isComplete =
    best !== undefined &&
    !best.invented &&
    !best.doubtful &&
    !best.moves.some((m) => m.change !== 'missing' && isDisplaced(m));
  const other = isFound || isComplete ? moved : [...moved, ...swappedIn(asked, name)];
  const better = other.filter((h) => !h.invented && (best === undefined || best.invented || h.cost < best.cost + 1));
  return better.length === 0
    ? asItStands
    : distinct([...better, ...asItStands].sort((a, b) => Number(a.invented) - Number(b.invented) || a.cost - b.cost));
}

/** Changes that hint at a part in another place; all others change a part where it stands. */
const DISPLACED: ReadonlySet<ChangeCode> = new Set(['missing', 'extra', 'unknown', 'entry']);
/** Another value where one is looked for: it stands in its place. */
const SLIPS: ReadonlySet<ChangeCode> = new Set(['number', 'client', 'spelling', 'extension']);

const isDisplaced = ({ change }: Move): boolean => change !== null && DISPLACED.has(change);

function isInOrder(h: Hypothesis): boolean {
  if (h.invented || h.moves.some(isDisplaced)) return false;
  return (
    !h.doubtful || h.moves.some((m) => m.change !== null && SLIPS.has(m.change)) || h.cost - separatorsOf(h) < EXPLAINED
  );
}

/** The cheapest way to each name. */
function distinct(sorted: readonly Hypothesis[]): Hypothesis[] {
  const seen = new Set<string>();
  return sorted.filter((h) => seen.size < seen.add(h.name).size);
}

/** Other separators all through a name are one habit: they say nothing of its order. */
export const separatorsOf = (h: Hypothesis): number =>
  h.moves.reduce((n, m) => n + (m.change === 'separator' ? COST.separator : 0), 0);

/** Parts found elsewhere, one at a time, then two at a time. */
function movedIn(
  asked: Asked,
  convention: CompiledConvention,
  name: string,
  best: Hypothesis | undefined,
): Hypothesis[] {
  const isInPlace = (part: Found) =>
    best?.moves.some(
      (m) =>
        m.target?.kind === 'slot' &&
        m.target.slot === part.slot &&
        m.end === part.end &&
        m.at >= part.at &&
        m.end > m.at,
    );
  const found = partsFound(convention, asked, name)
    .filter((part) => !isInPlace(part))
    .slice(0, MOST_FOUND);
  const single = found.flatMap((part) => without(asked, name, [part]));
  if (single.some((h) => !h.invented && h.cost < GOOD)) return single;
  const pairs = found.flatMap((first, i) =>
    found
      .slice(i + 1)
      .filter((second) => second.slot !== first.slot && (second.at >= first.end || second.end <= first.at))
      .flatMap((second) => without(asked, name, [first, second])),
  );
  return [...single, ...pairs];
}

function without(asked: Asked, name: string, parts: readonly Found[]): Hypothesis[] {
  const sorted = [...parts].sort((a, b) => a.at - b.at);
  const cuts = sorted.map((part) => ({ part, ...cutOf(name, part) }));
  const supplied = new Map<CompiledSlot, Found>(parts.map((part) => [part.slot, part]));
  let rest = '';
  // Where each character that is left stands in the name.
  const places: number[] = [];
  for (let i = 0; i < name.length; i++) {
    if (cuts.some((cut) => i >= cut.at && i < cut.end)) continue;
    places.push(i);
    rest += name[i];
  }
  places.push(name.length);
  const isAt = (m: Move) => (m.target?.kind === 'slot' ? supplied.get(m.target.slot) : undefined);
  return align(asked, rest, supplied, CHEAP)
    .slice(0, 2)
    .filter((h) => h.moves.filter((m) => isAt(m) !== undefined).length === parts.length)
    .map((h) => {
      const leans = leansOver(asked, h, cuts, places);
      return {
        ...h,
        cost: h.cost + leans * LEANED + parts.reduce((sum, part) => sum + TAKEN_OUT + part.cost, 0),
        doubtful: h.doubtful || leans > 0,
        moves: h.moves
          .map((m): Move => {
            const part = isAt(m);
            if (part !== undefined) return { ...m, at: part.at, end: part.end };
            const at = elementAt(places, m.at);
            return { ...m, at, end: m.end > m.at ? elementAt(places, m.end - 1) + 1 : at };
          })
          .sort((a, b) => a.at - b.at || a.end - b.end),
      };
    });
}

/** What taking a part out adds, so that a part that stands in its place is not taken out of it. */
const TAKEN_OUT = 1.5;
/** As dear as passing over the words that would be taken for a text. */
const LEANED = 2;

/**
 * Words behind a part that was taken out are no free text because it is gone: "name_v003_review" asks whether the version
 * or the word stands in the wrong place.
 */
function leansOver(
  { targets, around }: Asked,
  h: Hypothesis,
  cuts: readonly { readonly part: Found; readonly at: number; readonly end: number }[],
  places: readonly number[],
): number {
  const optional = optionalIn.of(targets);
  const placeOf = (slot: CompiledSlot) => targets.findIndex((t) => t.kind === 'slot' && t.slot === slot);
  return h.moves.filter(({ target, at, end }) => {
    if (target?.kind !== 'slot' || target.slot.domain.kind !== 'text' || end === at) return false;
    const { field } = target.slot;
    if (ownValue(around.context.bound, field) !== undefined || ownValue(around.context.known, field) !== undefined)
      return false;
    const [from, to] = [elementAt(places, at), elementAt(places, end - 1)];
    const place = placeOf(target.slot);
    return cuts.some(({ part, ...cut }) => {
      const isBefore = to < cut.at;
      if (!isBefore && from < cut.at) return true;
      return optional.has(target) && isBefore !== place < placeOf(part.slot);
    });
  }).length;
}

/** Slots of groups that may be left out. */
const optionalIn = new Remembered((targets: readonly Target[]): ReadonlySet<Target> => {
  const found = new Set<Target>();
  targets.forEach((t, i) => {
    if (t.kind === 'enter') for (const inner of targets.slice(i + 1, t.skipTo)) found.add(inner);
  });
  return found;
});

/** A part goes with one separator beside it. */
function cutOf(name: string, { at, end }: Found): { at: number; end: number } {
  if (at > 0 && /[^\p{L}\p{N}.]/u.test(elementAt(name, at - 1))) return { at: at - 1, end };
  return /[^\p{L}\p{N}.]/u.test(name[end] ?? '') ? { at, end: end + 1 } : { at, end };
}

interface Swap {
  readonly name: string;
  /** Where the two tokens stand in the name itself. */
  readonly first: { readonly at: number; readonly end: number };
  readonly second: { readonly at: number; readonly end: number };
}

/** Neighbouring words changed: neither was told for what it is, so the name is doubtful. */
function swappedIn(asked: Asked, name: string): Hypothesis[] {
  return swapsOf(name).flatMap((swap) =>
    align(asked, swap.name, undefined, CHEAP)
      .slice(0, 1)
      .map((h) => taken(h, swap)),
  );
}

/** The name with each pair of neighbouring tokens changed; the extension stays where it is. */
function swapsOf(name: string): Swap[] {
  const dot = name.lastIndexOf('.');
  const stem = dot > 0 ? name.slice(0, dot) : name;
  const tokens = [...stem.matchAll(/[^_ .]+/g)].map((m) => ({ at: m.index, end: m.index + m[0].length }));
  if (tokens.length > MOST_TOKENS) return [];
  const text = (t: Swap['first']) => name.slice(t.at, t.end);
  return tokens.slice(1).map((second, i) => {
    const first = elementAt(tokens, i);
    return {
      name:
        name.slice(0, first.at) +
        text(second) +
        name.slice(first.end, second.at) +
        text(first) +
        name.slice(second.end),
      first,
      second,
    };
  });
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
  return { ...hypothesis, moves: said, cost: hypothesis.cost + COST.order + 0.4, doubtful: true };
}
