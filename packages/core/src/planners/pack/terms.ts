/**
 * What licensed material may be used for, until when, and who may have it, as its notes say. A note is a text with one
 * line for each, as the program writes it to be filled in; what somebody wrote otherwise is passed over.
 */
import { NOTE } from '../../check/rules/licence-missing';
import { join, nameOf, parentOf } from '../../listing/entry';
import { daysMeant } from '../../name/mend/days';
import { wordsIn } from '../../name/whole-words';
import type { ProjectRules } from '../../project/rules';

export interface Terms {
  readonly use: string;
  /** As it is written. */
  readonly until: string;
  /** The last day it may be used, ISO 8601; `null` where none can be read. */
  readonly day: string | null;
  readonly givenTo: string;
}

export interface LicensedItem extends Terms {
  /** From the project's root. */
  readonly path: string;
  /** Where its terms stand; `null` where no note is beside it. */
  readonly note: string | null;
}

const LABELS = {
  material: 'Material',
  source: 'Source',
  licence: 'Licence',
  use: 'May be used for',
  until: 'May be used until',
  givenTo: 'May be given to',
} as const;

/** To be filled in. */
export const noteFor = (name: string): string =>
  Object.values(LABELS)
    .map((label) => `${label}: ${label === LABELS.material ? name : ''}\n`)
    .join('');

/** @param year - the one that is meant where a day is written without it */
export function termsIn(note: string, year: number): Terms {
  const said = (label: string): string => {
    const line = note.split(/\r?\n/).find((one) => one.trim().toLowerCase().startsWith(`${label.toLowerCase()}:`));
    return line === undefined ? '' : line.slice(line.indexOf(':') + 1).trim();
  };
  const until = said(LABELS.until);
  // Of several days that may be meant the first: it is safer to stop too early.
  const day = daysMeant(until, year).sort()[0] ?? null;
  return { use: said(LABELS.use), until, day, givenTo: said(LABELS.givenTo) };
}

/**
 * @param paths - what goes, from the project's root
 * @param namesIn - names of the files in a folder
 * @param read - a note's text; `null` where it cannot be read
 * @param year - the one that is meant where a day is written without it
 */
export function licensedIn(
  rules: ProjectRules,
  paths: readonly string[],
  namesIn: (folder: string) => readonly string[],
  read: (path: string) => string | null,
  year: number,
): readonly LicensedItem[] {
  const notes = new Map<string, Terms>();
  const termsOf = (path: string): Terms => {
    const known = notes.get(path) ?? termsIn(read(path) ?? '', year);
    notes.set(path, known);
    return known;
  };
  return paths.flatMap((path): LicensedItem[] => {
    const folder = parentOf(path);
    if (rules.planned(folder)?.folder?.licensed !== true || NOTE.test(nameOf(path))) return [];
    if (rules.planned(path)?.kind === 'file') return [];
    const name = noteOf(nameOf(path), namesIn(folder));
    const note = name === null ? null : join(folder, name);
    return [{ path, note, ...(note === null ? NO_TERMS : termsOf(note)) }];
  });
}

const NO_TERMS: Terms = { use: '', until: '', day: null, givenTo: '' };

/** One that begins as it does, else the one for the whole folder. */
function noteOf(name: string, names: readonly string[]): string | null {
  const stem = (name.lastIndexOf('.') < 1 ? name : name.slice(0, name.lastIndexOf('.'))).toLowerCase();
  const notes = names.filter((one) => NOTE.test(one)).sort();
  const own = notes.find((one) => one.toLowerCase().startsWith(stem));
  return own ?? notes.find((one) => NOTE.test(one.slice(0, 7))) ?? null;
}

/** Its last day is past, or somebody else may have it; `null` where neither is so, or nobody said. */
export function termsAgainst(
  { day, givenTo }: Terms,
  { today, recipient }: { readonly today: string; readonly recipient: string },
): 'over' | 'not-for' | null {
  if (day !== null && day < today) return 'over';
  if (givenTo === '' || recipient.trim() === '' || ANYBODY.test(givenTo)) return null;
  const [may, asks] = [wordsIn(givenTo.toLowerCase()), wordsIn(recipient.toLowerCase())];
  return asks.some((word) => word.length > 2 && may.includes(word)) ? null : 'not-for';
}

const ANYBODY = /^(?:any(?:body|one)|every(?:body|one)|all|whoever)\b/i;
