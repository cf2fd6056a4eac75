/**
 * Whether some name has two readings. The pattern becomes an automaton without empty moves in which every path is a
 * reading;
 * two readings of one name are two different paths over the same characters, so the automaton is walked in step with
 * itself,
 * breadth first, from the start to a pair of accepting states that have parted on the way. The first found is the
 * shortest.
 * Bounded by `LIMITS.proofPairs`: beyond it the answer is `null`, not decided.
 */
import { valueAt } from '../../element';
import { LIMITS } from '../../limits';
import type { Reading } from '../pattern/field';
import type { Op } from '../pattern/ops';
import { Automaton, type BuildOptions, build, type Mask, nameCharacters } from './states';

export interface Ambiguity {
  readonly name: string;
  readonly readings: readonly Reading[];
}

/**
 * `one-way`, the shortest example, or `null`. `verify` gives a name's true readings; without it an example has none.
 * `pinned` are the same steps once for each value of what stands twice: together they take the names the pattern takes.
 */
export function ambiguityOf(
  ops: readonly Op[],
  options: BuildOptions,
  verify: ((name: string) => Reading[]) | null,
  pinned: readonly (readonly Op[])[] = [ops],
): Ambiguity | 'one-way' | null {
  if (options.exact) {
    const shared = sharedText(ops);
    if (shared && verify) {
      const example = shortestWith(ops, options, shared);
      const readings = example === null ? [] : verify(example);
      if (example !== null && readings.length > 1) return { name: example, readings };
      return null;
    }
  }
  const automaton = new Automaton();
  // Named characters first, so that "all others" never holds one of them.
  nameCharacters(automaton, ops);
  const accepting = pinned.flatMap((each) =>
    automaton.overflow ? [] : build(automaton, each, 0, each.length, [0], options),
  );
  if (automaton.overflow) return null;
  const name = parting(automaton, new Set(accepting));
  if (name === 'none') return 'one-way';
  if (name === null) return null;
  if (verify === null) return { name, readings: [] };
  const readings = verify(name);
  return readings.length > 1 ? { name, readings } : null;
}

/** The shortest word with two paths, `none`, or `null` where too many pairs would have to be looked at. */
function parting(a: Automaton, accepting: ReadonlySet<number>): string | 'none' | null {
  const n = a.edges.length;
  // A pair p ≤ q is one number; a diagonal pair that has parted before gets a plane of its own.
  const key = (p: number, q: number, parted: boolean) =>
    p < q ? p * n + q : p > q ? q * n + p : parted ? n * n + p : p * n + p;
  const from = new Map<number, { before: number; symbol: number }>();
  let layer: { p: number; q: number; parted: boolean; key: number }[] = [{ p: 0, q: 0, parted: false, key: 0 }];
  from.set(0, { before: -1, symbol: 0 });
  const word = (last: number): string => {
    let text = '';
    for (let at = last; ; ) {
      const step = valueAt(from, at);
      if (step.before < 0) return text;
      text = a.character(step.symbol) + text;
      at = step.before;
    }
  };
  while (layer.length > 0) {
    const next: typeof layer = [];
    for (const pair of layer) {
      if (pair.parted && accepting.has(pair.p) && accepting.has(pair.q)) return word(pair.key);
      const left = a.edges[pair.p] ?? [];
      const right = a.edges[pair.q] ?? [];
      for (let i = 0; i < left.length; i++) {
        const l = left[i];
        if (l === undefined) continue;
        // On the diagonal the two walks are alike: half of the pairs will do.
        for (let j = pair.p === pair.q ? i : 0; j < right.length; j++) {
          const r = right[j];
          if (r === undefined) continue;
          const symbol = common(l.mask, r.mask);
          if (symbol < 0) continue;
          const parted = pair.parted || l.to !== r.to;
          const k = key(l.to, r.to, parted);
          if (from.has(k)) continue;
          from.set(k, { before: pair.key, symbol });
          if (from.size > LIMITS.proofPairs) return null;
          next.push({ p: l.to, q: r.to, parted, key: k });
        }
      }
    }
    layer = next;
  }
  return 'none';
}

/**
 * The symbol to show from what two masks share: a small letter, a capital, a digit, then whatever there is; -1 for
 * none.
 */
function common(x: Mask, y: Mask): number {
  for (const word of [3, 2, 1, 0, 4] as const) {
    const both = ((x[word] ?? 0) & (y[word] ?? 0)) >>> 0;
    if (both !== 0) {
      const letters =
        word === 3 || word === 2 ? (both & 0x07fffffe) >>> 0 : word === 1 ? (both & 0x03ff0000) >>> 0 : both;
      const bits = letters !== 0 ? letters : both;
      return word * 32 + (31 - Math.clz32(bits & -bits));
    }
  }
  return -1;
}

/** A text that means two entries of one register: every name that holds it has two readings. */
function sharedText(ops: readonly Op[]): { op: number; text: string } | null {
  for (const [op, o] of ops.entries()) {
    if (o.kind !== 'slot' || o.slot.domain.kind !== 'fixed') continue;
    const seen = new Map<string, unknown>();
    for (const e of o.slot.domain.entries) {
      if (seen.has(e.text) && seen.get(e.text) !== e.value) return { op, text: e.text };
      seen.set(e.text, e.value);
    }
  }
  return null;
}

/** The shortest name in which the slot at `shared.op` holds that text. */
function shortestWith(ops: readonly Op[], options: BuildOptions, shared: { op: number; text: string }): string | null {
  const pinned = ops.map((op, i): Op => (i === shared.op ? { kind: 'literal', text: shared.text, at: 0 } : op));
  // The group that holds the slot must be taken; the others may be left out.
  const open = pinned.map(
    (op, i): Op =>
      op.kind === 'enter' && i < shared.op && shared.op < op.skipTo ? { kind: 'literal', text: '', at: 0 } : op,
  );
  const automaton = new Automaton();
  nameCharacters(automaton, open);
  const accepting = new Set(build(automaton, open, 0, open.length, [0], options));
  const from = new Map<number, { before: number; symbol: number }>([[0, { before: -1, symbol: 0 }]]);
  const queue = [0];
  for (const node of queue) {
    if (accepting.has(node)) {
      let text = '';
      for (let at = node, step = from.get(at); step && step.before >= 0; at = step.before, step = from.get(at))
        text = automaton.character(step.symbol) + text;
      return text;
    }
    for (const edge of automaton.edges[node] ?? []) {
      if (from.has(edge.to)) continue;
      from.set(edge.to, { before: node, symbol: common(edge.mask, edge.mask) });
      queue.push(edge.to);
    }
  }
  return null;
}
