import { join } from '../../listing/entry';
import type { Explanation } from '../../name/mend/suggest';
import { readName, spansOf } from '../../name/read/read';
import { ownValue } from '../../own-value';
import type { FolderConvention } from '../../project/folder-convention';
import { frameless } from '../../project/frameless';
import type { ProjectRules } from '../../project/rules';
import { nameFinding } from '../name-causes';
import { rule } from '../rule';
import { ABOUT_NAME } from './name-mismatch';

/**
 * A banned word as a whole word of the name, where that is all that is wrong: also where a free text takes it, and where
 * no rule for names is.
 */
export const bannedWord = rule({
  code: 'banned-word',
  ...ABOUT_NAME,
  file: (c) => {
    if (c.conventions.length > 0) return nameFinding(c, 'banned-word');
    const said = saidOf(c.rules, c.file.name, null);
    return said === null ? null : { path: c.path, ...said };
  },
  folder: ({ rules, listing, state, items }) => {
    if (state.kind !== 'planned' || rules.registers.banned.length === 0) return [];
    const runs = items.runs.map(({ first, by }) => ({ name: first, by }));
    const read = items.read.map(({ file, by }) => ({ name: file.name, by }));
    return [...read, ...runs].flatMap(({ name, by }) => {
      const said = saidOf(rules, name, by);
      const path = join(listing.path, name);
      return said === null ? [] : [{ path, ...frameless(by.strict, path), ...said }];
    });
  },
});

interface Stretch {
  readonly at: number;
  readonly end: number;
}

/**
 * Where people write freely: what the pattern says, codes, and entries of the project are so by right. Without a rule
 * that is the whole name.
 */
function freeIn(name: string, by: FolderConvention | null): Stretch[] {
  if (by === null) return [{ at: 0, end: name.length }];
  const { strict, bound, context } = by;
  return (spansOf(strict, name, 1, bound)[0] ?? []).filter(({ field, value }) => {
    const domain = strict.slots.find((slot) => slot.field === field)?.domain;
    return (
      domain?.kind === 'text' &&
      ownValue(bound, field) === undefined &&
      !ownValue(context.known, field)?.includes(String(value))
    );
  });
}

/** The banned words with their places. Most names hold none, whole or not: they are answered at once. */
function bannedIn({ registers: { banned } }: ProjectRules, name: string, by: FolderConvention | null) {
  const lower = name.toLowerCase();
  if (!banned.some((word) => lower.includes(word.toLowerCase()))) return [];
  const listed = new Set(banned.map((word) => word.toLowerCase()));
  return freeIn(name, by).flatMap(({ at, end }) =>
    [...name.slice(at, end).matchAll(/[\p{L}\p{N}]+/gu)].flatMap((m) =>
      listed.has(m[0].toLowerCase()) ? [{ word: m[0], at: at + m.index, within: { at, end } }] : [],
    ),
  );
}

/** The name without the words is proposed where it is still one. */
function saidOf(rules: ProjectRules, name: string, by: FolderConvention | null) {
  const words = bannedIn(rules, name, by);
  if (words.length === 0) return null;
  let clean = name;
  for (const { word, at, within } of [...words].reverse()) {
    const before = /[^\p{L}\p{N}.]*$/u.exec(clean.slice(within.at, at))?.[0].length ?? 0;
    const after = /^[^\p{L}\p{N}.]*/u.exec(clean.slice(at + word.length))?.[0].length ?? 0;
    // A word goes with the separator before it, or behind it where it is the first.
    const [from, to] = before > 0 ? [at - before, at + word.length] : [at, at + word.length + after];
    clean = clean.slice(0, from) + clean.slice(to);
  }
  const isName = /^[^.]+\../.test(clean) && (by === null || readName(by.strict, clean, by.bound) !== null);
  const explanation: Explanation = {
    problems: words.map(({ word, at }) => ({
      part: null,
      at,
      length: word.length,
      found: word,
      expected: { code: 'nothing', params: {} },
      change: 'banned-word',
      meant: null,
    })),
    suggestions: isName
      ? [
          {
            name: clean,
            confidence: 'likely',
            changes: words.map(({ word }) => ({ code: 'banned-word', part: null, from: word, to: '' })),
          },
        ]
      : [],
    stretches: [],
  };
  const params = { name, convention: by?.convention.name ?? '', pattern: by?.convention.pattern ?? '' };
  return { params, explanation };
}
