/**
 * Patterns as automata without empty moves: every path is a reading. Each domain adds its states behind those it is
 * given.
 */

import { elementAt } from '../../element';
import { LIMITS } from '../../limits';
import { FORBIDDEN_WINDOWS } from '../../portable/characters';
import { assertNever } from '../../result';
import { type DateItem, isLeap } from '../dates/dates';
import type { Op } from '../pattern/ops';
import { JOINER, type TextShape } from '../pattern/shape';
import type { LikePiece, SlotDomain } from '../pattern/slot-domain';
import { charSet, MOST_CODE, MOST_DIGITS, MOST_LETTERS } from './scan';

export interface BuildOptions {
  /** With all limits (longest text, real dates); without, domains are as the reading expression has them. */
  readonly exact: boolean;
}

/** 160 symbols in five words: ASCII, up to 31 characters beyond it by name, and one for all others. */
export type Mask = readonly number[];
export interface Edge {
  readonly mask: Mask;
  readonly to: number;
}

const OTHER = 128;
/** Characters of one `chars`: more than the named symbols overflow anyway. */
const MOST_CHARS = 4096;

export class Automaton {
  readonly edges: Edge[][] = [[]];
  /** For each state the step of the pattern whose character leads to it. */
  readonly owners: number[] = [-1];
  readonly named = new Map<string, number>();
  overflow = false;
  /** The step whose states are being added. */
  owner = -1;

  node(): number {
    if (this.edges.length >= LIMITS.proofStates) this.overflow = true;
    this.owners.push(this.owner);
    return this.edges.push([]) - 1;
  }

  join(from: readonly number[], mask: Mask, to: number): void {
    if (this.overflow) return;
    for (const node of from) elementAt(this.edges, node).push({ mask, to });
  }

  symbol(ch: string): number {
    const code = ch.codePointAt(0) ?? 0;
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
    return words;
  }

  /** Everything a portable name may hold, without `not`. */
  open(not: string): Mask {
    const words = [0, 0, 0, 0, 0];
    for (let code = 0x20; code < 0x7f; code++)
      if (!FORBIDDEN_WINDOWS.includes(String.fromCharCode(code)) && !not.includes(String.fromCharCode(code)))
        set(words, code);
    for (let index = OTHER; index < 160; index++) set(words, index);
    return words;
  }
}

function set(words: number[], symbol: number): void {
  words[symbol >> 5] = ((words[symbol >> 5] ?? 0) | (1 << (symbol & 31))) >>> 0;
}

const DIGITS = '0123456789';
const UPPER = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const LOWER = UPPER.toLowerCase();

export function nameCharacters(a: Automaton, ops: readonly Op[]): void {
  for (const op of ops) {
    for (const text of op.kind === 'literal' ? [op.text] : op.kind === 'slot' ? textsOf(op.slot.domain) : [])
      for (const ch of text) a.symbol(ch);
  }
}

/** Every text whose characters a domain names one by one. */
function textsOf(domain: SlotDomain): string[] {
  const literals = (pieces: readonly ({ kind: 'literal'; text: string } | { kind: 'digits' | 'item' })[]) =>
    pieces.flatMap((p) => (p.kind === 'literal' ? [p.text] : []));
  if (domain.kind === 'fixed') return domain.entries.map((e) => e.text);
  if (domain.kind === 'like') return literals(domain.pieces);
  return domain.kind === 'date' ? literals(domain.pattern.pieces) : [];
}

/** Adds the ops from `from` to `to` behind the nodes of `front`; gives the nodes at which they have ended. */
export function build(
  a: Automaton,
  ops: readonly Op[],
  from: number,
  to: number,
  front: readonly number[],
  options: BuildOptions,
): number[] {
  let current = [...front];
  for (let i = from; i < to; i++) {
    const op = elementAt(ops, i);
    a.owner = i;
    if (op.kind === 'literal') current = chain(a, op.text, current);
    else if (op.kind === 'slot') current = buildDomain(a, op.slot.domain, current, options);
    else {
      const inside = build(a, ops, i + 1, op.skipTo, current, options);
      current = [...new Set([...current, ...inside])];
      i = op.skipTo - 1;
    }
  }
  return current;
}

function chain(a: Automaton, text: string, front: readonly number[]): number[] {
  return [...text].reduce<number[]>((before, ch) => [step(a, before, a.mask([ch]))], [...front]);
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
  if (max === Infinity) a.join(before, mask, elementAt(before, 0));
  return ends;
}

function buildDomain(a: Automaton, domain: SlotDomain, front: readonly number[], options: BuildOptions): number[] {
  const limit = (max: number) => (options.exact ? max : Infinity);
  switch (domain.kind) {
    case 'fixed':
      return oneOf(
        a,
        domain.entries.map((e) => e.text),
        front,
      );
    case 'text':
      return buildText(a, domain.shape, domain.chars, front, limit(domain.max));
    case 'like':
      return options.exact
        ? buildLike(a, domain.pieces, front, domain.max)
        : domain.pieces.reduce<number[]>(
            (before, p) =>
              p.kind === 'literal' ? chain(a, p.text, before) : run(a, before, a.mask(DIGITS), p.min, Infinity),
            [...front],
          );
    case 'code':
      return run(
        a,
        front,
        a.mask(domain.of === 'number' ? `${DIGITS}${UPPER}${LOWER}-` : DIGITS + LOWER),
        1,
        limit(MOST_CODE[domain.of]),
      );
    case 'digits':
      return buildDigits(a, domain.min, front, limit(Math.max(MOST_DIGITS, domain.min)));
    case 'letters':
      return run(a, front, a.mask(domain.upper ? UPPER : LOWER), 1, limit(MOST_LETTERS));
    case 'date':
      return buildDate(a, domain, front, options);
    default:
      return assertNever(domain);
  }
}

/**
 * Exactly `min` digits, or more without a leading nought: parted by the first digit, so that no number has two paths.
 */
function buildDigits(a: Automaton, min: number, front: readonly number[], max: number): number[] {
  const nought = step(a, front, a.mask('0'));
  const other = step(a, front, a.mask(DIGITS.slice(1)));
  const short = min === 1 ? [nought] : run(a, [nought], a.mask(DIGITS), min - 1, min - 1);
  if (min > 1) return [...short.slice(-1), ...run(a, [other], a.mask(DIGITS), min - 1, max - 1)];
  if (max < Infinity) return [...short, other, ...run(a, [other], a.mask(DIGITS), 1, max - 1)];
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

/** A fixed form within its limit: a state for each place in it and each length so far. */
function buildLike(a: Automaton, pieces: readonly LikePiece[], front: readonly number[], max: number): number[] {
  interface Place {
    readonly piece: number;
    /** Characters of a literal, or digits up to the fewest there must be. */
    readonly taken: number;
  }
  const onwards = ({ piece, taken }: Place): { mask: Mask; to: Place }[] => {
    const p = pieces[piece];
    if (p === undefined) return [];
    if (p.kind === 'literal') {
      const ch = p.text.slice(taken, taken + 1);
      const to = taken + 1 === p.text.length ? { piece: piece + 1, taken: 0 } : { piece, taken: taken + 1 };
      return [{ mask: a.mask([ch]), to }];
    }
    const more = { mask: a.mask(DIGITS), to: { piece, taken: Math.min(taken + 1, p.min) } };
    return taken < p.min ? [more] : [more, ...onwards({ piece: piece + 1, taken: 0 })];
  };
  const isWhole = ({ piece, taken }: Place): boolean => {
    const p = pieces[piece];
    return p === undefined || (p.kind === 'digits' && taken >= p.min && piece + 1 === pieces.length);
  };
  let layer = new Map<string, { place: Place; nodes: readonly number[] }>([
    ['start', { place: { piece: 0, taken: 0 }, nodes: front }],
  ]);
  const ends: number[] = [];
  for (let length = 1; length <= max && layer.size > 0 && !a.overflow; length++) {
    const next: typeof layer = new Map();
    for (const { place, nodes } of layer.values())
      for (const { mask, to } of onwards(place)) {
        const key = `${to.piece} ${to.taken}`;
        const known = next.get(key) ?? { place: to, nodes: [a.node()] };
        next.set(key, known);
        a.join(nodes, mask, elementAt(known.nodes, 0));
      }
    for (const { place, nodes } of next.values()) if (isWhole(place)) ends.push(...nodes);
    layer = next;
  }
  return ends;
}

function buildText(
  a: Automaton,
  shape: TextShape,
  chars: string | null,
  front: readonly number[],
  max: number,
): number[] {
  const joiner = shape === 'as-is' ? ' ' : JOINER[shape];
  const within = (mask: Mask): Mask =>
    chars === null
      ? mask
      : and(mask, a.mask([...charSet(chars)].slice(0, MOST_CHARS).map((code) => String.fromCodePoint(code))));
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
function buildDate(
  a: Automaton,
  domain: Extract<SlotDomain, { kind: 'date' }>,
  front: readonly number[],
  options: BuildOptions,
): number[] {
  const has = (item: string) => domain.pattern.pieces.some((p) => p.kind === 'item' && p.item.startsWith(item));
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
    const years = (sort.leap ? numbers(domain.pivot - 50, domain.pivot + 49).filter(isLeap) : numbers(0, 99)).map((y) =>
      two(((y % 100) + 100) % 100),
    );
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
    return item === 'yyyy' ? years : by[item]();
  };
  const century = numbers(0, 99);
  const year = (before: readonly number[], leap: boolean): number[] => {
    if (!leap || !options.exact) return run(a, before, a.mask(DIGITS), 4, 4);
    const common = oneOf(
      a,
      century.filter((n) => n !== 0 && n % 4 === 0).map(two),
      run(a, before, a.mask(DIGITS), 2, 2),
    );
    const hundreds = oneOf(a, ['00'], oneOf(a, century.filter((n) => n % 4 === 0).map(two), before));
    return [...common, ...hundreds];
  };
  return sorts.flatMap((sort) =>
    domain.pattern.pieces.reduce<number[]>(
      (before, p) =>
        p.kind === 'literal'
          ? chain(a, p.text, before)
          : p.item === 'yyyy'
            ? year(before, sort.leap && has('yyyy'))
            : oneOf(a, textsOf(p.item, sort), before),
      [...front],
    ),
  );
}

const and = (x: Mask, y: Mask): Mask => x.map((word, i) => (word & (y[i] ?? 0)) >>> 0);
