/** Words that say something of their own in a name: a free text should not swallow them. */
import { ownValue } from '../../own-value';
import { Bounded } from '../../remembered';
import type { CompiledConvention } from '../pattern/ops';
import type { Around } from './candidates';
import type { NameContext } from './costs';
import { isAside, isBanned, isCopyWord, VERSION_WORDS } from './habit-words';
import { squash } from './near';

/** Shorter words stand for too much. */
const LEAST = { code: 2, label: 4, known: 3 } as const;

const MOST_ANSWERS = 5000;

const known = new WeakMap<CompiledConvention, WeakMap<NameContext, Around>>();

/** Worked out once for a convention and a folder. */
export function aroundOf(convention: CompiledConvention, context: NameContext): Around {
  const by = known.get(convention) ?? new WeakMap<NameContext, Around>();
  known.set(convention, by);
  const around = by.get(context) ?? aroundAnew(convention, context);
  by.set(context, around);
  return around;
}

function aroundAnew(convention: CompiledConvention, context: NameContext): Around {
  const claimed = new Map<string, Set<string>>();
  const claim = (word: string, field: string, least: number) => {
    const bare = squash(word);
    if (bare.length < least) return;
    const fields = claimed.get(bare) ?? new Set();
    claimed.set(bare, fields.add(field));
  };
  for (const { field, domain } of convention.slots) {
    if (domain.kind === 'fixed')
      for (const entry of domain.entries) {
        claim(entry.text, field, LEAST.code);
        for (const word of entry.also) claim(word, field, LEAST.label);
      }
    for (const entry of ownValue(context.known, field) ?? []) claim(entry, field, LEAST.known);
    const bound = ownValue(context.bound, field);
    if (bound !== undefined) claim(String(bound), field, LEAST.code);
  }
  const heads = countedIn(convention);
  const ownWords = new Map<string, ReadonlySet<string>>();
  const ownOf = (field: string) => {
    const known = ownWords.get(field);
    if (known !== undefined) return known;
    const bound = ownValue(context.bound, field);
    const entries = [...(ownValue(context.known, field) ?? []), ...(bound === undefined ? [] : [String(bound)])];
    const words = new Set(entries.flatMap((entry) => [entry, ...entry.split(/[^\p{L}\p{N}]+/u)]).map(squash));
    ownWords.set(field, words);
    return words;
  };
  const hasVersion = convention.slots.some((s) => s.field === 'version');
  const answers = new Bounded(MOST_ANSWERS, (asked) => {
    const at = asked.indexOf('\0');
    return isClaimedBy(asked.slice(at + 1), asked.slice(0, at));
  });
  const isClaimedBy = (word: string, field: string): boolean => {
    const bare = squash(word);
    if (ownOf(field).has(bare)) return false;
    if (isBanned(word, context.banned) || isCopyWord(word) || isAside(word)) return true;
    const version = /^([a-z]+)\d/.exec(bare);
    if (hasVersion && version !== null && VERSION_WORDS.has(version[1] ?? '')) return true;
    if (heads.some((head) => head.field !== field && head.form.test(bare))) return true;
    const fields = claimed.get(bare);
    return fields !== undefined && [...fields].some((other) => other !== field);
  };
  return { context, isClaimed: (word, field) => answers.of(`${field}\0${word}`), candidates: new Map() };
}

/** `T04`, `p3`, `s03`: the word of the pattern in front of a number, and a number. */
function countedIn(convention: CompiledConvention): { readonly field: string; readonly form: RegExp }[] {
  return convention.ops.flatMap((op, i) => {
    if (op.kind !== 'slot') return [];
    const { domain, field } = op.slot;
    const before = convention.ops[i - 1];
    const head =
      domain.kind === 'digits' && before?.kind === 'literal'
        ? /\p{L}+$/u.exec(before.text)?.[0]
        : domain.kind === 'like' && domain.pieces[0]?.kind === 'literal'
          ? /^\p{L}+$/u.exec(domain.pieces[0].text)?.[0]
          : undefined;
    const bare = squash(head ?? '');
    return bare === '' ? [] : [{ field, form: new RegExp(`^${bare}[0-9]+$`) }];
  });
}
