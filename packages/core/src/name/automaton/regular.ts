/**
 * Forms as one regular expression with a numbered group for each slot. Made only for conventions that read one way (see
 * compile).
 */
import { elementAt } from '../../element';
import { assertNever } from '../../result';
import type { Expression, ExpressionSlot, Op } from '../pattern/ops';
import { JOINER, type TextShape } from '../pattern/shape';
import type { SlotDomain } from '../pattern/slot-domain';
import { charSet, MOST_CODE, MOST_DIGITS, MOST_LETTERS, takesWhole, valuesOf } from './scan';

export function expressionOf(ops: readonly Op[]): Expression {
  const slots: ExpressionSlot[] = [];
  const closes = new Map<number, number>();
  let source = '';
  let unicode = false;
  ops.forEach((op, i) => {
    source += ')?'.repeat(closes.get(i) ?? 0);
    if (op.kind === 'literal') source += literally(op.text);
    else if (op.kind === 'enter') {
      source += '(?:';
      closes.set(op.skipTo, (closes.get(op.skipTo) ?? 0) + 1);
    } else {
      source += `(${sourceOf(op.slot.domain)})`;
      slots.push({ field: op.slot.field, ...readerOf(op.slot.domain) });
      unicode ||= op.slot.domain.kind === 'text' && op.slot.domain.shape === 'as-is';
    }
  });
  source += ')?'.repeat(closes.get(ops.length) ?? 0);
  return { regexp: new RegExp(`^${source}$`, unicode ? 'u' : ''), slots };
}

/**
 * What is left to look at once the expression has matched: limits, real dates, whole numbers, entries that mean
 * something else.
 */
function readerOf(domain: SlotDomain): Omit<ExpressionSlot, 'field'> {
  const text = (max: number) => ({ max, number: false, value: null });
  switch (domain.kind) {
    case 'fixed': {
      if (domain.entries.every((e) => e.text === e.value)) return text(Number.POSITIVE_INFINITY);
      const values = new Map(domain.entries.map((e) => [e.text, e.value]));
      return { ...text(0), value: (found) => values.get(found) };
    }
    case 'date':
      return { ...text(0), value: (found) => valuesOf(domain, found)[0] };
    case 'digits':
      return { max: Math.max(MOST_DIGITS, domain.min), number: true, value: null };
    case 'text':
      // Limits of as-is texts count characters, not units, and some characters stand in no name.
      return domain.shape === 'as-is'
        ? { ...text(0), value: (found) => (takesWhole(domain, found) ? found : undefined) }
        : text(domain.max);
    case 'like':
      return text(domain.max);
    case 'code':
      return text(MOST_CODE[domain.of]);
    case 'letters':
      return text(MOST_LETTERS);
    default:
      return assertNever(domain);
  }
}

function sourceOf(domain: SlotDomain): string {
  switch (domain.kind) {
    case 'fixed':
      return trieSource(domain.entries.map((e) => e.text));
    case 'text':
      return textSource(domain);
    case 'like':
      return domain.pieces.map((p) => (p.kind === 'literal' ? literally(p.text) : `[0-9]{${p.min},}`)).join('');
    case 'code':
      return domain.of === 'number' ? '[A-Za-z0-9-]+' : '[a-z0-9]+';
    case 'digits':
      return domain.min === 1 ? '0|[1-9][0-9]*' : `[0-9]{${domain.min}}|[1-9][0-9]{${domain.min},}`;
    case 'letters':
      return domain.upper ? '[A-Z]+' : '[a-z]+';
    case 'date':
      return domain.pattern.pieces
        .map((p) =>
          p.kind === 'literal' ? literally(p.text) : p.item.length === 1 ? '[1-9][0-9]?' : `[0-9]{${p.item.length}}`,
        )
        .join('');
    default:
      return assertNever(domain);
  }
}

/** Any character the proof's automaton takes for an as-is text, blanks apart. */
const OPEN = '[^\\x00-\\x20\\x7f<>:"/\\\\|?*]';

/** Letters that may begin a word and those that may follow, and what joins words. */
const WORDS: Readonly<Record<Exclude<TextShape, 'as-is'>, readonly [first: string, rest: string]>> = {
  kebab: ['a-z0-9', 'a-z0-9'],
  snake: ['a-z0-9', 'a-z0-9'],
  lower: ['a-z0-9', 'a-z0-9'],
  upper: ['A-Z0-9', 'A-Z0-9'],
  title: ['A-Z0-9', 'a-z0-9'],
  camel: ['A-Za-z0-9', 'A-Za-z0-9'],
  pascal: ['A-Za-z0-9', 'A-Za-z0-9'],
};

function textSource({ shape, chars }: Extract<SlotDomain, { kind: 'text' }>): string {
  const allowed = chars === null ? null : charSet(chars);
  if (shape === 'as-is') {
    const letter = allowed === null ? OPEN : classOf([...allowed].filter((code) => code !== 32));
    return allowed === null || allowed.has(32) ? `${letter}(?: *${letter})*` : `${letter}+`;
  }
  const classIn = (range: string): string =>
    allowed === null ? `[${range}]` : classOf([...charSet(range)].filter((code) => allowed.has(code)));
  const [first, rest] = [classIn(WORDS[shape][0]), classIn(WORDS[shape][1])];
  const joiner = JOINER[shape];
  const word = first === rest ? `${first}+` : `${first}${rest}*`;
  return joiner === '' || allowed?.has(joiner.charCodeAt(0)) === false ? word : `${word}(?:${joiner}${word})*`;
}

/** A class that holds nothing takes nothing, as the automaton has it. */
const classOf = (codes: readonly number[]): string =>
  `[${codes.map((code) => literally(String.fromCodePoint(code)).replace('-', '\\x2d')).join('')}]`;

interface Trie {
  readonly next: Map<string, Trie>;
  ends: boolean;
}

/** Words that share beginnings share their expression, so that 2,000 codes are not tried one after another. */
function trieSource(words: readonly string[]): string {
  const root: Trie = { next: new Map(), ends: false };
  for (const word of words) {
    let node = root;
    for (const unit of word) {
      const child = node.next.get(unit) ?? { next: new Map(), ends: false };
      node.next.set(unit, child);
      node = child;
    }
    node.ends = true;
  }
  const print = (node: Trie): string => {
    if (node.next.size === 0) return '';
    const branches = [...node.next].map(([ch, child]) => literally(ch) + print(child));
    const body = branches.length === 1 && !node.ends ? elementAt(branches, 0) : `(?:${branches.join('|')})`;
    return node.ends ? `${body}?` : body;
  };
  return print(root);
}

/** Escapes for expressions with and without the `u` flag alike. */
const literally = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');
