/** Words for what stands against a name, for templates, and for findings. */

import type { ChangeCode } from '../name/mend/costs';
import type { Problem } from '../name/mend/suggest';
import type { Expectation } from '../name/pattern/expect';
import { assertNever, type Params } from '../result';
import { PATTERN_WORDS } from './patterns';

const list = (value: Params[string] | undefined): string =>
  Array.isArray(value) ? value.join(', ') : String(value ?? '');

const NAME_WORDS: Readonly<Record<string, (p: Params) => string>> = {
  'name-empty': () => 'The name is empty.',
  'name-dots': (p) => `“${p.name}” means a folder itself, not a name in it.`,
  'name-separator': (p) => `${p.character} parts folders and cannot stand in a name.`,
  'name-forbidden': (p) => `${p.character} cannot stand in a name on ${list(p.systems)}.`,
  'name-control': (p) => `The name holds a control character (U+${String(p.code).toUpperCase()}).`,
  'name-invisible': (p) => `The name holds a character nobody can see (U+${String(p.code).toUpperCase()}).`,
  'name-surrogate': () => 'The name holds half a character.',
  'name-own': (p) => `${p.name} is a name that Nesting keeps for its own files.`,
  'folder-elsewhere': (p) => `${p.folder} lies on another volume.`,
  'name-reserved': (p) => `${p.name} is a device's name on ${list(p.systems)}.`,
  'name-edge': (p) =>
    p.systems
      ? `A name cannot end in a dot or a blank on ${list(p.systems)}.`
      : 'The name begins or ends with a blank.',
  'name-too-long': (p) => `The name has ${p.found} ${p.unit}; ${list(p.systems)} takes ${p.limit}.`,
  'name-not-utf-8': () =>
    'It is no text that other systems can read (not UTF-8). Rename it on the system that wrote it.',
  'name-not-nfc': () => 'The accents are written apart from their letters (not NFC).',
  'name-leading': (p) => `A name that begins with ${p.character} is hidden or taken for an option by some programs.`,
  'name-absent': () => 'This folder has no name yet.',
  'block-unknown': (p) => `No shared part is called “${p.block}”.`,
  'block-in-itself': (p) => `The shared part ${p.block} stands inside itself.`,
  'list-unknown': (p) => `“${p.list}” is no list field.`,
  'list-empty': (p) => `${p.list}: no entries yet, so nothing is made for them.`,
  'field-unknown': (p) => `No field is called “${p.field}”.`,
  'option-unknown': (p) => `“${p.option}” is no option of ${p.field}.`,
  'convention-unknown': (p) => `No convention is called “${p.convention}”.`,
  'family-unknown': (p) => `No family is called “${p.family}”.`,
  'starter-no-document': (p) =>
    `${p.name} is a folder, and no family of files says that folders called so are one document.`,
  'siblings-alike': (p) =>
    p.name === p.other
      ? `Two things here are called ${p.name}.`
      : `${p.name} and ${p.other} are one name on systems that do not tell them apart.`,
  'number-twice': (p) => `The number ${p.number} is given twice, or reserved.`,
  'path-over-budget': (p) => `The whole path has ${p.found} characters; the budget is ${p.limit}.`,
  'too-deep': (p) => `Folders go ${p.limit} deep at the most.`,
  'too-many-lines': (p) => `More than ${p.limit} lines: the lists multiply too far.`,
  'banned-word-in-name': (p) => `“${p.word}” is a banned word.`,
  'target-exists': (p) => `${p.name} exists already on ${p.volume}.`,
};

/** One sentence for a fault or diagnostic; the code itself where no words are known, so that nothing is hidden. */
const LIST_WORDS: Readonly<Record<string, (p: Params) => string>> = {
  'cell-missing': (p) => `${p.column} is missing.`,
  'cell-too-long': (p) => `${p.column} has more than ${p.max} characters.`,
  'cell-form': (p) => `${p.column}: “${p.found}” is not ${p.expected}.`,
  'cell-control': (p) => `${p.column} holds characters nobody can see.`,
  'entry-double': (p) => `${p.column} “${p.found}” stands in line ${p.line} already.`,
  'no-header': () => 'The first line must name the columns.',
  'column-missing': (p) => `The column ${p.column} is missing.`,
  'too-many-rows': (p) => `There are ${p.found} lines; ${p.most} are taken at the most.`,
  'series-part-unknown': (p) =>
    `${p.found} is no part of a number: write {year}, {yy}, {month}, {client}, {kind} or {n:000}.`,
  'series-count-missing': () => 'The count {n} is missing.',
  'series-count-twice': () => 'The count {n} stands there twice.',
  'series-too-long': () => 'The number would be too long.',
  'series-misreadable': () =>
    'Such numbers could be read in two ways: put a hyphen, underscore or dot behind codes and counts, and an underscore or dot between two codes.',
  'series-reset-unseen': (p) =>
    `The count begins anew by ${p.found}, and the number does not say which ${p.found} it is of: one number would be given twice.`,
  'series-value-missing': (p) =>
    p.found === 'client'
      ? 'The number carries the client: choose it first.'
      : 'The number carries the kind of project, and this template has no code for it.',
  'series-letters': (p) => `“${p.found}” holds characters that do not do in every name.`,
};

const PLAN_WORDS: Readonly<Record<string, (p: Params) => string>> = {
  'name-taken': () => 'Two would have this name in one folder.',
  'into-itself': () => 'A folder cannot lie in itself.',
  'folder-gone': () => 'The folder it goes to is not there any more by then.',
  'changed-twice': () => 'It would be changed twice.',
  'number-missing': () => 'A project needs a number.',
  'number-taken': (p) => `The number ${p.number} belongs to another project.`,
  'number-reserved': (p) => `The number ${p.number} is reserved: ${p.why}.`,
  'folder-there': (p) => `A folder ${p.folder} is there already on ${p.volume}.`,
  'no-file-name': (p) => `${p.name} is no name for a file.`,
  'good-breaks': (p) => `“${p.name}” is kept as a good name, and would break the rule.`,
  'bad-follows': (p) => `“${p.name}” is kept as a bad name, and would follow the rule.`,
};

export function wordsFor(code: string, params: Params): string {
  return (PATTERN_WORDS[code] ?? NAME_WORDS[code] ?? LIST_WORDS[code] ?? PLAN_WORDS[code])?.(params) ?? code;
}

/** What a part may hold, in words. */
export function expectationWords({ code, params: p }: Expectation): string {
  switch (code) {
    case 'nothing':
      return 'nothing here';
    case 'literal':
      return `“${p.text}”`;
    case 'one-of':
      return `${Array.isArray(p.known) && p.known.length > 1 ? 'one of ' : ''}${list(p.known)}${Number(p.more) > 0 ? ` and ${p.more} more` : ''}`;
    case 'own-number':
      return `the project number ${p.number}`;
    case 'text':
      return p.shape === 'as-is'
        ? 'a text'
        : `${SHAPE_WORDS[p.shape as keyof typeof SHAPE_WORDS]}, up to ${p.max} characters`;
    case 'like':
      return `the form ${p.form}`;
    case 'number':
      return 'a project number';
    case 'extension':
      return 'an extension';
    case 'digits':
      return Number(p.min) > 1 ? `a number of ${p.min} digits` : 'a number';
    case 'letters':
      return p.upper ? 'a capital letter' : 'a small letter';
    case 'date':
      return `a date as ${p.form}`;
    default:
      return assertNever(code);
  }
}

const SHAPE_WORDS = {
  lower: 'small letters',
  upper: 'capitals',
  title: 'words with capitals',
  kebab: 'small letters with hyphens',
  snake: 'small letters with low lines',
  camel: 'words joined by capitals',
  pascal: 'words joined by capitals',
} as const;

export const CHANGE_WORDS: Readonly<Record<ChangeCode, string>> = {
  characters: 'characters that look like others',
  case: 'capitals and small letters',
  separator: 'separators',
  padding: 'leading noughts',
  accents: 'accents',
  abbreviation: "the house's own word",
  spelling: 'spelling',
  'date-form': 'form of the date',
  'version-style': 'style of the version',
  extension: 'extension',
  'banned-word': 'banned word',
  'copy-mark': 'mark of a copy',
  doubled: 'said twice',
  extra: 'does not belong',
  order: 'order of the parts',
  missing: 'missing',
  number: "another project's number",
  client: 'another client',
  entry: 'belongs to another folder',
  unknown: 'not known',
};

/** "task: expected one of anim, comp; found “animation”" */
function problemWords(problem: Problem): string {
  const found = problem.found === '' ? 'nothing' : `“${problem.found}”`;
  if (problem.part === null) return `${found}: ${CHANGE_WORDS[problem.change]}`;
  if (problem.change === 'order') return `${problem.part} stands in another place`;
  return `${problem.part}: expected ${expectationWords(problem.expected)}, found ${found}`;
}

/** All that is wrong with a name, separators said once: they are one habit, not many mistakes. */
export function problemsWords(problems: readonly Problem[]): string {
  const parts = problems.filter(
    (p) => p.change !== 'separator' || (p.part !== null && !/^[^A-Za-z0-9]*$/.test(p.part)),
  );
  const separators =
    problems.length > parts.length && problems.some((p) => p.change === 'separator' && p.part !== null)
      ? ['other separators than the rule has']
      : [];
  return [...parts.map(problemWords), ...separators].join('; ') || 'a separator too many';
}
