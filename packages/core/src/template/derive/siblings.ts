/** Folders of one parent: which have numbers in front, and which are the same folder once for each entry of a list. */

import { elementAt } from '../../element';
import { dateIn } from '../../name/dates/date-in';
import { DATE_PATTERNS, patternsOfDate } from '../../name/learn/tokens';
import type { ScalarRule } from '../../name/pattern/field';
import type { Seen } from './tree';

export interface Numbered {
  readonly folder: Seen;
  readonly number: number | null;
  /** Without its number. */
  readonly bare: string;
}

const NUMBERED = /^(\d{1,4})([_. -]{1,3})(\D.*|\d.*\D.*)$/;

/** A day or a year in front is no number: `26-03-02_pier`, `2026-03_pier`, `2026_pier`. */
const isDated = (name: string): boolean =>
  /^(?:(?:19|20)\d{2}(?:[-_.](?:0\d|1[0-2]))?(?!\d)|\d{2}[-_.]\d{2}[-_.]\d{2}(?!\d))/.test(name) ||
  dateIn(name, '2026')?.before === '';

/**
 * Numbers in front belong to the parent where most of its folders have them, of one width and with one joiner. Of two
 * folders with one number the second keeps it as a part of its name.
 */
export function numberedOf(folders: readonly Seen[]): {
  numbering: { digits: number; joiner: string } | null;
  all: Numbered[];
} {
  const found = folders.map((folder) => ({ folder, m: isDated(folder.name) ? null : NUMBERED.exec(folder.name) }));
  const marks = new Map<string, number>();
  for (const { m } of found)
    if (m) marks.set(`${m[1]?.length} ${m[2]}`, (marks.get(`${m[1]?.length} ${m[2]}`) ?? 0) + 1);
  const [best] = [...marks].sort((a, b) => b[1] - a[1]);
  if (best === undefined || best[1] < 2 || best[1] < 0.6 * folders.length)
    return { numbering: null, all: folders.map((folder) => ({ folder, number: null, bare: folder.name })) };
  const [digits, joiner] = [Number(best[0].split(' ')[0]), best[0].slice(best[0].indexOf(' ') + 1)];
  const taken = new Set<number>();
  return {
    numbering: { digits, joiner },
    all: found.map(({ folder, m }) => {
      const number = m && m[1]?.length === digits && m[2] === joiner ? Number(m[1]) : null;
      if (number === null || m === null || taken.has(number)) return { folder, number: null, bare: folder.name };
      taken.add(number);
      return { folder, number, bare: elementAt(m, 3) };
    }),
  };
}

export interface Repeated {
  readonly members: readonly Numbered[];
  /** What the entries are, and the name of a list of them. */
  readonly rule: ScalarRule;
  readonly as: string;
  /** The name as a pattern round the entry (`window-{window:A}`), and each member's entry. */
  readonly pattern: (as: string) => string;
  readonly entries: readonly string[];
}

const KINDS: Readonly<Record<string, string>> = {
  s: 'scene',
  sc: 'scene',
  sh: 'shot',
  cam: 'camera',
  c: 'camera',
  t: 'take',
  ep: 'episode',
  d: 'day',
  day: 'day',
  r: 'reel',
};

/** Siblings without numbers that are alike in name or in what they hold; two at least. */
export function repeatedOf(folders: readonly Numbered[], parent: string): Repeated | null {
  const free = folders.filter((f) => f.number === null);
  if (free.length < 2) return null;
  return byDate(free) ?? byCode(free) ?? byLetter(free, parent) ?? byContents(free, parent);
}

const most = <T>(all: readonly T[], total: number): boolean => all.length >= 2 && all.length >= 0.6 * total;

function byDate(free: readonly Numbered[]): Repeated | null {
  for (const form of DATE_PATTERNS) {
    const members = free.filter((f) => patternsOfDate(f.bare).some((other) => other.source === form.source));
    if (!most(members, free.length) || form.source !== 'yyyy-MM-dd') continue;
    return {
      members,
      rule: { type: 'date' },
      as: 'date',
      pattern: (as) => `{${as}}`,
      entries: members.map((m) => m.bare),
    };
  }
  return null;
}

/** `s01`, `cam2`: letters and a number. */
function byCode(free: readonly Numbered[]): Repeated | null {
  const by = new Map<string, Numbered[]>();
  for (const f of free) {
    const lead = /^([A-Za-z]{1,12}[_-]?)\d+$/.exec(f.bare)?.[1];
    if (lead !== undefined) by.set(lead, [...(by.get(lead) ?? []), f]);
  }
  const [best] = [...by].sort((a, b) => b[1].length - a[1].length);
  if (best === undefined || !most(best[1], free.length)) return null;
  const [lead, members] = best;
  const width = Math.min(...members.map((m) => m.bare.length - lead.length));
  const word = lead.replace(/[_-]$/, '').toLowerCase();
  return {
    members,
    rule: { type: 'text', like: lead + '0'.repeat(width) },
    as: KINDS[word] ?? word,
    pattern: (as) => `{${as}}`,
    entries: members.map((m) => m.bare),
  };
}

/** `A`, `B`, or `window-A`, `window-B`. */
function byLetter(free: readonly Numbered[], parent: string): Repeated | null {
  const by = new Map<string, Numbered[]>();
  for (const f of free) {
    const lead = /^(|.*[_ -])[A-Z]$/.exec(f.bare)?.[1];
    if (lead !== undefined) by.set(lead, [...(by.get(lead) ?? []), f]);
  }
  const [best] = [...by].sort((a, b) => b[1].length - a[1].length);
  if (best === undefined || !most(best[1], free.length)) return null;
  const [lead, members] = best;
  const word = lead.replace(/[_ -]+$/, '').toLowerCase();
  const as = /^[a-z][a-z0-9-]*$/.test(word) ? word : singular(parent) || 'letter';
  return {
    members,
    rule: { type: 'letters' },
    as,
    pattern: (key) => `${lead}{${key}:A}`,
    entries: members.map((m) => m.bare.slice(lead.length)),
  };
}

/** Any names, but the same folders in each. */
function byContents(free: readonly Numbered[], parent: string): Repeated | null {
  const by = new Map<string, Numbered[]>();
  for (const f of free) {
    const signature = signatureOf(f.folder, 2);
    if (signature !== '') by.set(signature, [...(by.get(signature) ?? []), f]);
  }
  const [best] = [...by].sort((a, b) => b[1].length - a[1].length);
  if (best === undefined) return null;
  const [, seeds] = best;
  // Those that hold mostly the same are of them too: not every one is finished, and some have something odd in them.
  const words = new Set(seeds.flatMap((s) => s.folder.folders.map((f) => generic(f.name))));
  // A name of another kind among them is a slip, and stands alone.
  const named = free.filter((f) => /^[a-z0-9]+(-[a-z0-9]+)*$/.test(f.bare));
  const members = named.filter(
    (f) =>
      seeds.includes(f) ||
      (f.folder.folders.length > 0 &&
        f.folder.folders.filter((inner) => words.has(generic(inner.name))).length >= 0.7 * f.folder.folders.length),
  );
  if (seeds.length < 2 || !most(members, free.length) || members.length < 2) return null;
  const longest = Math.max(...members.map((m) => m.bare.length));
  return {
    members,
    rule: { type: 'text', max: Math.max(24, Math.ceil(longest / 8) * 8) },
    as: singular(parent) || 'part',
    pattern: (as) => `{${as}:kebab}`,
    entries: members.map((m) => m.bare),
  };
}

/** What a folder holds, by words alone: `s01` and `s02` are one thing. */
function signatureOf(folder: Seen, depth: number): string {
  if (depth === 0) return '';
  return [...new Set(folder.folders.map((f) => `${generic(f.name)}(${signatureOf(f, depth - 1)})`))].sort().join(',');
}

const generic = (name: string): string =>
  patternsOfDate(name).length > 0 ? '#date' : /^[A-Z]$/.test(name) ? '#letter' : name.replace(/\d+/g, '#');

export function singular(word: string): string {
  const bare = word.toLowerCase().replace(/[^a-z]/g, '');
  return bare.endsWith('ies')
    ? `${bare.slice(0, -3)}y`
    : bare.endsWith('s') && bare.length > 3
      ? bare.slice(0, -1)
      : bare;
}
