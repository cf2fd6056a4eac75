/** What one column of sample names is: a field with its type and limits, or a word that stands in every name. */

import { elementAt } from '../../element';
import { squash } from '../mend/near';
import type { Field, Registers } from '../pattern/field';
import { isTextShape, type TextShape } from '../pattern/shape';
import type { Column } from './columns';
import { patternsOfDate, type Token } from './tokens';

export type Learnt =
  | { readonly kind: 'literal'; readonly text: string }
  /** `lead` stands before the slot (`v` of `v{version:000}`). `field` is its declaration, where it needs one. */
  | {
      readonly kind: 'slot';
      readonly lead: string;
      readonly key: string;
      readonly rest: string;
      readonly field: Field | null;
    };

/** What was said of the names as a whole. */
export interface ColumnContext {
  readonly registers: Registers;
  readonly index: number;
  readonly last: boolean;
  /** Of the project the names come from, where it is known: a word that is its title is no word of the rule. */
  readonly title: string | null;
  /** Keys taken by the columns before. */
  readonly taken: Set<string>;
}

/** A type holds where nearly all values have it: the few that have not are slips. */
const NEARLY = 0.9;

export function learnColumn(column: Column, cells: readonly Token[], context: ColumnContext): Learnt {
  const texts = cells.map((t) => t.text);
  const counts = new Map<string, number>();
  for (const text of texts) counts.set(text, (counts.get(text) ?? 0) + 1);
  const share = (test: (text: string) => boolean) =>
    texts.reduce((n, text) => n + (test(text) ? 1 : 0), 0) / texts.length;
  return (
    versionOf(cells, context) ??
    numberOf(column, counts, share, context) ??
    dateOf(texts, context) ??
    frameOf(column, cells, counts, context) ??
    registerOf(share, counts, context) ??
    codedOf(cells, counts, context) ??
    digitsOf(texts, share, context) ??
    literalOf(column, counts, texts.length, context) ??
    choiceOf(counts, texts.length, context) ??
    textOf(texts, share, context)
  );
}

const slot = (key: string, rest: string, field: Field | null = null, lead = ''): Learnt => ({
  kind: 'slot',
  lead,
  key,
  rest,
  field,
});

/** A key nobody has taken: the name itself, then with a number behind it. */
function keyFor(wanted: string, { taken }: ColumnContext): string {
  let key = wanted;
  for (let n = 2; taken.has(key); n++) key = `${wanted}${n}`;
  taken.add(key);
  return key;
}

function mostOf<T>(all: readonly T[]): T | undefined {
  const counts = new Map<T, number>();
  for (const each of all) counts.set(each, (counts.get(each) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

/** The width by which most numbers read: of exactly that many digits, or more without a leading nought. */
function widthOf(numbers: readonly string[]): number {
  const widths = [...new Set(numbers.map((n) => n.length))].sort((a, b) => a - b);
  const reads = (width: number) =>
    numbers.filter((n) => n.length === width || (n.length > width && !n.startsWith('0'))).length;
  return (
    widths.map((width) => ({ width, reads: reads(width) })).sort((a, b) => b.reads - a.reads || b.width - a.width)[0]
      ?.width ?? 1
  );
}

const zeros = (width: number) => (width > 1 ? `:${'0'.repeat(width)}` : '');

function versionOf(cells: readonly Token[], context: ColumnContext): Learnt | null {
  const versions = cells.filter((t) => t.kind === 'version');
  if (versions.length < NEARLY * cells.length || context.taken.has('version')) return null;
  const lead = mostOf(versions.map((t) => t.prefix)) ?? 'v';
  const rests = versions.filter((t) => t.prefix === lead).map((t) => t.text.slice(lead.length));
  const key = keyFor('version', context);
  return rests.filter((r) => /^[A-Z]$/.test(r)).length > rests.length / 2
    ? slot(key, ':A', null, lead)
    : slot(key, zeros(widthOf(rests)), null, lead);
}

/** Digits of one length in front are the project's number. */
function numberOf(
  column: Column,
  counts: ReadonlyMap<string, number>,
  share: (test: (text: string) => boolean) => number,
  context: ColumnContext,
): Learnt | null {
  if (context.index > 1 || column.optional || context.taken.has('number')) return null;
  const length = mostOf([...counts.keys()].map((text) => text.length)) ?? 0;
  if (length < 4 || length > 6 || share((text) => text.length === length && /^[0-9]+$/.test(text)) < NEARLY)
    return null;
  // Six digits that are dates, and differ, are dates.
  if (counts.size > 1 && share((text) => patternsOfDate(text).length > 0) >= NEARLY) return null;
  return slot(keyFor('number', context), '');
}

function dateOf(texts: readonly string[], context: ColumnContext): Learnt | null {
  const forms = new Map<string, number>();
  for (const text of texts)
    for (const form of patternsOfDate(text)) forms.set(form.source, (forms.get(form.source) ?? 0) + 1);
  const [best] = [...forms].sort((a, b) => b[1] - a[1]);
  if (best === undefined || best[1] < NEARLY * texts.length) return null;
  const key = keyFor('date', context);
  return slot(key, `:${best[0]}`, key === 'date' ? null : { key, type: 'date' });
}

/** Digits behind a dot right before the extension, or long ones in the last place that follow each other: frames. */
function frameOf(
  column: Column,
  cells: readonly Token[],
  counts: ReadonlyMap<string, number>,
  context: ColumnContext,
): Learnt | null {
  const digits = cells.filter((t) => t.kind === 'digits').map((t) => t.text);
  if (!context.last || digits.length < NEARLY * cells.length || context.taken.has('frame')) return null;
  const width = widthOf(digits);
  const numbers = digits.map(Number);
  const dense = counts.size >= 10 && Math.max(...numbers) - Math.min(...numbers) < 2 * counts.size;
  if (column.before !== '.' && (width < 4 || !dense)) return null;
  return slot(keyFor('frame', context), zeros(width));
}

function registerOf(
  share: (test: (text: string) => boolean) => number,
  counts: ReadonlyMap<string, number>,
  context: ColumnContext,
): Learnt | null {
  const { clients, people } = context.registers;
  const codes = new Set(clients.map((c) => c.code));
  const initials = new Set(people.map((p) => p.initials));
  if (!context.taken.has('client') && codes.size > 0 && share((text) => codes.has(text)) >= NEARLY)
    return slot(keyFor('client', context), '.code');
  if (
    !context.taken.has('person') &&
    initials.size > 0 &&
    (counts.size > 1 || !codes.has(elementAt([...counts.keys()], 0))) &&
    share((text) => initials.has(text)) >= NEARLY
  )
    return slot(keyFor('person', context), '.initials');
  return null;
}

const CODED_KEYS: Readonly<Record<string, string>> = {
  s: 'scene',
  sc: 'scene',
  sh: 'shot',
  shot: 'shot',
  c: 'camera',
  cam: 'camera',
  t: 'take',
  tk: 'take',
  take: 'take',
  ep: 'episode',
  e: 'episode',
  d: 'day',
  day: 'day',
  p: 'page',
};

function codedOf(cells: readonly Token[], counts: ReadonlyMap<string, number>, context: ColumnContext): Learnt | null {
  const coded = cells.filter((t) => t.kind === 'coded');
  const lead = mostOf(coded.map((t) => t.prefix));
  const own = coded.filter((t) => t.prefix === lead);
  if (lead === undefined || own.length < NEARLY * cells.length || counts.size === 1) return null;
  const key = keyFor(CODED_KEYS[lead.toLowerCase()] ?? 'part', context);
  const width = widthOf(own.map((t) => t.text.slice(lead.length)));
  return slot(key, '', { key, type: 'text', like: lead + '0'.repeat(width) });
}

function digitsOf(
  texts: readonly string[],
  share: (test: (text: string) => boolean) => number,
  context: ColumnContext,
): Learnt | null {
  if (share((text) => /^[0-9]{1,9}$/.test(text)) < NEARLY) return null;
  const key = keyFor('count', context);
  return slot(key, zeros(widthOf(texts.filter((text) => /^[0-9]+$/.test(text)))), { key, type: 'count' });
}

/** One word in every name; several words joined are rather the title of the one project the names came from. */
function literalOf(
  column: Column,
  counts: ReadonlyMap<string, number>,
  total: number,
  { title }: ColumnContext,
): Learnt | null {
  const [text, times] = elementAt(
    [...counts].sort((a, b) => b[1] - a[1]),
    0,
  );
  if (times < 0.97 * total || total < 3 || column.optional || /[- ]/.test(text)) return null;
  if (title !== null && squash(text) === squash(title)) return null;
  return { kind: 'literal', text };
}

const MOST_OPTIONS = 16;

/** A few words again and again. A word met once beside words met often is rather a slip of one of them. */
function choiceOf(counts: ReadonlyMap<string, number>, total: number, context: ColumnContext): Learnt | null {
  const mean = total / counts.size;
  const kept = [...counts].filter(([, n]) => n > 1 || mean < 5).map(([text]) => text);
  // Codes of two or three letters are codes even where they are few.
  const often = kept.every((text) => text.length <= 3) ? 2 : 4;
  if (
    total < 6 ||
    kept.length < 2 ||
    kept.length > MOST_OPTIONS ||
    total / kept.length < often ||
    kept.some((text) => !/^(?=[0-9]{0,3}[A-Za-z])[A-Za-z0-9]{1,12}$/.test(text))
  )
    return null;
  const key = keyFor(kept.every((text) => text.length < 4 && text === text.toUpperCase()) ? 'code' : 'task', context);
  return slot(key, '', { key, type: 'choice', options: kept.sort().map((code) => ({ code })) });
}

/** Shapes from the most telling to the least. */
const SHAPES: readonly (readonly [TextShape, RegExp])[] = [
  ['upper', /^[A-Z0-9]+(?: [A-Z0-9]+)*$/],
  ['kebab', /^[a-z0-9]+(?:-[a-z0-9]+)*$/],
  ['lower', /^[a-z0-9]+(?: [a-z0-9]+)*$/],
  ['pascal', /^[A-Z][A-Za-z0-9]*$/],
  ['camel', /^[A-Za-z0-9]+$/],
  ['title', /^[A-Z0-9][a-z0-9]*(?: [A-Z0-9][a-z0-9]*)*$/],
];

const TEXT_KEYS = ['title', 'part', 'note', 'detail'] as const;

function textOf(
  texts: readonly string[],
  share: (test: (text: string) => boolean) => number,
  context: ColumnContext,
): Learnt {
  const shape = SHAPES.find(([, form]) => share((text) => form.test(text)) >= NEARLY)?.[0] ?? 'as-is';
  const longest = texts.reduce((n, text) => Math.max(n, [...text].length), 1);
  const key = keyFor(TEXT_KEYS.find((k) => !context.taken.has(k)) ?? 'text', context);
  return slot(key, isTextShape(shape) && shape !== 'as-is' ? `:${shape}` : '', {
    key,
    type: 'text',
    max: Math.min(255, Math.ceil((longest * 1.5) / 8) * 8),
  });
}
