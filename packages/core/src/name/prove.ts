/**
 * Whether some name has two readings. The pattern becomes an automaton without empty moves in which every path is a reading;
 * two readings of one name are two different paths over the same characters, so the automaton is walked in step with itself,
 * breadth first, from the start to a pair of accepting states that have parted on the way. The first found is the shortest.
 * Bounded by `LIMITS.proofPairs`: beyond it the answer is `null`, not decided.
 */
import { never } from '../answer';
import { LIMITS } from '../limits';
import { FORBIDDEN_WINDOWS } from '../portable/characters';
import type { Op } from './compile';
import { type DateItem, isLeap } from './dates';
import type { Reading } from './field';
import type { Form } from './form';
import { charSet } from './scan';
import { JOINER, type TextShape } from './shape';

export interface Ambiguity {
  readonly name: string;
  readonly readings: readonly Reading[];
}

interface Options {
  /** With all limits (longest text, real dates); without, forms are as the reading expression has them. */
  readonly exact: boolean;
}

/** 160 symbols in five words: ASCII, up to 31 characters beyond it by name, and one for all others. */
type Mask = readonly [number, number, number, number, number];
interface Edge {
  readonly mask: Mask;
  readonly to: number;
}

const OTHER = 128;

class Automaton {
  readonly edges: Edge[][] = [[]];
  readonly named = new Map<string, number>();
  overflow = false;

  node(): number {
    if (this.edges.length >= LIMITS.proofStates) this.overflow = true;
    return this.edges.push([]) - 1;
  }

  join(from: readonly number[], mask: Mask, to: number): void {
    if (this.overflow) return;
    for (const node of from) (this.edges[node] as Edge[]).push({ mask, to });
  }

  symbol(ch: string): number {
    const code = ch.codePointAt(0) as number;
    if (code < 128) return code;
    const known = this.named.get(ch);
    if (known !== undefined) return known;
    const index = OTHER + 1 + this.named.size;
    if (index >= 160) {
      this.overflow = true;
      return OTHER;
    }
    this.named.set(ch, index);
    return index;
  }

  /** The character shown for a symbol in an example. */
  character(symbol: number): string {
    if (symbol < 128) return String.fromCharCode(symbol);
    for (const [ch, index] of this.named) if (index === symbol) return ch;
    return 'é';
  }

  mask(chars: Iterable<string>): Mask {
    const words = [0, 0, 0, 0, 0];
    for (const ch of chars) set(words, this.symbol(ch));
    return words as unknown as Mask;
  }

  /** Everything a portable name may hold, without `not`. */
  open(not: string): Mask {
    const words = [0, 0, 0, 0, 0];
    for (let code = 0x20; code < 0x7f; code++) if (!FORBIDDEN_WINDOWS.includes(String.fromCharCode(code)) && !not.includes(String.fromCharCode(code))) set(words, code);
    for (let index = OTHER; index < 160; index++) set(words, index);
    return words as unknown as Mask;
  }
}

function set(words: number[], symbol: number): void {
  words[symbol >> 5] = ((words[symbol >> 5] ?? 0) | (1 << (symbol & 31))) >>> 0;
}

const DIGITS = '0123456789';
const UPPER = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const LOWER = UPPER.toLowerCase();

/** `one-way`, the shortest example, or `null`. `verify` gives a name's true readings; without it an example has none. */
export function ambiguityOf(ops: readonly Op[], options: Options, verify: ((name: string) => Reading[]) | null): Ambiguity | 'one-way' | null {
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
  const accepting = build(automaton, ops, 0, ops.length, [0], options);
  if (automaton.overflow) return null;
  const name = parting(automaton, new Set(accepting));
  if (name === 'none') return 'one-way';
  if (name === null) return null;
  if (verify === null) return { name, readings: [] };
  const readings = verify(name);
  return readings.length > 1 ? { name, readings } : null;
}

function nameCharacters(a: Automaton, ops: readonly Op[]): void {
  for (const op of ops) {
    if (op.kind === 'literal') for (const ch of op.text) a.symbol(ch);
    else if (op.kind === 'slot' && op.slot.form.kind === 'fixed') for (const e of op.slot.form.entries) for (const ch of e.text) a.symbol(ch);
    else if (op.kind === 'slot' && op.slot.form.kind === 'like') for (const p of op.slot.form.pieces) if (p.kind === 'literal') for (const ch of p.text) a.symbol(ch);
  }
}

/** Adds the ops from `from` to `to` behind the nodes of `front`; gives the nodes at which they have ended. */
function build(a: Automaton, ops: readonly Op[], from: number, to: number, front: readonly number[], options: Options): number[] {
  let current = [...front];
  for (let i = from; i < to; i++) {
    const op = ops[i] as Op;
    if (op.kind === 'literal') current = chain(a, op.text, current);
    else if (op.kind === 'slot') current = buildForm(a, op.slot.form, current, options);
    else {
      const inside = build(a, ops, i + 1, op.skipTo, current, options);
      current = [...new Set([...current, ...inside])];
      i = op.skipTo - 1;
    }
  }
  return current;
}

function chain(a: Automaton, text: string, front: readonly number[]): number[] {
  return [...text].reduce<readonly number[]>((before, ch) => [step(a, before, a.mask([ch]))], front) as number[];
}

function step(a: Automaton, front: readonly number[], mask: Mask): number {
  const node = a.node();
  a.join(front, mask, node);
  return node;
}

/** One or more of the mask, up to `max` where limits count. */
function run(a: Automaton, front: readonly number[], mask: Mask, min: number, max: number): number[] {
  const ends: number[] = [];
  let before = [...front];
  for (let i = 1; i <= (max === Infinity ? min : max) && !a.overflow; i++) {
    const node = step(a, before, mask);
    if (i >= min) ends.push(node);
    before = [node];
  }
  if (max === Infinity) a.join(before, mask, before[0] as number);
  return ends;
}

function buildForm(a: Automaton, form: Form, front: readonly number[], options: Options): number[] {
  const limit = (max: number) => (options.exact ? max : Infinity);
  switch (form.kind) {
    case 'fixed':
      return oneOf(a, form.entries.map((e) => e.text), front);
    case 'text':
      return buildText(a, form.shape, form.chars, front, limit(form.max));
    case 'like':
      return form.pieces.reduce<number[]>((before, p) => (p.kind === 'literal' ? chain(a, p.text, before) : run(a, before, a.mask(DIGITS), p.min, Infinity)), [...front]);
    case 'code':
      return run(a, front, a.mask(form.of === 'number' ? `${DIGITS}${UPPER}${LOWER}-` : DIGITS + LOWER), 1, limit(form.of === 'number' ? 64 : 16));
    case 'digits':
      return buildDigits(a, form.min, front);
    case 'letters':
      return run(a, front, a.mask(form.upper ? UPPER : LOWER), 1, limit(6));
    case 'date':
      return buildDate(a, form, front, options);
    default:
      return never(form);
  }
}

/** Exactly `min` digits, or more without a leading nought: parted by the first digit, so that no number has two paths. */
function buildDigits(a: Automaton, min: number, front: readonly number[]): number[] {
  const nought = step(a, front, a.mask('0'));
  const other = step(a, front, a.mask(DIGITS.slice(1)));
  const short = min === 1 ? [nought] : run(a, [nought], a.mask(DIGITS), min - 1, min - 1);
  if (min > 1) return [...short.slice(-1), ...run(a, [other], a.mask(DIGITS), min - 1, Infinity)];
  a.join([other], a.mask(DIGITS), other);
  return [...short, other];
}

/** Words by their beginnings; ends that go no further are one node. */
function oneOf(a: Automaton, words: readonly string[], front: readonly number[]): number[] {
  interface Node {
    readonly next: Map<string, Node>;
    ends: boolean;
  }
  const root: Node = { next: new Map(), ends: false };
  for (const word of new Set(words)) {
    let node = root;
    for (const ch of word) {
      const child: Node = node.next.get(ch) ?? { next: new Map(), ends: false };
      node.next.set(ch, child);
      node = child;
    }
    node.ends = true;
  }
  const leaf = a.node();
  const ends = new Set<number>();
  const add = (node: Node, before: readonly number[]): void => {
    for (const [ch, child] of node.next) {
      if (a.overflow) return;
      const to = child.next.size === 0 ? leaf : a.node();
      a.join(before, a.mask([ch]), to);
      if (child.ends) ends.add(to);
      if (child.next.size > 0) add(child, [to]);
    }
  };
  add(root, front);
  return [...ends];
}

function buildText(a: Automaton, shape: TextShape, chars: string | null, front: readonly number[], max: number): number[] {
  const joiner = shape === 'as-is' ? ' ' : JOINER[shape];
  const within = (mask: Mask): Mask => (chars === null ? mask : and(mask, a.mask([...charSet(chars)].slice(0, 4096).map((code) => String.fromCodePoint(code)))));
  const { first, rest } = textMasks(a, shape);
  const join = joiner === '' ? null : within(a.mask([joiner]));
  // Layer by layer where a limit counts: `word` has just taken a letter (and may end), `gap` a joiner.
  const firstMask = within(first);
  const restMask = within(rest);
  let word = step(a, front, firstMask);
  const ends = [word];
  if (max === Infinity) {
    a.join([word], restMask, word);
    if (join) {
      const gap = step(a, [word], join);
      if (shape === 'as-is') a.join([gap], join, gap);
      a.join([gap], firstMask, word);
    }
    return ends;
  }
  let gap: number | null = null;
  for (let i = 2; i <= max && !a.overflow; i++) {
    const nextWord = step(a, [word], restMask);
    if (gap !== null) a.join([gap], firstMask, nextWord);
    const nextGap: number | null = join ? step(a, [word], join) : null;
    if (shape === 'as-is' && gap !== null && nextGap !== null && join) a.join([gap], join, nextGap);
    word = nextWord;
    gap = nextGap;
    ends.push(word);
  }
  return ends;
}

function textMasks(a: Automaton, shape: TextShape): { first: Mask; rest: Mask } {
  switch (shape) {
    case 'as-is':
      return { first: a.open(' '), rest: a.open(' ') };
    case 'title':
      return { first: a.mask(UPPER + DIGITS), rest: a.mask(LOWER + DIGITS) };
    case 'upper':
      return { first: a.mask(UPPER + DIGITS), rest: a.mask(UPPER + DIGITS) };
    case 'camel':
    case 'pascal':
      return { first: a.mask(UPPER + LOWER + DIGITS), rest: a.mask(UPPER + LOWER + DIGITS) };
    default:
      return { first: a.mask(LOWER + DIGITS), rest: a.mask(LOWER + DIGITS) };
  }
}

/** Months of 31 and 30 days, the first 28 days of February, and the 29th in leap years: no date is in two of them. */
function buildDate(a: Automaton, form: Extract<Form, { kind: 'date' }>, front: readonly number[], options: Options): number[] {
  const has = (item: string) => form.form.pieces.some((p) => p.kind === 'item' && p.item.startsWith(item));
  const numbers = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
  type Sort = { months: number[]; days: number[]; leap: boolean };
  const all: Sort = { months: numbers(1, 12), days: numbers(1, 31), leap: false };
  const sorts: Sort[] =
    !options.exact || !has('M') || !has('d')
      ? [all]
      : [
          { months: [1, 3, 5, 7, 8, 10, 12], days: numbers(1, 31), leap: false },
          { months: [4, 6, 9, 11], days: numbers(1, 30), leap: false },
          { months: [2], days: numbers(1, 28), leap: false },
          { months: [2], days: [29], leap: true },
        ];
  const two = (n: number) => String(n).padStart(2, '0');
  const textsOf = (item: DateItem, sort: Sort): string[] => {
    if (!options.exact) return item.length === 1 ? numbers(1, 99).map(String) : numbers(0, 99).map(two);
    const years = (sort.leap ? numbers(form.pivot - 50, form.pivot + 49).filter(isLeap) : numbers(0, 99)).map((y) => two(((y % 100) + 100) % 100));
    const by: Record<Exclude<DateItem, 'yyyy'>, () => string[]> = {
      yy: () => [...new Set(years)],
      MM: () => sort.months.map(two),
      M: () => sort.months.map(String),
      dd: () => sort.days.map(two),
      d: () => sort.days.map(String),
      HH: () => numbers(0, 23).map(two),
      mm: () => numbers(0, 59).map(two),
      ss: () => numbers(0, 59).map(two),
    };
    return by[item as Exclude<DateItem, 'yyyy'>]();
  };
  const century = numbers(0, 99);
  const year = (before: readonly number[], leap: boolean): number[] => {
    if (!leap || !options.exact) return run(a, before, a.mask(DIGITS), 4, 4);
    const common = oneOf(a, century.filter((n) => n !== 0 && n % 4 === 0).map(two), run(a, before, a.mask(DIGITS), 2, 2));
    const hundreds = oneOf(a, ['00'], oneOf(a, century.filter((n) => n % 4 === 0).map(two), before));
    return [...common, ...hundreds];
  };
  return sorts.flatMap((sort) =>
    form.form.pieces.reduce<number[]>(
      (before, p) => (p.kind === 'literal' ? chain(a, p.text, before) : p.item === 'yyyy' ? year(before, sort.leap && has('yyyy')) : oneOf(a, textsOf(p.item, sort), before)),
      [...front],
    ),
  );
}

/** The shortest word with two paths, `none`, or `null` where too many pairs would have to be looked at. */
function parting(a: Automaton, accepting: ReadonlySet<number>): string | 'none' | null {
  const n = a.edges.length;
  // A pair p ≤ q is one number; a diagonal pair that has parted before gets a plane of its own.
  const key = (p: number, q: number, parted: boolean) => (p < q ? p * n + q : p > q ? q * n + p : parted ? n * n + p : p * n + p);
  const from = new Map<number, { before: number; symbol: number }>();
  let layer: { p: number; q: number; parted: boolean; key: number }[] = [{ p: 0, q: 0, parted: false, key: 0 }];
  from.set(0, { before: -1, symbol: 0 });
  const word = (last: number): string => {
    let text = '';
    for (let at = last; ; ) {
      const step = from.get(at) as { before: number; symbol: number };
      if (step.before < 0) return text;
      text = a.character(step.symbol) + text;
      at = step.before;
    }
  };
  while (layer.length > 0) {
    const next: typeof layer = [];
    for (const pair of layer) {
      if (pair.parted && accepting.has(pair.p) && accepting.has(pair.q)) return word(pair.key);
      const left = a.edges[pair.p] as Edge[];
      const right = a.edges[pair.q] as Edge[];
      for (let i = 0; i < left.length; i++) {
        const l = left[i] as Edge;
        // On the diagonal the two walks are alike: half of the pairs will do.
        for (let j = pair.p === pair.q ? i : 0; j < right.length; j++) {
          const r = right[j] as Edge;
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

/** The symbol to show from what two masks share: a small letter, a capital, a digit, then whatever there is; -1 for none. */
function common(x: Mask, y: Mask): number {
  for (const word of [3, 2, 1, 0, 4] as const) {
    const both = (x[word] & y[word]) >>> 0;
    if (both !== 0) {
      const letters = word === 3 || word === 2 ? (both & 0x07fffffe) >>> 0 : word === 1 ? (both & 0x03ff0000) >>> 0 : both;
      const bits = letters !== 0 ? letters : both;
      return word * 32 + (31 - Math.clz32(bits & -bits));
    }
  }
  return -1;
}

const and = (x: Mask, y: Mask): Mask => x.map((word, i) => (word & (y[i] as number)) >>> 0) as unknown as Mask;

/** A text that means two entries of one register: every name that holds it has two readings. */
function sharedText(ops: readonly Op[]): { op: number; text: string } | null {
  for (const [op, o] of ops.entries()) {
    if (o.kind !== 'slot' || o.slot.form.kind !== 'fixed') continue;
    const seen = new Map<string, unknown>();
    for (const e of o.slot.form.entries) {
      if (seen.has(e.text) && seen.get(e.text) !== e.value) return { op, text: e.text };
      seen.set(e.text, e.value);
    }
  }
  return null;
}

/** The shortest name in which the slot at `shared.op` holds that text. */
function shortestWith(ops: readonly Op[], options: Options, shared: { op: number; text: string }): string | null {
  const pinned = ops.map((op, i): Op => (i === shared.op ? { kind: 'literal', text: shared.text, at: 0 } : op));
  // The group that holds the slot must be taken; the others may be left out.
  const open = pinned.map((op, i): Op => (op.kind === 'enter' && i < shared.op && shared.op < op.skipTo ? { kind: 'literal', text: '', at: 0 } : op));
  const automaton = new Automaton();
  nameCharacters(automaton, open);
  const accepting = new Set(build(automaton, open, 0, open.length, [0], options));
  const from = new Map<number, { before: number; symbol: number }>([[0, { before: -1, symbol: 0 }]]);
  const queue = [0];
  for (const node of queue) {
    if (accepting.has(node)) {
      let text = '';
      for (let at = node, step = from.get(at); step && step.before >= 0; at = step.before, step = from.get(at)) text = automaton.character(step.symbol) + text;
      return text;
    }
    for (const edge of automaton.edges[node] as Edge[]) {
      if (from.has(edge.to)) continue;
      from.set(edge.to, { before: node, symbol: common(edge.mask, edge.mask) });
      queue.push(edge.to);
    }
  }
  return null;
}
