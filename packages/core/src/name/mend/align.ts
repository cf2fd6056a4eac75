/**
 * Lays a broken name along its pattern: the cheapest ways to explain every atom of the name by a part of the pattern, a
 * slip, or
 * something that does not belong. Dynamic programming over (target, atom); each cell keeps its few best hypotheses, so
 * the work is
 * targets × atoms × the longest slot, however hostile the name.
 */
import { elementAt, valueAt } from '../../element';
import { assertNever } from '../../result';
import type { CompiledConvention, CompiledSlot } from '../pattern/ops';
import type { SlotDomain } from '../pattern/slot-domain';
import { type Atom, atomsOf } from './atoms';
import {
  type Candidate,
  type ChangeCode,
  COST,
  candidatesFor,
  isBanned,
  isNear,
  meanings,
  type NameContext,
  squash,
} from './candidates';
import { extend, finish, type Hypothesis, keep, type Move, type Partial, type Target } from './hypotheses';

/**
 * A way on from one place: to which atom, at what cost, by which move. Worked out once for a target and place, for all
 * caps.
 */
interface Step {
  readonly to: number;
  readonly cost: number;
  readonly move: Move;
  readonly invented: boolean;
}

/** Candidates by slot and text: trying another order asks for the same words again. */
export type KnownCandidates = Map<CompiledSlot, Map<string, readonly Candidate[]>>;

/** Atoms a slot may have been written with, separators counted: `West Front` is three. */
function mostAtoms(domain: SlotDomain): number {
  switch (domain.kind) {
    case 'digits':
    case 'letters':
      return 1;
    case 'like':
      return 1 + 2 * domain.pieces.length;
    case 'text':
      return 11;
    default:
      return 5;
  }
}

const VERSION_WORDS = new Set(['v', 'ver', 'vers', 'version', 'rev', 'r', 'revision']);

export function targetsOf(convention: CompiledConvention): Target[] {
  const targets: Target[] = [];
  const starts = new Map<number, number>();
  convention.ops.forEach((op, i) => {
    starts.set(i, targets.length);
    if (op.kind === 'literal') {
      const next = convention.ops[i + 1];
      const version = next?.kind === 'slot' && next.slot.field === 'version';
      const pieces = op.text.match(/[^\p{L}\p{N}]+|[\p{L}\p{N}]+/gu) ?? [];
      pieces.forEach((text, k) => {
        const word = /^[\p{L}\p{N}]/u.test(text);
        targets.push(
          word
            ? { kind: 'word', text, beforeVersion: version && k === pieces.length - 1 }
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

export function align(
  targets: readonly Target[],
  name: string,
  context: NameContext,
  known: KnownCandidates,
  caps: readonly number[] = CAPS,
): Hypothesis[] {
  const atoms = atomsOf(name);
  const ways: Ways = { strays: [], steps: [] };
  for (const cap of caps) {
    const found = alignWithin(cap, targets, atoms, name, context, known, ways);
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

function alignWithin(
  cap: number,
  targets: readonly Target[],
  atoms: readonly Atom[],
  name: string,
  context: NameContext,
  candidates: KnownCandidates,
  ways: Ways,
): Hypothesis[] {
  const width = atoms.length + 1;
  const cells: (Partial[] | undefined)[] = new Array((targets.length + 1) * width);
  const put = (
    target: number,
    atom: number,
    before: Partial,
    cost: number,
    move: Move | null,
    invented: boolean,
  ): void => {
    const whole = before.cost + cost;
    if (whole > cap) return;
    const at = target * width + atom;
    const cell = cells[at];
    if (cell === undefined) cells[at] = [extend(before, move, whole, invented)];
    else keep(cell, before, move, whole, invented);
  };
  cells[0] = [{ cost: 0, before: null, move: null, hash: 0, invented: false }];
  for (let t = 0; t <= targets.length; t++) {
    for (let a = 0; a <= atoms.length; a++) {
      const partials = cells[t * width + a];
      if (partials === undefined) continue;
      const strays = ways.strays[a] ?? junk(atoms, a, name, context.banned);
      ways.strays[a] = strays;
      for (const next of strays) for (const p of partials) put(t, next.to, p, next.cost, next.move, false);
      const target = targets[t];
      if (target === undefined) continue;
      if (target.kind === 'enter') {
        for (const p of partials) {
          put(t + 1, a, p, 0, null, false);
          put(target.skipTo, a, p, 0, null, false);
        }
        continue;
      }
      const steps = ways.steps[t * width + a] ?? stepsAt(target, atoms, a, name, context, candidates);
      ways.steps[t * width + a] = steps;
      for (const s of steps) for (const p of partials) put(t + 1, s.to, p, s.cost, s.move, s.invented);
    }
  }
  return (cells[targets.length * width + atoms.length] ?? []).map(finish);
}

function stepsAt(
  target: Exclude<Target, { kind: 'enter' }>,
  atoms: readonly Atom[],
  a: number,
  name: string,
  context: NameContext,
  candidates: KnownCandidates,
): Step[] {
  switch (target.kind) {
    case 'slot':
      return slotSteps(target, atoms, a, name, context, candidates);
    case 'word':
      return wordSteps(target, atoms, a, name, context.abbreviations);
    case 'separator':
      return separatorSteps(target, atoms, a, name);
    default:
      return assertNever(target);
  }
}

/**
 * What may be passed over at an atom as not belonging: separators, banned and doubled words, a copy's mark, anything
 * else.
 */
function junk(all: readonly Atom[], a: number, name: string, banned: readonly string[]): Step[] {
  const atom = all[a];
  if (atom === undefined) return [];
  const pass = (to: number, change: ChangeCode): Step => ({
    to,
    cost: COST[change],
    move: { target: null, at: atom.at, end: elementAt(all, to - 1).end, text: '', change },
    invented: false,
  });
  const out: Step[] = [];
  const rest = name.slice(atom.at);
  const copy = /^[ _-]*(?:\((?:\d{1,3}|copy)\)|copy(?: ?\d{1,2}| ?\(\d{1,2}\))?(?![a-z]))/i.exec(rest)?.[0];
  if (copy !== undefined) {
    const to = all.findIndex((x) => x.end === atom.at + copy.length);
    if (to >= 0) out.push(pass(to + 1, 'copy-mark'));
  }
  // "clip.mov.mov": the last extension said again, to the end.
  if (atom.text === '.' && name.slice(0, atom.at).toLowerCase().endsWith(rest.toLowerCase()))
    out.push(pass(all.length, 'doubled'));
  if (atom.kind === 'separator') out.push(pass(a + 1, 'separator'));
  else if (atom.kind === 'word' && isBanned(atom.text, banned)) {
    // "final2": the number behind a banned word belongs to it.
    out.push(pass(a + 1, 'banned-word'));
    if (all[a + 1]?.kind === 'digits') out.push(pass(a + 2, 'banned-word'));
  } else if (isDoubled(all, a)) out.push(pass(a + 1, 'doubled'));
  else out.push(pass(a + 1, 'extra'));
  return out;
}

function slotSteps(
  target: Extract<Target, { kind: 'slot' }>,
  all: readonly Atom[],
  a: number,
  name: string,
  context: NameContext,
  known: KnownCandidates,
): Step[] {
  const out: Step[] = [];
  const { slot } = target;
  const first = all[a];
  const texts = known.get(slot) ?? new Map<string, readonly Candidate[]>();
  known.set(slot, texts);
  const most = first === undefined || first.kind === 'separator' ? a : Math.min(all.length, a + mostAtoms(slot.domain));
  for (let to = a + 1; first !== undefined && to <= most; to++) {
    const last = elementAt(all, to - 1);
    if (last.kind === 'separator') continue;
    const text = name.slice(first.at, last.end);
    const candidates = texts.get(text) ?? candidatesFor(slot, text, context);
    texts.set(text, candidates);
    for (const c of candidates)
      out.push({
        to,
        cost: c.cost,
        move: { target, at: first.at, end: last.end, text: c.text, change: c.change },
        invented: false,
      });
  }
  // A word nobody knows may stand where one of a list should: "XX" for somebody's initials.
  if (first !== undefined && first.kind !== 'separator' && slot.domain.kind !== 'text') {
    out.push({
      to: a + 1,
      cost: COST.unknown,
      move: { target, at: first.at, end: first.end, text: '', change: 'unknown' },
      invented: true,
    });
  }
  const at = first?.at ?? name.length;
  const { text, known: certain } = absent(slot, context);
  const change: ChangeCode = certain ? 'missing' : 'unknown';
  out.push({ to: a, cost: COST[change], move: { target, at, end: at, text, change }, invented: !certain });
  return out;
}

/** What to put where a part is missing: its one possible value, or the first of a chain as an invention. */
function absent(slot: CompiledSlot, context: NameContext): { text: string; known: boolean } {
  const bound = context.bound[slot.field];
  if (slot.domain.kind === 'fixed') {
    const entry =
      slot.domain.entries.find((e) => e.value === bound) ??
      (slot.domain.entries.length === 1 ? slot.domain.entries[0] : undefined);
    if (entry) return { text: entry.text, known: true };
  }
  if (typeof bound === 'string') return { text: bound, known: true };
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
    });
  }
  out.push({
    to: a,
    cost: COST.separator * 1.5,
    move: { target, at, end: at, text: target.text, change: 'separator' },
    invented: false,
  });
  return out;
}

function wordSteps(
  target: Extract<Target, { kind: 'word' }>,
  atoms: readonly Atom[],
  a: number,
  name: string,
  abbreviations: NameContext['abbreviations'],
): Step[] {
  const out: Step[] = [];
  const at = atoms[a]?.at ?? name.length;
  const step = (to: number, change: ChangeCode | null) => {
    const end = to === a ? at : elementAt(atoms, to - 1).end;
    out.push({
      to,
      cost: change === null ? 0 : COST[change],
      move: { target, at, end, text: target.text, change },
      invented: false,
    });
  };
  for (let to = a + 1; to <= Math.min(atoms.length, a + 4); to++) {
    if (atoms[a]?.kind === 'separator') break;
    const text = name.slice(at, elementAt(atoms, to - 1).end);
    if (text === target.text) {
      step(to, null);
      continue;
    }
    // No way of writing a short word is much longer than it.
    if (text.length > target.text.length + 14) break;
    const bare = squash(text);
    if (text.toLowerCase() === target.text.toLowerCase()) step(to, target.beforeVersion ? 'version-style' : 'case');
    else if (target.beforeVersion && VERSION_WORDS.has(bare)) step(to, 'version-style');
    else if (bare !== '' && meanings.of(abbreviations).get(bare)?.has(squash(target.text))) step(to, 'abbreviation');
    else if (isNear(text, target.text)) step(to, 'spelling');
  }
  // A version without its letter (`_3`) is a way of writing versions; another literal is just not there.
  step(a, target.beforeVersion ? 'version-style' : 'missing');
  return out;
}

function isDoubled(atoms: readonly Atom[], a: number): boolean {
  const text = squash(elementAt(atoms, a).text);
  return text !== '' && atoms.slice(Math.max(0, a - 3), a).some((other) => squash(other.text) === text);
}
