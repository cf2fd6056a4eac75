/**
 * What a piece of a broken name may have been meant as, for one slot: the text it should read, at what cost, by which
 * change.
 */

import { distance } from 'fastest-levenshtein';
import { elementAt } from '../../element';
import { Bounded, Remembered } from '../../remembered';
import { isExchanged } from '../../text/exchanged';
import { fold } from '../../text/fold';
import { takesWhole, valuesOf } from '../automaton/scan';
import { parseDatePattern, readDate, writeDate } from '../dates/dates';
import type { Abbreviation, Reading } from '../pattern/field';
import type { CompiledSlot } from '../pattern/ops';
import { shapeText } from '../pattern/shape';
import type { Entry, SlotDomain } from '../pattern/slot-domain';
import { fitLike } from '../write';

export const CHANGE_CODES = [
  'case',
  'separator',
  'padding',
  'accents',
  'abbreviation',
  'spelling',
  'date-form',
  'version-style',
  'extension',
  'banned-word',
  'copy-mark',
  'doubled',
  'extra',
  'order',
  'missing',
  'number',
  'client',
  'entry',
  'unknown',
] as const;
export type ChangeCode = (typeof CHANGE_CODES)[number];

export interface Candidate {
  readonly text: string;
  readonly cost: number;
  readonly change: ChangeCode | null;
}

/** What is known besides the name itself. */
export interface NameContext {
  /** Values the name must carry: the project's own number, the entries of the folder it lies in. */
  readonly bound: Reading;
  /** Other values a field is known to take in this project: the entries of its lists. */
  readonly known: Readonly<Record<string, readonly string[]>>;
  readonly abbreviations: readonly Abbreviation[];
  readonly banned: readonly string[];
}

export const NO_CONTEXT: NameContext = { bound: {}, known: {}, abbreviations: [], banned: [] };

/** Costs of the changes; what costs more than `DEAR` is no plain slip any more. */
export const COST: Readonly<Record<ChangeCode, number>> = {
  case: 0.4,
  separator: 0.5,
  padding: 0.3,
  accents: 0.4,
  abbreviation: 0.5,
  spelling: 1.2,
  'date-form': 0.6,
  'version-style': 0.5,
  extension: 0.5,
  'banned-word': 0.8,
  'copy-mark': 0.8,
  doubled: 1,
  extra: 3,
  order: 0.8,
  missing: 1.6,
  number: 2,
  client: 2,
  entry: 2.5,
  unknown: 4,
};

const made = (text: string, change: ChangeCode): Candidate => ({ text, cost: COST[change], change });
const same = (text: string): Candidate => ({ text, cost: 0, change: null });

export function candidatesFor(slot: CompiledSlot, text: string, context: NameContext): Candidate[] {
  const bound = context.bound[slot.field];
  const found = plainCandidates(slot.domain, text, context, slot.field);
  if (bound === undefined) return found;
  // What must be one value: another one can only be a slip or a foreign name.
  const own = textOfBound(slot.domain, bound);
  const meant = found.filter((c) => (own === null ? valuesOf(slot.domain, c.text).includes(bound) : c.text === own));
  if (meant.length > 0) return meant;
  if (own === null) return found.map((c) => ({ ...c, cost: c.cost + COST.entry, change: 'entry' as const }));
  if (isNear(text, own)) return [made(own, 'spelling')];
  if (found.some((c) => c.cost < COST.unknown) || sameDomain(text, own))
    return [made(own, slot.field === 'number' ? 'number' : slot.field === 'client' ? 'client' : 'entry')];
  return [];
}

/** Written form of a value that must stand here. */
function textOfBound(domain: SlotDomain, bound: string | number): string | null {
  if (domain.kind === 'fixed') return domain.entries.find((e) => e.value === bound)?.text ?? null;
  if (domain.kind === 'digits') return String(bound).padStart(domain.min, '0');
  return typeof bound === 'string' && takesWhole(domain, bound) ? bound : null;
}

/**
 * Candidates of everything but texts hang on the domain and the text alone: the same words come up in every broken name.
 */
const remembered = new WeakMap<SlotDomain, Map<string, Candidate[]>>();
const MOST_REMEMBERED = 5000;

function plainCandidates(domain: SlotDomain, text: string, context: NameContext, field: string): Candidate[] {
  if (domain.kind === 'text') return candidatesAnew(domain, text, context, field);
  const cache = remembered.get(domain) ?? new Map<string, Candidate[]>();
  remembered.set(domain, cache);
  const known = cache.get(text);
  if (known !== undefined) return known;
  const made = candidatesAnew(domain, text, context, field);
  if (cache.size >= MOST_REMEMBERED) cache.clear();
  cache.set(text, made);
  return made;
}

function candidatesAnew(domain: SlotDomain, text: string, context: NameContext, field: string): Candidate[] {
  if (takesWhole(domain, text)) return refineKnown(domain, text, context.known[field] ?? []);
  switch (domain.kind) {
    case 'fixed':
      return fixedCandidates(domain, text, context.abbreviations);
    case 'text':
      return textCandidates(domain, text, context, field);
    case 'like': {
      const fitted = fitLike(domain, text);
      if (fitted === null) return [];
      return [made(fitted, fitted.toLowerCase() === text.toLowerCase() ? 'case' : 'padding')];
    }
    case 'digits':
      return /^[0-9]{1,9}$/.test(text) ? [made(String(Number(text)).padStart(domain.min, '0'), 'padding')] : [];
    case 'letters': {
      const cased = domain.upper ? text.toUpperCase() : text.toLowerCase();
      return takesWhole(domain, cased) && text.length <= 2 ? [made(cased, 'case')] : [];
    }
    case 'date':
      return dateCandidates(domain, text);
    case 'code': {
      const lower = text.toLowerCase();
      return domain.of === 'ext' && takesWhole(domain, lower) ? [made(lower, 'case')] : [];
    }
  }
}

/** A text that reads, yet is nearly one of the entries this project has, is more likely a slip of it. */
function refineKnown(domain: SlotDomain, text: string, known: readonly string[]): Candidate[] {
  if (domain.kind !== 'text' || known.length === 0 || known.includes(text)) return [same(text)];
  const bare = squash(text);
  const bares = squashedList.of(known);
  const near = known.filter((_, i) => isNearBare(bare, elementAt(bares, i)));
  return [{ text, cost: 0.8, change: null }, ...near.map((entry) => made(entry, 'spelling'))];
}

/** An entry with its spellings squashed once: every broken name is compared with all of them. */
interface Spelled {
  readonly entry: Entry;
  readonly lower: string;
  readonly bare: string;
  readonly also: readonly string[];
}

const spelled = new Remembered((entries: readonly Entry[]): readonly Spelled[] =>
  entries.map((entry) => ({
    entry,
    lower: entry.text.toLowerCase(),
    bare: squash(entry.text),
    also: entry.also.map(squash),
  })),
);

function fixedCandidates(
  domain: Extract<SlotDomain, { kind: 'fixed' }>,
  text: string,
  abbreviations: readonly Abbreviation[],
): Candidate[] {
  const bare = squash(text);
  if (bare === '') return [];
  const lower = text.toLowerCase();
  const short = meanings.of(abbreviations).get(bare);
  const near = domain.of !== 'ext' && domain.of !== 'number';
  let best = Number.POSITIVE_INFINITY;
  let out: Candidate[] = [];
  for (const e of spelled.of(domain.entries)) {
    const change: ChangeCode | null =
      e.lower === lower
        ? 'case'
        : e.bare === bare
          ? 'separator'
          : e.also.includes(bare) || short?.has(e.bare)
            ? 'abbreviation'
            : domain.of === 'ext' && sameExtension(e.entry.text, lower)
              ? 'extension'
              : near && (isNearBare(bare, e.bare) || e.also.some((word) => isNearBare(bare, word)))
                ? 'spelling'
                : null;
    if (change === null || COST[change] > best) continue;
    if (COST[change] < best) out = [];
    best = COST[change];
    out.push(made(e.entry.text, change));
  }
  return out;
}

function textCandidates(
  domain: Extract<SlotDomain, { kind: 'text' }>,
  text: string,
  context: NameContext,
  field: string,
): Candidate[] {
  const known = context.known[field] ?? NONE;
  const bare = known.length === 0 ? '' : squash(text);
  const bares = squashedList.of(known);
  const at = known.length === 0 ? -1 : bares.indexOf(bare);
  const entry = at < 0 ? undefined : known[at];
  const shaped = shapeText(text, domain.shape);
  const out: Candidate[] = [];
  if (entry !== undefined && takesWhole(domain, entry)) out.push(made(entry, changeBetween(text, entry)));
  else if (shaped.ok && takesWhole(domain, shaped.text) && [...shaped.text].length <= domain.max) {
    const change = changeBetween(text, shaped.text);
    out.push({
      text: shaped.text,
      cost: COST[change] + (known.length > 0 ? 0.8 : 0) + swallowed(text, context),
      change,
    });
  }
  if (entry === undefined)
    bares.forEach((b, i) => {
      const near = elementAt(known, i);
      if (isNearBare(bare, b) && takesWhole(domain, near)) out.push(made(near, 'spelling'));
    });
  return out;
}

/**
 * A text can swallow its neighbours: the dearer, the more separators it has, a dot above all, or a word nobody should
 * write.
 */
function swallowed(text: string, { banned, bound }: NameContext): number {
  if (/^[A-Za-z0-9]+$/.test(text)) return isBanned(text, banned) || text === bound.number ? 2 : 0;
  const separators = text.match(/[^\p{L}\p{N}]+/gu)?.length ?? 0;
  const words = text.split(/[^A-Za-z0-9]+/);
  const wrong = words.some((word) => word !== '' && (isBanned(word, banned) || word === bound.number));
  return Math.max(0, separators - 1) * 0.3 + (text.includes('.') ? 1 : 0) + (wrong ? 2 : 0);
}

/** The plainest name for what differs between two spellings of one text. */
function changeBetween(found: string, meant: string): ChangeCode {
  if (found.toLowerCase() === meant.toLowerCase()) return 'case';
  if (!/^[ -~]*$/.test(found) && fold(found).text !== found.normalize('NFC')) return 'accents';
  return 'separator';
}

const DATE_PATTERNS = [
  'yyyy-MM-dd',
  'yyyyMMdd',
  'yyyy_MM_dd',
  'yyyy.MM.dd',
  'yyyy MM dd',
  'dd-MM-yyyy',
  'dd_MM_yyyy',
  'dd.MM.yyyy',
  'dd MM yyyy',
  'ddMMyyyy',
  'MM-dd-yyyy',
  'MM_dd_yyyy',
  'MMddyyyy',
  'yy-MM-dd',
  'yyMMdd',
  'd-M-yyyy',
  'd.M.yyyy',
  'yyyy-M-d',
].map((source) => {
  const pattern = parseDatePattern(source);
  if (pattern === null) throw new Error(`date pattern ${source}`);
  return pattern;
});

/** Every date the text may be in the domains people write; two different ones cost the same, so that neither is sure. */
function dateCandidates(domain: Extract<SlotDomain, { kind: 'date' }>, text: string): Candidate[] {
  if (!/^\d[\d ._-]*\d$/.test(text)) return [];
  const texts = new Set<string>();
  for (const other of DATE_PATTERNS) {
    for (const read of readDate(text, 0, other, domain.pivot)) {
      const written = read.end === text.length ? writeDate(read.date, domain.pattern) : null;
      if (written !== null && (read.date.year === undefined || Math.abs(read.date.year - domain.pivot) < 50))
        texts.add(written);
    }
  }
  return [...texts].map((written) => made(written, 'date-form'));
}

/** Letters and digits alone, folded and lower case: what is left when case, separators and accents are put aside. */
export const squash = (text: string): string => squashed.of(text);

/** The same words come up in every broken name of a project. */
const squashed = new Bounded(20_000, (text) =>
  fold(text)
    .text.toLowerCase()
    .replace(/[^a-z0-9]+/g, ''),
);

const NONE: readonly string[] = [];

const squashedList = new Remembered((texts: readonly string[]): readonly string[] => texts.map(squash));

export function isNear(found: string, meant: string): boolean {
  return Math.abs(found.length - meant.length) <= 12 && isNearBare(squash(found), squash(meant));
}

/** One slip apart, two in a long word; numbers are never near each other. Takes squashed texts. */
function isNearBare(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 2 || a.length < 3 || b.length < 3) return false;
  if (a === b) return true;
  if (/\d/.test(a) || /\d/.test(b)) return false;
  const d = distance(a, b);
  return d === 1 ? b.length > 3 : d === 2 && (b.length >= 7 || isExchanged(a, b));
}

/** For each squashed short or long form, the squashed domains it stands for: abbreviations go both ways. */
export const meanings = new Remembered(
  (abbreviations: readonly Abbreviation[]): ReadonlyMap<string, ReadonlySet<string>> => {
    const made = new Map<string, Set<string>>();
    const add = (from: string, to: string) => made.set(from, (made.get(from) ?? new Set()).add(to));
    for (const a of abbreviations) {
      add(squash(a.long), squash(a.short));
      add(squash(a.short), squash(a.long));
    }
    return made;
  },
);

const bannedWords = new Remembered((banned: readonly string[]): ReadonlySet<string> => new Set(banned.map(squash)));

/** Whether a word is one that nobody should write. */
export const isBanned = (word: string, banned: readonly string[]): boolean => bannedWords.of(banned).has(squash(word));

const EXTENSION_TWINS: readonly (readonly string[])[] = [
  ['jpg', 'jpeg'],
  ['tif', 'tiff'],
  ['htm', 'html'],
  ['yml', 'yaml'],
  ['mpg', 'mpeg'],
  ['aif', 'aiff'],
  ['mid', 'midi'],
];

const sameExtension = (a: string, b: string): boolean =>
  EXTENSION_TWINS.some((twins) => twins.includes(a) && twins.includes(b));

/** Letters where letters stand, digits where digits stand: `26009` has the form of `26014`. */
export function sameDomain(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (kindOf(a.charCodeAt(i)) !== kindOf(b.charCodeAt(i))) return false;
  return true;
}

/** A digit, a capital, a small letter, or the character itself. */
function kindOf(code: number): number {
  if (code >= 48 && code <= 57) return 48;
  if (code >= 65 && code <= 90) return 65;
  return code >= 97 && code <= 122 ? 97 : code;
}
