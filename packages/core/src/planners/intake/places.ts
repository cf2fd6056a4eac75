/**
 * Folders of a plan that a loose file may belong in, best first, each with what speaks for it.
 *
 * Each thing that speaks for a folder counts so much: its name read by the folder's own convention most, then entries
 * and days that the file names, then the folder's own words, then values its convention asks for. What contradicts
 * (another entry of the same list, another day) leaves a folder out.
 */

import { nameOf, parentOf } from '../../listing/entry';
import type { Slot } from '../../name/pattern/ast';
import type { CompiledConvention } from '../../name/pattern/ops';
import { ownValue } from '../../own-value';
import type { FolderConvention } from '../../project/folder-convention';
import { isForGenerated, type ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';
import type { Recognised } from './recognise';
import { singular, tokensOf } from './said';
import { type Found, namesOfLists } from './vocabulary';

export const PLACE_REASONS = ['name', 'form', 'entry', 'day', 'night', 'word', 'purpose', 'code', 'side'] as const;
export interface PlaceReason {
  readonly code: (typeof PLACE_REASONS)[number];
  /** The entry, day or word that speaks for it. */
  readonly value: string;
}

export interface Candidate {
  readonly line: PlannedLine;
  readonly score: number;
  /** Every entry of it is known, not only possible. */
  readonly isDetermined: boolean;
  /** The project does not have it yet: an entry has to be added. */
  readonly isNew: boolean;
  readonly reasons: readonly PlaceReason[];
}

/** What each thing that speaks for a folder counts. */
const COUNTS = {
  ownName: 12,
  entry: 3,
  entrySlip: 2,
  night: 2,
  word: 3,
  partOfWord: 1.5,
  purpose: 1.25,
  form: 3,
  code: 2,
  value: 1,
  missing: -1,
  newEntry: -1,
  unused: -0.5,
} as const;

const MOST_TRIED = 4000;
const MOST_CANDIDATES = 8;

export class Places {
  private readonly byExt = new Map<string, readonly PlannedLine[]>();
  private readonly known = new Map<string, readonly Candidate[]>();
  private readonly wordsOf = new Map<string, LineWords>();
  private readonly allWords: ReadonlySet<string>;
  private readonly lines: readonly PlannedLine[];
  /** What slots call the entries of lists. */
  private readonly listFields: readonly string[];
  private readonly isListed = (field: string): boolean => this.listFields.includes(field);

  /** @param isNew - whether the project does not have a folder yet */
  constructor(
    private readonly rules: ProjectRules,
    private readonly isNew: (line: PlannedLine) => boolean,
  ) {
    this.listFields = [...new Set([...namesOfLists(rules).values()].flat())];
    this.lines = rules.expansion.lines.filter((line) => line.kind === 'folder' && line.elsewhere === undefined);
    this.allWords = new Set(
      this.lines.flatMap((line) => [...this.words(line).own.flat(), ...this.words(line).purpose]),
    );
  }

  of(file: Recognised): readonly Candidate[] {
    const name = nameOf(file.file.path);
    const home = file.lie === null ? this.rules.homeOf(name) : null;
    const key = this.keyOf(file);
    let found = this.known.get(key);
    if (found === undefined) {
      found = this.candidates(file);
      this.known.set(key, found);
    }
    if (home === null || home.elsewhere !== undefined) return found;
    const own = this.candidate(file, home, COUNTS.ownName, [{ code: 'name', value: name }]);
    return own === null ? found : [own, ...found.filter(({ line }) => line !== home)];
  }

  /** Of files with one key every folder says the same. */
  private keyOf({ family, ext, form, when, tail, rest, given, counts, said, words }: Recognised): string {
    let key = `${family}|${ext}|${form}|${when?.day}|${when?.isUnsure}|${when?.time?.slice(0, 2)}`;
    key += `|${tail !== null}|${rest.length > 0}|${[...given]}|${[...counts.keys()]}`;
    for (const [field, found] of said) {
      key += `\0${field}`;
      for (const { value, isSlip } of found) key += `\0${value}\0${isSlip}`;
    }
    const spoken: string[] = [];
    for (const word of words) if (this.allWords.has(word)) spoken.push(word);
    return `${key}\0\0${spoken.sort()}`;
  }

  /** Folders for cards. */
  forCards(file: Recognised): readonly Candidate[] {
    return this.lines
      .filter((line) => line.folder?.cards === true)
      .flatMap((line) => this.candidate(file, line, 0, []) ?? [])
      .sort((a, b) => b.score - a.score || (a.line.path < b.line.path ? -1 : 1))
      .slice(0, MOST_CANDIDATES);
  }

  private candidates(file: Recognised): readonly Candidate[] {
    return this.taking(file.family, file.ext)
      .slice(0, MOST_TRIED)
      .flatMap((line) => this.candidate(file, line, 0, []) ?? [])
      .filter(({ line, reasons }) => !line.rules.free || reasons.some(({ code }) => code === 'word'))
      .sort((a, b) => b.score - a.score || Number(a.isNew) - Number(b.isNew) || (a.line.path < b.line.path ? -1 : 1))
      .slice(0, MOST_CANDIDATES);
  }

  /** Folders that take files of this kind; what anything goes in takes them where its own name is said. */
  private taking(family: string | null, ext: string): readonly PlannedLine[] {
    const key = `${family}\0${ext}`;
    const known = this.byExt.get(key);
    if (known !== undefined) return known;
    const found = this.lines.filter((line) => {
      if (line.folder?.cards || line.path === '') return false;
      if (family !== null && line.rules.accepts?.includes(family)) return true;
      if (line.rules.free) return isForGenerated(line) === (family === 'generated');
      return line.rules.accepts === null && this.rules.conventionsIn(line).some((c) => c.extensions?.has(ext) === true);
    });
    this.byExt.set(key, found);
    return found;
  }

  /** `null` where something contradicts. */
  private candidate(file: Recognised, line: PlannedLine, own: number, first: readonly PlaceReason[]): Candidate | null {
    const reasons = [...first];
    const isNew = this.isNew(line);
    // What a person gave is meant, whether it is there or not.
    const isMeant = Object.keys(line.entries).some((as) => file.given.has(as));
    const isAdded = isNew && !isMeant;
    let score = own + (isAdded ? COUNTS.newEntry : 0);
    let isDetermined = true;
    for (const [as, entry] of Object.entries(line.entries)) {
      const spoken = this.entry(file, as, entry);
      if (spoken === null) return null;
      // A day that would have to be added speaks for itself alone.
      score += isAdded && this.isDay(as) ? 0 : spoken.counts;
      isDetermined &&= spoken.isKnown;
      reasons.push(...spoken.reasons);
    }
    const worded = this.worded(file, line);
    reasons.push(...worded.reasons);
    const valued = this.valued(file, line);
    if (valued === null) return null;
    reasons.push(...valued.reasons);
    const unused = this.listFields.filter((as) => file.said.has(as) && !this.uses(line, file, as)).length;
    score += worded.counts + valued.counts + unused * COUNTS.unused;
    return { line, score, isDetermined: isDetermined || own > 0, isNew: isAdded, reasons };
  }

  /** Whether an entry that is said has a place in the folder, or in names there. */
  private uses(line: PlannedLine, file: Recognised, as: string): boolean {
    if (ownValue(line.entries, as) !== undefined) return true;
    return this.rules
      .conventionsFor(line, `x.${file.ext}`)
      .some(({ strict }) => strict.slots.some(({ field }) => field === as));
  }

  private entry(file: Recognised, as: string, entry: string): Spoken | null {
    if (this.isDay(as)) return this.day(file, entry);
    const said = file.said.get(as) ?? [];
    const same = said.find(({ value }) => value === entry);
    if (same !== undefined) {
      const counts = same.isSlip ? COUNTS.entrySlip : COUNTS.entry;
      return { counts, isKnown: true, reasons: [{ code: 'entry', value: entry }] };
    }
    if (said.length > 0) return null;
    const isOnly = (this.rules.expansion.values.lists.get(this.rules.listOfEntry(as) ?? '')?.all.length ?? 0) === 1;
    return { counts: 0, isKnown: isOnly, reasons: [] };
  }

  private isDay(as: string): boolean {
    const list = this.rules.listOfEntry(as);
    const field = this.rules.template.fields.find((f) => f.key === list);
    return field?.type === 'list' && field.of.type === 'date';
  }

  /** What is made after midnight may belong to the night before. */
  private day({ when }: Recognised, entry: string): Spoken | null {
    if (when === null) return { counts: 0, isKnown: false, reasons: [] };
    if (when.day === entry)
      return { counts: COUNTS.entry, isKnown: !when.isUnsure, reasons: [{ code: 'day', value: entry }] };
    if (when.time !== null && when.time < NIGHT_ENDS && dayAfter(entry) === when.day)
      return { counts: COUNTS.night, isKnown: false, reasons: [{ code: 'night', value: entry }] };
    return null;
  }

  /** Words of the folder's own name, and of those above it, that the path says. */
  private worded(file: Recognised, line: PlannedLine): Omit<Spoken, 'isKnown'> {
    const { own, purpose } = this.words(line);
    const reasons: PlaceReason[] = [];
    let counts = 0;
    own.forEach((words, depth) => {
      const isJoined = words.length > 1 && file.words.has(words.join(''));
      const said = isJoined ? words : words.filter((word) => file.words.has(word));
      if (said.length === 0) return;
      const whole = said.length === words.length ? COUNTS.word : COUNTS.partOfWord;
      counts += depth === 0 ? whole : whole / 2;
      reasons.push({ code: 'word', value: said.join(' ') });
    });
    const meant = purpose.find((word) => file.words.has(word));
    if (meant !== undefined) {
      counts += COUNTS.purpose;
      reasons.push({ code: 'purpose', value: meant });
    }
    return { counts, reasons };
  }

  private words(line: PlannedLine): LineWords {
    const known = this.wordsOf.get(line.key);
    if (known !== undefined) return known;
    const own: (readonly string[])[] = [];
    for (let at = line.path; at !== ''; at = parentOf(at)) {
      const planned = this.rules.planned(at);
      // A folder for each entry is known by its entry.
      if (planned?.folder?.onePer !== undefined) continue;
      const words = tokensOf(nameOf(at)).filter((token) => !token.isDigits);
      own.push(words.map((token) => singular(token.key)));
    }
    const purpose = tokensOf(line.folder?.purpose ?? '').map((token) => singular(token.key));
    const made = { own, purpose: purpose.filter((word) => word.length > 3 && !own[0]?.includes(word)) };
    this.wordsOf.set(line.key, made);
    return made;
  }

  /** Of the folder's conventions the one that the file says most of. `null` where all of them are contradicted. */
  private valued(file: Recognised, line: PlannedLine): Omit<Spoken, 'isKnown'> | null {
    const conventions = this.rules.conventionsFor(line, `x.${file.ext}`);
    if (conventions.length === 0) return { counts: 0, reasons: [] };
    const ofForm = conventions.find(({ convention }) => convention.id === file.form);
    if (ofForm !== undefined)
      return { counts: COUNTS.form, reasons: [{ code: 'form', value: ofForm.convention.name }] };
    const spoken = conventions.flatMap((by) => valuesFor({ file, line, by, isListed: this.isListed }) ?? []);
    return spoken.sort((a, b) => b.counts - a.counts)[0] ?? null;
  }
}

interface Spoken {
  readonly counts: number;
  readonly isKnown: boolean;
  readonly reasons: readonly PlaceReason[];
}

interface LineWords {
  /** Of the folder itself, then of those above it. */
  readonly own: readonly (readonly string[])[];
  readonly purpose: readonly string[];
}

const NIGHT_ENDS = '05:00:00';
const dayAfter = (day: string): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);

/** Slots that stand in no optional group. */
export function neededSlots({ parts }: CompiledConvention): readonly Slot[] {
  return parts.filter((part): part is Slot => part.kind === 'slot');
}

/** Always known, counted on, or made up by the folder. */
const GIVEN: ReadonlySet<string> = new Set(['number', 'client', 'title', 'ext', 'version']);

interface Valued {
  readonly file: Recognised;
  readonly line: PlannedLine;
  readonly by: FolderConvention;
  /** Whether a field holds an entry of a list: words left over are none. */
  readonly isListed: (field: string) => boolean;
}

function valuesFor({ file, line, by: { strict }, isListed }: Valued): Omit<Spoken, 'isKnown'> | null {
  const reasons: PlaceReason[] = [];
  let counts = 0;
  for (const slot of neededSlots(strict)) {
    if (GIVEN.has(slot.field) || ownValue(line.entries, slot.field) !== undefined) continue;
    const domain = strict.domains.get(slot);
    if (domain?.kind === 'digits' && slot.field !== 'frame') continue;
    const said = saidIn(file, slot.field);
    const options = domain?.kind === 'fixed' && domain.of === 'choice' ? domain.entries : null;
    if (options !== null) {
      const option = said.find(({ value }) => options.some((entry) => String(entry.value) === value));
      if (option !== undefined) {
        counts += COUNTS.code;
        reasons.push({ code: 'code', value: option.value });
        continue;
      }
      if (said.length > 0) return null;
    }
    const isKnown = said.length > 0 || isSaid(file, slot.field, isListed(slot.field) ? 'listed' : domain?.kind);
    counts += isKnown ? COUNTS.value : COUNTS.missing;
  }
  return { counts, reasons };
}

export const saidIn = (file: Recognised, field: string): readonly Found[] => file.said.get(field) ?? [];

function isSaid(file: Recognised, field: string, kind: string | undefined): boolean {
  if (kind === 'date') return file.when !== null;
  if (field === 'frame') return file.tail !== null || file.counts.has(field);
  return kind === 'text' && file.rest.length > 0;
}
