/** What a stretch of a name may mean as free text: an entry the project has, or the text itself in its shape. */
import { elementAt } from '../../element';
import { Remembered } from '../../remembered';
import { fold } from '../../text/fold';
import { takesWhole } from '../automaton/scan';
import { shapeText, type TextShape } from '../pattern/shape';
import type { SlotDomain } from '../pattern/slot-domain';
import { type Candidate, type ChangeCode, COST, doubted, made, same } from './costs';
import { addsWords, isNearBare, likeness, likenessAll, squash, squashAll } from './near';

export type TextDomain = Extract<SlotDomain, { kind: 'text' | 'like' }>;

/** What a text in this place must be held against. */
export interface TextAround {
  /** Entries the project has for the field. */
  readonly known: readonly string[];
  /** Whether a word says something of its own: another part's value, a version, a word nobody should write. */
  readonly isClaimed: (word: string) => boolean;
}

/** A text the project has no entry for, among those it has: the project's own one value, or one of a list. */
const STRANGE = { one: 2.4, many: 1.5 } as const;
/** It is nearly one of them. */
const NEARLY = 1.8;
const CLAIMED = 2.6;

export function textCandidates(domain: TextDomain, text: string, around: TextAround): Candidate[] {
  const { known } = around;
  const meant = known.length === 0 ? [] : knownCandidates(domain, text, known);
  if (meant.some((c) => c.change === null)) return meant;
  return [...meant, ...asWritten(domain, text, around, meant.length > 0)];
}

/** The text itself, brought into the shape of its slot. */
function asWritten(domain: TextDomain, text: string, around: TextAround, isNearly: boolean): Candidate[] {
  const written = takesWhole(domain, text) ? text : domain.kind === 'text' ? shaped(domain, text) : null;
  if (written === null) return [];
  const { known } = around;
  const strange =
    known.length === 0 ? 0 : Math.max(isNearly ? NEARLY : 0, known.length === 1 ? STRANGE.one : STRANGE.many);
  const swallowed = swallowedBy(text, around.isClaimed);
  const change = written === text ? null : changeBetween(text, written);
  const cost = (change === null ? 0 : COST[change]) + strange + swallowed.cost;
  return [{ text: written, cost, change, doubtful: strange > 0 || swallowed.claims > 0 }];
}

function shaped(domain: Extract<TextDomain, { kind: 'text' }>, text: string): string | null {
  const answer = shapeText(apart(text, domain.shape), domain.shape);
  return answer.ok && takesWhole(domain, answer.text) && [...answer.text].length <= domain.max ? answer.text : null;
}

/** `ClockTower` is two words wherever a shape parts words by a mark. */
const apart = (text: string, shape: TextShape): string =>
  shape === 'as-is' || shape === 'camel' || shape === 'pascal'
    ? text
    : text.replace(/(?<=\p{Ll})(?=\p{Lu})|(?<=\p{Lu})(?=\p{Lu}\p{Ll})/gu, ' ');

const DAY = /(?<!\d)(?:19|20)\d{2}([-_.]?)[01]\d\1[0-3]\d(?!\d)/;

/** A text can swallow its neighbours: the dearer, the more separators it has, a dot above all, or another's word. */
function swallowedBy(text: string, isClaimed: TextAround['isClaimed']): { cost: number; claims: number } {
  const words = text.split(/[^\p{L}\p{N}]+/u).filter((word) => word !== '');
  // A value of several words is one as well: `harbour-lights` in a longer text.
  const runs = [...words, ...words.slice(1).map((word, i) => `${words[i]}${word}`)];
  const claims = runs.filter(isClaimed).length + (DAY.test(text) ? 1 : 0);
  const separators = Math.max(0, words.length - 2) * 0.3 + (text.includes('.') ? 1 : 0);
  return { cost: separators + claims * CLAIMED, claims };
}

/** The entries a text means: written another way, by a part of its words, with a slip. */
function knownCandidates(domain: TextDomain, text: string, known: readonly string[]): Candidate[] {
  if (known.includes(text) && takesWhole(domain, text)) return [same(text)];
  const bare = squash(text);
  if (bare === '') return [];
  const bares = squashAll(known);
  const taken = (entry: string) => takesWhole(domain, entry);
  const at = bares.indexOf(bare);
  const entry = at < 0 ? undefined : known[at];
  if (entry !== undefined && taken(entry)) return [made(entry, changeBetween(text, entry))];
  const own = likeness(bare);
  const likenesses = likenessAll(known);
  const alike = known.filter((k, i) => likenesses[i] === own && taken(k));
  if (alike.length > 0 && /[a-z]/.test(bare)) return alike.map((k) => made(k, 'characters'));
  const part = partsIn.of(known).get(bare) ?? null;
  if (part !== null && taken(part)) return [doubted(part, 'abbreviation')];
  return known
    .filter((k, i) => taken(k) && isNearBare(bare, elementAt(bares, i)) && !addsWords(text, k))
    .map((k) => doubted(k, 'spelling', COST.spelling));
}

/** A word of one entry alone, its first letters, or its words in another order; `null` where it fits several. */
const partsIn = new Remembered((known: readonly string[]): ReadonlyMap<string, string | null> => {
  const found = new Map<string, string | null>();
  for (const entry of known) {
    const words = entry
      .split(/[^\p{L}\p{N}]+/u)
      .map(squash)
      .filter((word) => word !== '');
    if (words.length < 2) continue;
    const parts = new Set([
      ...words.filter((word) => word.length > 2 && !/^\d+$/.test(word)),
      words.map((word) => word.slice(0, 1)).join(''),
      [...words].reverse().join(''),
    ]);
    for (const part of parts) found.set(part, found.has(part) ? null : entry);
  }
  return found;
});

/** The plainest name for what differs between two spellings of one text. */
function changeBetween(found: string, meant: string): ChangeCode {
  if (found.toLowerCase() === meant.toLowerCase()) return 'case';
  if (!/^[ -~]*$/.test(found) && fold(found).text !== found.normalize('NFC')) return 'accents';
  return 'separator';
}
