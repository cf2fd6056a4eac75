/**
 * The words by which people call what a project has: entries of its lists, codes of its conventions with their labels
 * and abbreviations, people, the client, the title, the number. Each in the ways it is written.
 */
import type { Choice, ListField } from '../../name/pattern/field';
import type { ProjectRules } from '../../project/rules';
import { isExchanged } from '../../text/exchanged';
import { singular, type Token, tokensOf } from './said';

export interface Meaning {
  /** As slots and folders call it. */
  readonly field: string;
  /** As it is given: an entry, a code, initials. */
  readonly value: string;
}

export interface Found extends Meaning {
  /** Written with a slip, or in a way that may mean something else. */
  readonly isSlip: boolean;
}

/** Words one thing may have. */
const MOST_WORDS = 6;
const MOST_ENTRIES = 2000;

export class Vocabulary {
  private readonly words = new Map<string, Meaning[]>();
  /** Words in front of digits that count something: `take`, `T`, `shot`. */
  readonly counters = new Map<string, string>();
  private readonly long: string[];
  /** The word that a slip is of; `null` for none, or several. */
  private readonly slips = new Map<string, string | null>();

  constructor(rules: ProjectRules) {
    this.lists(rules);
    this.conventions(rules);
    this.people(rules);
    this.project(rules);
    this.long = [...this.words.keys()].filter((key) => key.length >= 4 && !/^\d+$/.test(key));
  }

  /** What the words from `at` mean, the longest stretch first; `null` where they mean nothing. */
  at(tokens: readonly Token[], at: number): { readonly found: readonly Found[]; readonly count: number } | null {
    const most = Math.min(MOST_WORDS, tokens.length - at);
    const keys: string[] = [];
    for (let count = 0; count < most; count++) keys.push((keys[count - 1] ?? '') + (tokens[at + count]?.key ?? ''));
    for (let count = most; count > 0; count--) {
      const known = this.words.get(keys[count - 1] ?? '');
      if (known === undefined) continue;
      const some = tokens.slice(at, at + count);
      if (isChance(some)) continue;
      return { found: known.map((meaning) => ({ ...meaning, isSlip: isUnsure(meaning, some) })), count };
    }
    return this.bySlip(tokens, at);
  }

  /** A single word that is one slip from one that is known, and from no other. */
  private bySlip(tokens: readonly Token[], at: number) {
    const key = tokens[at]?.key ?? '';
    if (key.length < 4 || tokens[at]?.isDigits) return null;
    const meant = this.meantBy(key);
    if (meant === null) return null;
    return { found: (this.words.get(meant) ?? []).map((meaning) => ({ ...meaning, isSlip: true })), count: 1 };
  }

  private meantBy(key: string): string | null {
    const known = this.slips.get(key);
    if (known !== undefined) return known;
    const near = this.long.filter((word) => isOneSlip(key, word));
    const meant = near.length === 1 ? (near[0] ?? null) : null;
    this.slips.set(key, meant);
    return meant;
  }

  private add(text: string, meaning: Meaning): void {
    this.addKey(
      tokensOf(text)
        .map((token) => token.key)
        .join(''),
      meaning,
    );
  }

  private addKey(key: string, meaning: Meaning): void {
    if (key === '') return;
    const known = this.words.get(key);
    if (known === undefined) this.words.set(key, [meaning]);
    else if (!known.some(({ field, value }) => field === meaning.field && value === meaning.value)) known.push(meaning);
  }

  /** `west-front`; `s03`, `scene 3`, `sc3`; `station 5`; `cam a`. */
  private lists(rules: ProjectRules): void {
    const names = namesOfLists(rules);
    for (const field of rules.template.fields) {
      if (field.type !== 'list' || field.of.type === 'date') continue;
      const entries = (rules.expansion.values.lists.get(field.key)?.all ?? []).slice(0, MOST_ENTRIES);
      for (const as of names.get(field.key) ?? []) for (const entry of entries) this.entry(field, as, entry);
    }
  }

  private entry(field: ListField, as: string, entry: string): void {
    const meaning = { field: as, value: entry };
    const digits = /\d+/.exec(entry)?.[0];
    const isShort = entry.length <= 2;
    if (field.of.type !== 'count') this.add(entry, meaning);
    const tail = field.of.type === 'count' ? entry : isShort ? entry : null;
    const counted = field.of.like === undefined ? tail : (digits ?? null);
    if (counted === null) return;
    for (const head of headsOf(as)) this.add(`${head} ${counted}`, meaning);
  }

  private conventions(rules: ProjectRules): void {
    for (const { fields = [], pattern } of rules.template.conventions)
      for (const field of fields) {
        if (field.type === 'choice') for (const option of field.options ?? []) this.option(rules, field.key, option);
        if (field.type !== 'count') continue;
        for (const head of headsOf(field.key)) this.counters.set(head, field.key);
        const literal = new RegExp(`([A-Za-z])\\{${field.key}[:}]`).exec(pattern)?.[1];
        if (literal !== undefined) this.counters.set(literal.toLowerCase(), field.key);
      }
    for (const field of rules.template.fields)
      if (field.type === 'choice') for (const option of field.options ?? []) this.option(rules, field.key, option);
  }

  private option(rules: ProjectRules, field: string, { code, label, also = [] }: Choice): void {
    const meaning = { field, value: code };
    const long = rules.registers.abbreviations.filter((a) => a.short === code).map((a) => a.long);
    for (const text of [code, label ?? '', ...also, ...long]) {
      this.add(text, meaning);
      // Cut short, as one says it.
      const [word, ...more] = tokensOf(text);
      if (more.length === 0 && word !== undefined && word.key.length >= 6) this.addKey(word.key.slice(0, 4), meaning);
    }
  }

  private people({ registers }: ProjectRules): void {
    for (const { initials, name } of registers.people) {
      const meaning = { field: 'person', value: initials };
      this.add(initials, meaning);
      this.add(name, meaning);
      const first = tokensOf(name)[0]?.key ?? '';
      const isOnly = registers.people.filter((p) => tokensOf(p.name)[0]?.key === first).length === 1;
      if (isOnly && first.length > 2) this.addKey(first, meaning);
    }
  }

  private project(rules: ProjectRules): void {
    const { title } = rules.expansion.values.values;
    if (rules.number !== undefined) this.add(rules.number, { field: 'number', value: rules.number });
    if (typeof title === 'string') this.add(title, { field: 'title', value: title });
    const client = rules.registers.clients.find((c) => c.code === rules.client);
    if (client !== undefined)
      for (const text of [client.code, client.name]) this.add(text, { field: 'client', value: client.code });
  }
}

/** What slots and folders call a list's entries. */
export function namesOfLists(rules: ProjectRules): ReadonlyMap<string, readonly string[]> {
  const names = new Map<string, Set<string>>();
  for (const field of rules.template.fields)
    if (field.type === 'list') names.set(field.key, new Set([singular(field.key)]));
  for (const { folder } of rules.expansion.lines)
    if (folder?.onePer !== undefined) names.get(folder.onePer.list)?.add(folder.onePer.as);
  return new Map([...names].map(([list, as]) => [list, [...as]]));
}

/** A word, and how it is cut short: `scene`, `sc`, `sce`; `camera`, `cam`. */
function headsOf(word: string): readonly string[] {
  const [first] = tokensOf(word);
  if (first === undefined) return [];
  return [word, ...[2, 3].filter((n) => n < first.key.length).map((n) => first.key.slice(0, n))];
}

/** Letters and digits that only happen to read: parts of words, digits of a device. */
function isChance(tokens: readonly Token[]): boolean {
  const text = tokens.map((token) => token.text).join('');
  return text.length <= 2 && tokens.length === 1 && !tokens[0]?.isWhole;
}

/** Initials in small letters may be a word of the language. */
const isUnsure = ({ field, value }: Meaning, tokens: readonly Token[]): boolean =>
  field === 'person' && tokens.length === 1 && value.length <= 3 && tokens[0]?.text === value.toLowerCase();

/** One letter more, less or other, or two exchanged. */
function isOneSlip(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false;
  if (a.length === b.length && isExchanged(a, b)) return true;
  let at = 0;
  while (at < a.length && at < b.length && a[at] === b[at]) at++;
  const [restA, restB] = [a.slice(at), b.slice(at)];
  return restA.slice(1) === restB.slice(1) || restA.slice(1) === restB || restA === restB.slice(1);
}
