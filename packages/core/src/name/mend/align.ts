/**
 * Lays a broken name along its pattern: the cheapest ways to explain every atom of the name by a part of the pattern, a
 * slip, or
 * something that does not belong. Dynamic programming over (target, atom); each cell keeps its few best hypotheses, so
 * the work is
 * targets × atoms × the longest slot, however hostile the name.
 */

import { elementAt, valueAt } from '../../element';
import { ownValue } from '../../own-value';
import { Remembered } from '../../remembered';
import { assertNever } from '../../result';
import type { CompiledConvention, CompiledSlot } from '../pattern/ops';
import type { SlotDomain } from '../pattern/slot-domain';
import { type Atom, atomsOf } from './atoms';
import { type Around, candidatesFor, textOfBound } from './candidates';
import { type ChangeCode, COST, type NameContext } from './costs';
import { countsIn, meanings, VERSION_WORDS } from './habit-words';
import { extend, finish, type Hypothesis, keep, type Partial, type Step, type Target, type Way } from './hypotheses';
import { isNear, squash } from './near';
import { straysAt } from './strays';

/** Parts that were found elsewhere in the name, and taken out of it. */
export type Supplied = ReadonlyMap<CompiledSlot, { readonly text: string; readonly doubtful: boolean }>;

/** What all alignments of one name have in common. */
export interface Asked {
  readonly targets: readonly Target[];
  readonly around: Around;
}

/** Atoms a slot may have been written with, separators counted: `West Front` is three. */
function mostAtoms(domain: SlotDomain): number {
  switch (domain.kind) {
    case 'digits':
      return 4;
    case 'letters':
      return 1;
    case 'like':
      return 1 + 2 * domain.pieces.length;
    case 'date':
      return 11;
    case 'text':
      return 11;
    default:
      return 5;
  }
}

export function targetsOf(convention: CompiledConvention): Target[] {
  const targets: Target[] = [];
  const starts = new Map<number, number>();
  convention.ops.forEach((op, i) => {
    starts.set(i, targets.length);
    if (op.kind === 'literal') {
      const next = convention.ops[i + 1];
      const isCounted = next?.kind === 'slot' && ['digits', 'letters'].includes(next.slot.domain.kind);
      const pieces = op.text.match(/[^\p{L}\p{N}]+|[\p{L}\p{N}]+/gu) ?? [];
      pieces.forEach((text, k) => {
        const word = /^[\p{L}\p{N}]/u.test(text);
        targets.push(
          word
            ? { kind: 'word', text, counts: isCounted && k === pieces.length - 1 ? next.slot.field : null }
            : { kind: 'separator', text },
        );
      });
    } else if (op.kind === 'slot') targets.push({ kind: 'slot', slot: op.slot });
    else targets.push({ kind: 'enter', skipTo: op.skipTo });
  });
  starts.set(convention.ops.length, targets.length);
  return targets.map((t) => (t.kind === 'enter' ? { kind: 'enter', skipTo: valueAt(starts, t.skipTo) } : t));
}

/** Most names are a slip or two away from right: dear explanations are looked for only where there is no cheap one. */
const CAPS = [2.5, 5, Number.POSITIVE_INFINITY] as const;
/**
 * An answer stands where nothing that was capped off could come within this of it: a second name as near must be seen.
 */
const CAP_MARGIN = 1;

const NONE_SUPPLIED: Supplied = new Map();

/** Words of the pattern that stand right before a number: they may be glued to what is before them. */
const headsOf = new Remembered((targets: readonly Target[]): readonly string[] => [
  ...new Set(
    targets.flatMap((t) => {
      if (t.kind === 'word') return t.counts === null ? [] : [t.text.toLowerCase()];
      if (t.kind !== 'slot' || t.slot.domain.kind !== 'like') return [];
      const [head] = t.slot.domain.pieces;
      return head?.kind === 'literal' && /^\p{L}+$/u.test(head.text) ? [head.text.toLowerCase()] : [];
    }),
  ),
]);

export function align(
  asked: Asked,
  name: string,
  supplied: Supplied = NONE_SUPPLIED,
  caps: readonly number[] = CAPS,
): Hypothesis[] {
  const atoms = atomsOf(name, headsOf.of(asked.targets));
  const ways: Ways = { strays: [], steps: [] };
  for (const cap of caps) {
    const found = alignWithin(cap, { ...asked, supplied, atoms, name }, ways);
    if (found[0] !== undefined && found[0].cost <= cap - CAP_MARGIN) return found;
    if (cap === Number.POSITIVE_INFINITY) return found;
  }
  return [];
}

/** By atom what may be passed over; by target and atom what may be laid there. */
interface Ways {
  readonly strays: Step[][];
  readonly steps: (readonly Step[] | undefined)[];
}

/** One name laid along the targets. */
interface Laid extends Asked {
  readonly supplied: Supplied;
  readonly atoms: readonly Atom[];
  readonly name: string;
}

const NO_MOVE: Way = { move: null, invented: false, doubtful: false };

function alignWithin(cap: number, laid: Laid, ways: Ways): Hypothesis[] {
  const { targets, atoms, name, around } = laid;
  const width = atoms.length + 1;
  const cells: (Partial[] | undefined)[] = new Array((targets.length + 1) * width);
  const put = (target: number, atom: number, before: Partial, cost: number, way: Way): void => {
    const whole = before.cost + cost;
    if (whole > cap) return;
    const at = target * width + atom;
    const cell = cells[at];
    if (cell === undefined) cells[at] = [extend(before, way, whole)];
    else keep(cell, before, way, whole);
  };
  cells[0] = [{ cost: 0, before: null, move: null, hash: 0, invented: false, doubtful: false }];
  for (let t = 0; t <= targets.length; t++) {
    for (let a = 0; a <= atoms.length; a++) {
      const partials = cells[t * width + a];
      if (partials === undefined) continue;
      const strays = ways.strays[a] ?? straysAt(atoms, a, name, around.context);
      ways.strays[a] = strays;
      for (const next of strays) for (const p of partials) put(t, next.to, p, next.cost, next);
      const target = targets[t];
      if (target === undefined) continue;
      if (target.kind === 'enter') {
        for (const p of partials) {
          put(t + 1, a, p, 0, NO_MOVE);
          put(target.skipTo, a, p, 0, NO_MOVE);
        }
        continue;
      }
      const steps = ways.steps[t * width + a] ?? stepsAt(target, laid, a);
      ways.steps[t * width + a] = steps;
      for (const s of steps) for (const p of partials) put(t + 1, s.to, p, s.cost, s);
    }
  }
  return (cells[targets.length * width + atoms.length] ?? []).map(finish);
}

function stepsAt(target: Exclude<Target, { kind: 'enter' }>, laid: Laid, a: number): Step[] {
  switch (target.kind) {
    case 'slot':
      return slotSteps(target, laid, a);
    case 'word':
      return wordSteps(target, laid, a);
    case 'separator':
      return separatorSteps(target, laid.atoms, a, laid.name);
    default:
      return assertNever(target);
  }
}

/** Cheaper than leaving out the separator beside it, so that the group of a part found elsewhere is entered. */
const SUPPLIED = -0.7;

function slotSteps(target: Extract<Target, { kind: 'slot' }>, laid: Laid, a: number): Step[] {
  const { atoms: all, name, around, supplied } = laid;
  const out: Step[] = [];
  const { slot } = target;
  const first = all[a];
  const at = first?.at ?? name.length;
  const elsewhere = supplied.get(slot);
  if (elsewhere !== undefined) {
    const { text, doubtful } = elsewhere;
    return [{ to: a, cost: SUPPLIED, move: { target, at, end: at, text, change: 'order' }, invented: false, doubtful }];
  }
  const most = first === undefined || first.kind === 'separator' ? a : Math.min(all.length, a + mostAtoms(slot.domain));
  for (let to = a + 1; first !== undefined && to <= most; to++) {
    const last = elementAt(all, to - 1);
    if (last.kind === 'separator') continue;
    const text = name.slice(first.at, last.end);
    for (const { text: meant, cost, change, doubtful } of candidatesFor(slot, text, around))
      out.push({
        to,
        cost,
        move: { target, at: first.at, end: last.end, text: meant, change },
        invented: false,
        doubtful,
      });
  }
  // A word nobody knows may stand where one of a list should: "XX" for somebody's initials.
  if (first !== undefined && first.kind !== 'separator' && slot.domain.kind !== 'text') {
    out.push({
      to: a + 1,
      cost: COST.unknown,
      move: { target, at: first.at, end: first.end, text: '', change: 'unknown' },
      invented: true,
      doubtful: false,
    });
  }
  const { text, known: certain } = absent(slot, around.context);
  const change: ChangeCode = certain ? 'missing' : 'unknown';
  out.push({
    to: a,
    cost: COST[change],
    move: { target, at, end: at, text, change },
    invented: !certain,
    doubtful: false,
  });
  return out;
}

/** What to put where a part is missing: its one possible value, or the first of a chain as an invention. */
function absent(slot: CompiledSlot, { bound, known }: NameContext): { text: string; known: boolean } {
  const must = ownValue(bound, slot.field);
  if (must !== undefined) {
    const text = textOfBound(slot.domain, must) ?? (typeof must === 'string' ? must : null);
    if (text !== null) return { text, known: true };
  }
  if (slot.domain.kind === 'fixed' && slot.domain.entries.length === 1)
    return { text: elementAt(slot.domain.entries, 0).text, known: true };
  const [only, second] = ownValue(known, slot.field) ?? [];
  if (only !== undefined && second === undefined) return { text: only, known: true };
  if (slot.domain.kind === 'digits' && slot.field === 'version')
    return { text: '1'.padStart(slot.domain.min, '0'), known: false };
  return { text: '', known: false };
}

function separatorSteps(
  target: Extract<Target, { kind: 'separator' }>,
  atoms: readonly Atom[],
  a: number,
  name: string,
): Step[] {
  const out: Step[] = [];
  const at = atoms[a]?.at ?? name.length;
  for (
    let to = a + 1;
    to <= atoms.length && atoms[to - 1]?.kind !== 'word' && atoms[to - 1]?.kind !== 'digits' && to <= a + 4;
    to++
  ) {
    const end = elementAt(atoms, to - 1).end;
    const same = name.slice(at, end) === target.text;
    out.push({
      to,
      cost: same ? 0 : COST.separator,
      move: { target, at, end, text: target.text, change: same ? null : 'separator' },
      invented: false,
      doubtful: false,
    });
  }
  out.push({
    to: a,
    cost: COST.separator * 1.5,
    move: { target, at, end: at, text: target.text, change: 'separator' },
    invented: false,
    doubtful: false,
  });
  return out;
}

function wordSteps(target: Extract<Target, { kind: 'word' }>, laid: Laid, a: number): Step[] {
  const { atoms, name, around, supplied } = laid;
  const out: Step[] = [];
  const at = atoms[a]?.at ?? name.length;
  const step = (to: number, change: ChangeCode | null, cost = change === null ? 0 : COST[change]) => {
    const end = to === a ? at : elementAt(atoms, to - 1).end;
    const move = { target, at, end, text: target.text, change };
    out.push({ to, cost, move, invented: false, doubtful: false });
  };
  // Its number was found elsewhere, and the word with it.
  const { counts } = target;
  if (counts !== null && [...supplied.keys()].some((slot) => slot.field === counts)) {
    step(a, null);
    return out;
  }
  for (let to = a + 1; to <= Math.min(atoms.length, a + 4); to++) {
    if (atoms[a]?.kind === 'separator') break;
    const text = name.slice(at, elementAt(atoms, to - 1).end);
    if (text === target.text) {
      step(to, null);
      continue;
    }
    // No way of writing a short word is much longer than it.
    if (text.length > target.text.length + 14) break;
    const change = changeOfWord(text, target, around.context.abbreviations);
    if (change !== null) step(to, change);
  }
  // A version without its letter (`_3`) is a way of writing versions; another literal is just not there.
  if (counts === 'version') step(a, 'version-style');
  else step(a, 'missing', counts === null ? COST.missing : COST.missing / 2);
  return out;
}

function changeOfWord(
  text: string,
  { text: meant, counts }: Extract<Target, { kind: 'word' }>,
  abbreviations: NameContext['abbreviations'],
): ChangeCode | null {
  const bare = squash(text);
  const isVersion = counts === 'version';
  if (text.toLowerCase() === meant.toLowerCase()) return isVersion ? 'version-style' : 'case';
  if (isVersion && VERSION_WORDS.has(bare)) return 'version-style';
  if (counts !== null && countsIn(text, counts)) return 'abbreviation';
  if (bare !== '' && meanings.of(abbreviations).get(bare)?.has(squash(meant))) return 'abbreviation';
  return isNear(text, meant) ? 'spelling' : null;
}
