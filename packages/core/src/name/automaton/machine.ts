/**
 * Reads by the pattern's automaton in two passes over the name, whatever the pattern: backwards, noting from which
 * states the rest can
 * still be read (sets of states, met once and kept), then forwards along them, each part as long as it can be.
 * The plain automaton knows no limits: a reading that breaks one is `unsure`, and the larger automaton with all limits
 * is asked. Values that
 * must be met are in neither; there the exact matcher decides.
 */

import { elementAt } from '../../element';
import { ownValue } from '../../own-value';
import { isPortableCharacter } from '../../portable/characters';
import type { Reading, ReadValue } from '../pattern/field';
import type { CompiledName, CompiledSlot, Op } from '../pattern/ops';
import type { SlotDomain } from '../pattern/slot-domain';
import { isComposed, isPlain, MOST_CODE, MOST_DIGITS, MOST_LETTERS, readingsOf } from './scan';
import { Automaton, build, type Edge, nameCharacters } from './states';

/**
 * Sets of states kept; beyond them all are forgotten and met again. One name meets no more sets than it has characters.
 */
const MOST_SETS = 2000;
/** For states that there are not: a function shared by all that look things up would be slow here. */
const NO_WAYS = new Int32Array(0);
const NO_MARKS = new Uint8Array(0);

/** A set marks each state in a byte. */
const MOST_STATES = 20_000;
const SYMBOLS = 160;
const OTHER = 128;
const EMPTY = 0;
const END = 1;

export class Machine {
  private readonly automaton = new Automaton();
  private readonly incoming: { readonly mask: Edge['mask']; readonly from: number }[][];
  /** For each state its edges, flat: five words of symbols and where they lead, for the one hot loop. */
  private readonly ways: readonly Int32Array[];
  private readonly owners: Int32Array;
  private readonly slots: readonly (CompiledSlot | null)[];
  private readonly repeated: boolean;
  private readonly last: readonly number[];
  /** Sets of states met so far by number; nought is the empty one, one those at which the pattern has ended. */
  private readonly numbers = new Map<string, number>();
  private sets: (readonly number[])[] = [];
  private marks: Uint8Array[] = [];
  /** For each set and symbol the set one character earlier; -1 where it was not asked for yet. */
  private before = new Int32Array(16 * SYMBOLS).fill(-1);
  private trail = new Int32Array(256);
  private symbols = new Uint8Array(256);

  /** `null` where the automaton would be too large. */
  static of(name: CompiledName, limits: boolean): Machine | null {
    const machine = new Machine(name.ops, name.slots, limits);
    return machine.automaton.overflow || machine.automaton.edges.length > MOST_STATES ? null : machine;
  }

  private constructor(ops: readonly Op[], slots: readonly CompiledSlot[], limits: boolean) {
    nameCharacters(this.automaton, ops);
    this.last = build(this.automaton, ops, 0, ops.length, [0], { exact: limits });
    const { edges, owners } = this.automaton;
    this.incoming = edges.map(() => []);
    this.owners = Int32Array.from(owners);
    this.ways = edges.map((out, from) => {
      // Staying in a part comes before leaving it, and a group's parts before what follows it: the longest part first.
      const sorted = out.toSorted((x, y) => elementAt(owners, x.to) - elementAt(owners, y.to));
      for (const edge of out) elementAt(this.incoming, edge.to).push({ mask: edge.mask, from });
      return Int32Array.from(sorted.flatMap((edge) => [...edge.mask, edge.to]));
    });
    this.slots = ops.map((op) => (op.kind === 'slot' ? op.slot : null));
    this.repeated = new Set(slots.map((s) => s.field)).size < slots.length;
    this.forget();
  }

  /** The reading whose parts are longest; `null` where there is none at all; `unsure` where that one breaks a limit. */
  read(name: string, bound: Reading | undefined): Reading | null | 'unsure' {
    const length = name.length;
    if (!this.backwards(name, length)) return null;
    const out: Record<string, ReadValue> = {};
    const { ways, owners } = this;
    let state = 0;
    let owner = -1;
    let from = 0;
    for (let at = 0; at <= length; ) {
      const symbol = at < length ? (this.symbols[at] ?? 0) : -1;
      const next = symbol < 0 ? -1 : this.follow(ways[state] ?? NO_WAYS, symbol, at);
      const entered = next < 0 ? -2 : (owners[next] ?? 0);
      if (entered !== owner) {
        const slot = owner < 0 ? null : (this.slots[owner] ?? null);
        if (slot !== null && !take(slot, name.slice(from, at), out, this.repeated, bound)) return 'unsure';
        owner = entered;
        from = at;
      }
      if (next < 0) break;
      state = next;
      at += symbol >= OTHER && (name.codePointAt(at) ?? 0) > 0xffff ? 2 : 1;
    }
    return out;
  }

  private follow(out: Int32Array, symbol: number, at: number): number {
    const rest = this.marks[this.trail[at] ?? 0] ?? NO_MARKS;
    const bit = 1 << (symbol & 31);
    for (let i = 0, word = symbol >> 5; i < out.length; i += 6, word += 6) {
      const to = out[i + 5] ?? 0;
      if (((out[word] ?? 0) & bit) !== 0 && rest[to] === 1) return to;
    }
    throw new Error('the way forwards left the way backwards');
  }

  /** Fills `trail[at]` with the states after the character at `at` from which the rest reads. */
  private backwards(name: string, length: number): boolean {
    if (this.symbols.length < length) {
      this.symbols = new Uint8Array(2 * length);
      this.trail = new Int32Array(2 * length);
    }
    // Only between names: numbers of forgotten sets must not stand in the trail.
    if (this.sets.length >= MOST_SETS) this.forget();
    let set = END;
    for (let at = length - 1; at >= 0; at--) {
      let code = name.charCodeAt(at);
      let symbol = code;
      if (code >= OTHER) {
        if (code >= 0xdc00 && code <= 0xdfff && at > 0 && (name.charCodeAt(at - 1) & 0xfc00) === 0xd800)
          code = name.codePointAt(--at) ?? 0;
        const ch = String.fromCodePoint(code);
        const named = this.automaton.named.get(ch);
        if (named === undefined && !isPortableCharacter(ch)) return false;
        symbol = named ?? OTHER;
      }
      this.trail[at] = set;
      this.symbols[at] = symbol;
      const known = this.before[set * SYMBOLS + symbol] ?? -1;
      set = known >= 0 ? known : this.step(set, symbol);
      if (set === EMPTY) return false;
    }
    return this.marks[set]?.[0] === 1;
  }

  private step(set: number, symbol: number): number {
    const before = new Set<number>();
    for (const state of this.sets[set] ?? [])
      for (const { mask, from } of this.incoming[state] ?? [])
        if (((mask[symbol >> 5] ?? 0) >>> (symbol & 31)) & 1) before.add(from);
    const found = this.setOf([...before]);
    this.before[set * SYMBOLS + symbol] = found;
    return found;
  }

  private setOf(found: readonly number[]): number {
    const states = [...found].sort((a, b) => a - b);
    const key = states.join();
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    const number = this.sets.length;
    const marks = new Uint8Array(this.incoming.length);
    for (const state of states) marks[state] = 1;
    this.sets.push(states);
    this.marks.push(marks);
    this.numbers.set(key, number);
    if ((number + 1) * SYMBOLS > this.before.length) {
      const longer = new Int32Array(2 * this.before.length).fill(-1);
      longer.set(this.before);
      this.before = longer;
    }
    return number;
  }

  private forget(): void {
    this.numbers.clear();
    this.sets = [];
    this.marks = [];
    this.before.fill(-1);
    this.setOf([]);
    this.setOf(this.last);
  }
}

/** What the automaton does not know: lengths, composed letters, real dates, one value for one field. */
function take(
  slot: CompiledSlot,
  text: string,
  out: Record<string, ReadValue>,
  repeated: boolean,
  bound: Reading | undefined,
): boolean {
  const { domain, field } = slot;
  if (!withinLimits(domain, text)) return false;
  const value = readingsOf(domain, text)[0];
  if (value === undefined || (repeated && ownValue(out, field) !== undefined && ownValue(out, field) !== value))
    return false;
  const must = bound && ownValue(bound, field);
  if (must !== undefined && must !== value) return false;
  out[field] = value;
  return true;
}

function withinLimits(domain: SlotDomain, text: string): boolean {
  switch (domain.kind) {
    case 'text':
      if (domain.shape === 'as-is' && !isPlain(text) && (!isComposed(text) || [...text].length > domain.max))
        return false;
      return text.length <= domain.max || !isPlain(text);
    case 'like':
      return text.length <= domain.max;
    case 'code':
      return text.length <= MOST_CODE[domain.of];
    case 'letters':
      return text.length <= MOST_LETTERS;
    case 'digits':
      return text.length <= Math.max(MOST_DIGITS, domain.min);
    default:
      return true;
  }
}
