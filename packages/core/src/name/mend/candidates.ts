/**
 * What a piece of a broken name may have been meant as, for one slot: the text it should read, at what cost, by which
 * change.
 */
import { ownValue } from '../../own-value';
import { takesWhole, valuesOf } from '../automaton/scan';
import type { CompiledSlot } from '../pattern/ops';
import type { SlotDomain } from '../pattern/slot-domain';
import { fitLike } from '../write';
import { type Candidate, COST, DOUBT, doubted, made, type NameContext, same } from './costs';
import { dayCandidates } from './days';
import { fixedCandidates } from './entries';
import { countsIn } from './habit-words';
import { addsWords, digitsFor, isNear, isNearNumber, likeness, sameDomain, squash } from './near';
import { type TextAround, textCandidates } from './texts';

/** What is known of a project, and what the words of a name may say besides the slot they are tried in. */
export interface Around {
  readonly context: NameContext;
  readonly isClaimed: (word: string, field: string) => boolean;
  /** What was worked out already, by slot and text: the names of a folder are made of the same words. */
  readonly candidates: Map<CompiledSlot, Map<string, readonly Candidate[]>>;
}

export function candidatesFor(slot: CompiledSlot, text: string, around: Around): readonly Candidate[] {
  const known = around.candidates.get(slot) ?? new Map<string, readonly Candidate[]>();
  around.candidates.set(slot, known);
  const found = known.get(text) ?? candidatesAnew(slot, text, around);
  if (known.size >= MOST_REMEMBERED) known.clear();
  known.set(text, found);
  return found;
}

function candidatesAnew(slot: CompiledSlot, text: string, around: Around): Candidate[] {
  const bound = ownValue(around.context.bound, slot.field);
  const found = plainCandidates(slot, text, around);
  if (bound === undefined) return found;
  // What must be one value: another one can only be a slip or a foreign name.
  const own = textOfBound(slot.domain, bound);
  const meant = found.filter((c) => (own === null ? valuesOf(slot.domain, c.text).includes(bound) : c.text === own));
  if (meant.length > 0) return slot.field === 'number' ? meant : meant.map((c) => ({ ...c, doubtful: false }));
  if (own === null)
    return found.map((c) => ({ ...c, cost: c.cost + COST.entry, change: 'entry' as const, doubtful: true }));
  if (slot.field !== 'number' && likeness(squash(text)) === likeness(squash(own))) return [made(own, 'characters')];
  if (!addsWords(text, own) && isNear(text, own))
    return [slot.field === 'number' ? doubted(own, 'number') : made(own, 'spelling')];
  if (slot.field === 'number' && isNearNumber(text, own)) return [doubted(own, 'number')];
  if (found.some((c) => c.cost < COST.unknown) || sameDomain(text, own))
    return [doubted(own, slot.field === 'number' ? 'number' : slot.field === 'client' ? 'client' : 'entry', undefined)];
  return [];
}

/** Written form of a value that must stand here. */
export function textOfBound(domain: SlotDomain, bound: string | number): string | null {
  if (domain.kind === 'fixed') return domain.entries.find((e) => e.value === bound)?.text ?? null;
  if (domain.kind === 'digits') return String(bound).padStart(domain.min, '0');
  return typeof bound === 'string' && takesWhole(domain, bound) ? bound : null;
}

/**
 * Candidates of everything but texts hang on the slot, the text and the abbreviations alone: the same words come up in
 * every broken name.
 */
const remembered = new WeakMap<
  CompiledSlot,
  { readonly abbreviations: NameContext['abbreviations']; readonly byText: Map<string, Candidate[]> }
>();
const MOST_REMEMBERED = 5000;

function plainCandidates(slot: CompiledSlot, text: string, around: Around): Candidate[] {
  const { domain, field } = slot;
  if (domain.kind === 'text' || domain.kind === 'like') return knownOrWritten(slot, text, around);
  const { abbreviations } = around.context;
  const before = remembered.get(slot);
  const cache = before?.abbreviations === abbreviations ? before : { abbreviations, byText: new Map() };
  remembered.set(slot, cache);
  const known = cache.byText.get(text);
  if (known !== undefined) return known;
  const found = takesWhole(domain, text) ? [same(text)] : codedCandidates(domain, text, field, abbreviations);
  if (cache.byText.size >= MOST_REMEMBERED) cache.byText.clear();
  cache.byText.set(text, found);
  return found;
}

function codedCandidates(
  domain: Exclude<SlotDomain, { kind: 'text' | 'like' }>,
  text: string,
  field: string,
  abbreviations: NameContext['abbreviations'],
): Candidate[] {
  switch (domain.kind) {
    case 'fixed':
      return [
        ...fixedCandidates(domain, text, abbreviations),
        ...(domain.of === 'number' ? numberInWords(domain, text) : []),
      ];
    case 'digits':
      return countCandidates(domain, text, field);
    case 'letters':
      return letterCandidates(domain, text);
    case 'date':
      return dayCandidates(domain, text);
    case 'code': {
      const lower = text.toLowerCase();
      return domain.of === 'ext' && takesWhole(domain, lower) ? [made(lower, 'case')] : [];
    }
  }
}

/** `No 26014`, `P26014`: a word in front of the project's own number; one that says something else is glued to it. */
function numberInWords(domain: Extract<SlotDomain, { kind: 'fixed' }>, text: string): Candidate[] {
  const m = /^(\p{L}{1,7})[ ._-]?(\d+)$/u.exec(text);
  const own = domain.entries.find((e) => e.text === m?.[2])?.text;
  if (m === null || own === undefined) return [];
  const isNumberWord = countsIn(m[1] ?? '', 'number') && squash(m[1] ?? '') !== 'p';
  if (!isNumberWord && /[^\p{L}\p{N}]/u.test(text)) return [];
  return isNumberWord ? [made(own, 'padding')] : [doubted(own, 'padding')];
}

/** `7` for `0007`, `no7`, `IMG_0007`, `l2` for `12`. */
function countCandidates(domain: Extract<SlotDomain, { kind: 'digits' }>, text: string, field: string): Candidate[] {
  const fitted = (digits: string) => String(Number(digits)).padStart(domain.min, '0');
  if (/^[0-9]{1,9}$/.test(text)) return [made(fitted(text), 'padding')];
  const alike = digitsFor(text);
  if (/\d/.test(text) && /^[0-9]{1,9}$/.test(alike)) return [made(fitted(alike), 'characters')];
  const m = /^(\p{L}{1,8})[ ._-]{0,2}(\d{1,9})$/u.exec(text);
  return m !== null && field !== 'version' && countsIn(m[1] ?? '', field)
    ? [made(fitted(m[2] ?? ''), 'padding', COST.padding + 0.2)]
    : [];
}

function letterCandidates(domain: Extract<SlotDomain, { kind: 'letters' }>, text: string): Candidate[] {
  const cased = domain.upper ? text.toUpperCase() : text.toLowerCase();
  if (takesWhole(domain, cased) && text.length <= 2) return [made(cased, 'case')];
  const n = /^0{0,3}\d{1,2}$/.test(text) ? Number(text) : 0;
  if (n < 1 || n > 26) return [];
  return [doubted(String.fromCharCode((domain.upper ? 64 : 96) + n), 'version-style')];
}

/** A text that the project has an entry for, or that is one by its form. */
function knownOrWritten({ domain, field }: CompiledSlot, text: string, { context, isClaimed }: Around): Candidate[] {
  if (domain.kind !== 'text' && domain.kind !== 'like') return [];
  const around: TextAround = {
    known: ownValue(context.known, field) ?? NONE,
    isClaimed: (word) => isClaimed(word, field),
  };
  if (domain.kind === 'text') return textCandidates(domain, text, around);
  if (text.length > MOST_LIKE) return [];
  const fitted = fitLike(domain, text) ?? likeInWords(domain, text, field);
  if (fitted === null) return [];
  const isStrange = around.known.length > 0 && !around.known.includes(fitted);
  // More figures than the form has: a number of something else.
  const figures = (of: string) => of.replace(/\D/g, '').length;
  const isLong =
    figures(fitted) > domain.pieces.reduce((n, p) => n + (p.kind === 'digits' ? p.min : figures(p.text)), 0) + 1;
  const more = (isStrange ? DOUBT : 0) + (isLong ? 3 : 0);
  const change = fitted === text ? null : fitted.toLowerCase() === text.toLowerCase() ? 'case' : 'padding';
  return [
    {
      text: fitted,
      change,
      cost: (change === null ? 0 : COST[change]) + more,
      doubtful: isLong || (isStrange && change !== null),
    },
  ];
}

/** `scene 7`, `sc07`, `s-7`, `sO7` for the form `s00`. */
function likeInWords(domain: Extract<SlotDomain, { kind: 'like' }>, text: string, field: string): string | null {
  const m = /^(\p{L}*?)[ ._-]{0,2}([0-9OolI]*[0-9][0-9OolI]*|[Oo][0-9]+)$/u.exec(text);
  const [head, figures] = domain.pieces;
  if (m === null || domain.pieces.length !== 2 || head?.kind !== 'literal' || figures?.kind !== 'digits') return null;
  const word = m[1] ?? '';
  const isHead = word === '' || word.toLowerCase() === head.text.toLowerCase() || countsIn(word, field);
  return isHead ? fitLike(domain, `${head.text}${digitsFor(m[2] ?? '')}`) : null;
}

const NONE: readonly string[] = [];
/** No form of figures is written in more characters. */
const MOST_LIKE = 40;
