/** Parts of a broken name that can be told wherever they stand: a version, the number, a code, a day, a known entry. */
import { ownValue } from '../../own-value';
import type { CompiledConvention, CompiledSlot } from '../pattern/ops';
import type { Asked } from './align';
import { candidatesFor } from './candidates';
import { COST } from './costs';
import { countsIn, VERSION_WORDS } from './habit-words';
import { squash } from './near';

export interface Found {
  readonly slot: CompiledSlot;
  readonly at: number;
  readonly end: number;
  /** As it is written in its place. */
  readonly text: string;
  readonly cost: number;
  readonly doubtful: boolean;
}

/** Words that may make up one part: a day in words, a title. */
const MOST_WORDS = 3;

export function partsFound(convention: CompiledConvention, asked: Asked, name: string): Found[] {
  const dot = name.lastIndexOf('.');
  const stem = dot > 0 ? name.slice(0, dot) : name;
  const tokens = [...stem.matchAll(/[^_ .]+|(?<=\d)\.(?=\d)/g)].filter((m) => m[0] !== '.');
  const hyphened = [...stem.matchAll(/[^_ .-]+/g)];
  // `v11nl`, `v003AP`: parts that are glued together.
  const glued = [...stem.matchAll(/\p{L}+|\d+/gu)];
  const found: Found[] = [];
  for (const { slot, head } of slotsOf(convention))
    for (const words of [tokens, hyphened, glued])
      for (let i = 0; i < words.length; i++)
        for (let j = i; j < Math.min(words.length, i + MOST_WORDS); j++) {
          const [first, last] = [words[i], words[j]];
          if (first === undefined || last === undefined) continue;
          const at = first.index;
          const end = last.index + last[0].length;
          const part = partIn(slot, head, name.slice(at, end), asked);
          if (part !== null && !found.some((f) => f.slot === slot && f.at === at && f.end === end))
            found.push({ slot, at, end, ...part });
        }
  return found.sort((a, b) => a.cost - b.cost || b.end - b.at - (a.end - a.at));
}

/** Slots whose values can be told, with the word of the pattern in front of their number. */
function slotsOf(convention: CompiledConvention): { slot: CompiledSlot; head: string | null }[] {
  return convention.ops.flatMap((op, i) => {
    if (op.kind !== 'slot' || (op.slot.domain.kind === 'fixed' && op.slot.domain.of === 'ext')) return [];
    const before = convention.ops[i - 1];
    const head = before?.kind === 'literal' ? (/\p{L}+$/u.exec(before.text)?.[0] ?? null) : null;
    return [{ slot: op.slot, head }];
  });
}

/** The part, where a text is it beyond doubt. */
function partIn(
  slot: CompiledSlot,
  head: string | null,
  text: string,
  { around }: Asked,
): Pick<Found, 'text' | 'cost' | 'doubtful'> | null {
  const { domain, field } = slot;
  if (domain.kind === 'digits' || domain.kind === 'letters') {
    // A bare number is no part that can be told: its word must stand before it.
    const m = /^(\p{L}+)[._-]?(\d+|\p{L})$/u.exec(text) ?? /^(\p{L}+?)(\p{Lu})$/u.exec(text);
    if (m === null || !isHead(m[1] ?? '', head, field)) return null;
    return best(candidatesFor(slot, m[2] ?? '', around));
  }
  if (domain.kind === 'text') {
    const known =
      ownValue(around.context.bound, field) === undefined
        ? (ownValue(around.context.known, field) ?? [])
        : [String(ownValue(around.context.bound, field))];
    if (!known.some((entry) => squash(entry) === squash(text))) return null;
  }
  // A bare number may be a scene's, and many other things.
  if (domain.kind === 'like' && !/^\p{L}/u.test(text)) return null;
  if (domain.kind === 'date' && text.replace(/\D/g, '').length < 5) return null;
  return best(candidatesFor(slot, text, around));
}

function isHead(word: string, head: string | null, field: string): boolean {
  const bare = squash(word);
  if (head !== null && bare === squash(head)) return true;
  if (field === 'version') return VERSION_WORDS.has(bare);
  return head === null ? bare.length > 2 && countsIn(word, field) : countsIn(word, field) && bare.length > 1;
}

/** Written otherwise at most: slips are no proof of what something is. */
function best(candidates: ReturnType<typeof candidatesFor>): Pick<Found, 'text' | 'cost' | 'doubtful'> | null {
  const [first, second] = [...candidates].sort((a, b) => a.cost - b.cost);
  if (first === undefined || first.cost > COST.abbreviation + 0.3 || (first.doubtful && first.change !== null))
    return null;
  if (second !== undefined && second.cost === first.cost) return null;
  return { text: first.text, cost: first.cost, doubtful: first.doubtful };
}
