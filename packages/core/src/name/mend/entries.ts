/** What a text may mean among the entries of a finite set: a code, its words, a part of them, a slip of any. */
import { Remembered } from '../../remembered';
import type { Abbreviation } from '../pattern/field';
import type { Entry, SlotDomain } from '../pattern/slot-domain';
import { type Candidate, type ChangeCode, COST, DOUBT, doubted, made } from './costs';
import { meanings, sameExtension } from './habit-words';
import { addsWords, digitsFor, isNearBare, isNearNumber, likeness, squash } from './near';

type Fixed = Extract<SlotDomain, { kind: 'fixed' }>;

/** An entry with its spellings squashed once: every broken name is compared with all of them. */
interface Spelled {
  readonly entry: Entry;
  readonly lower: string;
  readonly bare: string;
  readonly alike: string;
  readonly also: readonly string[];
}

/** All of a set, and what stands for one of its entries alone. */
interface Spellings {
  readonly entries: readonly Spelled[];
  /** Parts of the words an entry goes by, `null` where they are those of more than one. */
  readonly parts: ReadonlyMap<string, Spelled | null>;
}

const spellings = new Remembered((domain: Fixed): Spellings => {
  const entries = domain.entries.map(
    (entry): Spelled => ({
      entry,
      lower: entry.text.toLowerCase(),
      bare: squash(entry.text),
      alike: likeness(squash(entry.text)),
      also: entry.also.map(squash),
    }),
  );
  const parts = new Map<string, Spelled | null>();
  for (const spelled of entries)
    for (const part of new Set(partsOf(spelled.entry, domain.of)))
      parts.set(part, parts.has(part) && parts.get(part) !== spelled ? null : spelled);
  return { entries, parts };
});

/** A person goes by the first or the last name, a client by its first word, and any word by its beginning. */
function partsOf({ text, also }: Entry, of: Fixed['of']): string[] {
  if (of === 'ext' || of === 'number') return [];
  const words = [text, ...also];
  const beginnings = (word: string) =>
    Array.from({ length: Math.max(0, word.length - 3) }, (_, i) => word.slice(0, i + 3));
  const parts = words.flatMap((word) => beginnings(squash(word)));
  for (const word of words) {
    const pieces = word.split(/[^\p{L}\p{N}]+/u).map(squash);
    const [first = '', last = ''] = [pieces[0], pieces.at(-1)];
    if (pieces.length < 2 || first === '' || last === '') continue;
    parts.push(first);
    if (of === 'person') parts.push(last, first.slice(0, 1) + last, first + last.slice(0, 1));
  }
  return parts.filter((part) => part.length >= 3);
}

export function fixedCandidates(domain: Fixed, text: string, abbreviations: readonly Abbreviation[]): Candidate[] {
  const bare = squash(text);
  if (bare === '') return [];
  const { entries, parts } = spellings.of(domain);
  const lower = text.toLowerCase();
  const short = meanings.of(abbreviations).get(bare);
  let best = Number.POSITIVE_INFINITY;
  let out: Candidate[] = [];
  const alike = /\d/.test(text) ? likeness(digitsFor(bare)) : '';
  for (const e of entries) {
    const change: ChangeCode | null =
      e.lower === lower
        ? 'case'
        : e.bare === bare
          ? 'separator'
          : e.also.includes(bare) || short?.has(e.bare)
            ? 'abbreviation'
            : domain.of === 'ext' && sameExtension(e.entry.text, lower)
              ? 'extension'
              : alike !== '' && domain.of !== 'ext' && e.alike === alike
                ? 'characters'
                : null;
    if (change === null || COST[change] > best) continue;
    if (COST[change] < best) out = [];
    best = COST[change];
    out.push(made(e.entry.text, change));
  }
  if (out.length > 0) return out;
  const part = parts.get(bare);
  if (part) return [made(part.entry.text, 'abbreviation', COST.abbreviation + 0.2)];
  return slipsOf(domain, entries, bare, lower).filter((c) => !addsWords(text, longestOf(domain, c.text)));
}

function slipsOf(domain: Fixed, entries: readonly Spelled[], bare: string, lower: string): Candidate[] {
  const own = entries[0];
  if (domain.of === 'number')
    return own !== undefined && entries.length === 1 && isNearNumber(bare, own.bare)
      ? [doubted(own.entry.text, 'number')]
      : [];
  if (domain.of === 'ext') return slipsOfExtension(entries, lower);
  const near = entries.filter((e) => isNearBare(bare, e.bare) || e.also.some((word) => isNearBare(bare, word)));
  // A code of two or three letters is soon another one: a slip of it is asked about.
  if (near.length > 0)
    return near.map((e) =>
      (e.also.some((word) => isNearBare(bare, word)) || bare.length > 4 ? made : doubted)(e.entry.text, 'spelling'),
    );
  const turned = bare.length === 2 ? entries.filter((e) => e.bare === [...bare].reverse().join('')) : [];
  return turned.map((e) => doubted(e.entry.text, 'spelling'));
}

/** `.wva`, `.wavv`: letters exchanged or said twice are a slip of the hand; a shorter one may be a form of its own. */
function slipsOfExtension(entries: readonly Spelled[], lower: string): Candidate[] {
  if (!/^[a-z0-9]{2,8}$/.test(lower)) return [];
  const sorted = (text: string) => [...text].sort().join('');
  const slip = entries.filter(
    (e) =>
      (sorted(e.bare) === sorted(lower) && isNearBare(lower, e.bare)) ||
      (lower.length === e.bare.length + 1 && isNearBare(lower, e.bare)),
  );
  if (slip.length > 0) return slip.map((e) => made(e.entry.text, 'extension', COST.extension + 0.2));
  return entries
    .filter((e) => e.bare.length === lower.length + 1 && isOneLess(lower, e.bare))
    .map((e) => doubted(e.entry.text, 'extension', COST.extension + DOUBT));
}

/** The longest way an entry is written: a slip may be one of its name. */
const longestOf = ({ entries }: Fixed, text: string): string =>
  (entries.find((e) => e.text === text)?.also ?? []).reduce(
    (most, word) => (word.length > most.length ? word : most),
    text,
  );

const isOneLess = (short: string, long: string): boolean =>
  [...long].some((_, i) => long.slice(0, i) + long.slice(i + 1) === short);
