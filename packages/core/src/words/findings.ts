/** Words for what stands against a name, for templates, and for findings. */

import type { Finding } from '../check/finding';
import type { ChangeCode } from '../name/mend/candidates';
import type { Problem } from '../name/mend/suggest';
import type { Expectation } from '../name/pattern/expect';
import type { RuleCode } from '../project/rule-weights';
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
  'name-reserved': (p) => `${p.name} is a device's name on ${list(p.systems)}.`,
  'name-edge': (p) =>
    p.systems
      ? `A name cannot end in a dot or a blank on ${list(p.systems)}.`
      : 'The name begins or ends with a blank.',
  'name-too-long': (p) => `The name has ${p.found} ${p.unit}; ${list(p.systems)} takes ${p.limit}.`,
  'name-not-nfc': () => 'The accents are written apart from their letters (not NFC).',
  'name-leading': (p) => `A name that begins with ${p.character} is hidden or taken for an option by some programs.`,
  'name-absent': () => 'This folder has no name yet.',
  'block-unknown': (p) => `No shared part is called “${p.block}”.`,
  'block-in-itself': (p) => `The shared part ${p.block} stands inside itself.`,
  'list-unknown': (p) => `“${p.list}” is no list field.`,
  'list-empty': (p) => `${p.list}: no entries yet, so nothing is made for them.`,
  'field-unknown': (p) => `No field is called “${p.field}”.`,
  'convention-unknown': (p) => `No convention is called “${p.convention}”.`,
  'family-unknown': (p) => `No family is called “${p.family}”.`,
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
function problemsWords(problems: readonly Problem[]): string {
  const parts = problems.filter(
    (p) => p.change !== 'separator' || (p.part !== null && !/^[^A-Za-z0-9]*$/.test(p.part)),
  );
  const separators =
    problems.length > parts.length && problems.some((p) => p.change === 'separator' && p.part !== null)
      ? ['other separators than the rule has']
      : [];
  return [...parts.map(problemWords), ...separators].join('; ') || 'a separator too many';
}

/** The heading of each rule: an artist's words. */
export const RULE_TITLES: Readonly<Record<RuleCode, string>> = {
  'missing-folder': 'Missing folders',
  'misspelt-folder': 'Misspelt folders',
  'unplanned-folder': 'Folders nobody planned',
  'misplaced-folder': 'Folders in the wrong place',
  'missing-starter': 'Starter files that are gone',
  'foreign-project': "Another project's number or client",
  'unportable-name': 'Names some system cannot hold',
  'path-too-long': 'Paths that are too long',
  'name-clash': 'Names that clash',
  'stray-generated': 'Generated files in the wrong place',
  'family-not-accepted': 'Files that do not belong to their folder',
  'misplaced-file': 'Files in the wrong place',
  'loose-file': 'Loose files',
  'unknown-code': 'Codes nobody knows',
  'version-style': 'Versions written otherwise',
  'sequence-padding': 'Frames with other digits',
  'name-mismatch': 'Names that break the rule',
  'banned-word': 'Banned words',
  'over-limit': 'Folders over their limit',
  'version-twice': 'Versions claimed twice',
  'old-version-on-top': 'Older versions on top',
  'versioned-delivery': 'Versions in lasting names',
  'sequence-gap': 'Missing frames',
  'empty-file': 'Empty files',
  'licence-missing': 'Material without its licence',
  'empty-folder': 'Folders still empty',
  'same-content': 'The same thing twice',
  'same-name': 'One name in several folders',
  'version-gap': 'Versions missing in between',
  'companion-missing': 'Side files without their document',
  'companion-apart': 'Side files away from their document',
  'date-mismatch': 'Dates that do not fit',
  'absolute-reference': 'References by a whole path',
  'outside-reference': 'References out of the project',
  'broken-reference': 'References to nothing',
};

/** Why a rule matters, in a sentence. */
export const RULE_REASONS: Readonly<Record<RuleCode, string>> = {
  'missing-folder': 'What belongs in it has no home, and lands somewhere else.',
  'misspelt-folder': 'Programs and people look for the right name, make it anew, and then there are two.',
  'unplanned-folder': 'Nobody who takes over will look here, and nothing in it is checked.',
  'misplaced-folder': 'Whoever looks where it belongs finds nothing, or only half.',
  'missing-starter': 'Every project of this kind begins with it; somebody will look for it.',
  'foreign-project':
    'It was probably saved while another project was open; whoever looks for it there will not find it.',
  'unportable-name': 'It cannot be opened or even copied on a system this project is meant for.',
  'path-too-long': 'Programs that add to a path stop working here, and some systems cannot open it.',
  'name-clash': 'On systems that do not tell capitals apart one of them hides or overwrites the other.',
  'stray-generated': 'It fills the disk, is backed up and handed over, and nobody needs it.',
  'family-not-accepted': 'Nobody looks for such files here, and programs that read the folder trip over them.',
  'misplaced-file': 'Its name is right, and whoever looks for it looks in another folder.',
  'loose-file': 'No files belong beside these folders; people and programs expect them inside.',
  'unknown-code': 'Nobody can tell who or what is meant, and a search by the code finds nothing.',
  'version-style': 'Sorted by name it stands in the wrong place, and the next version is counted wrong.',
  'sequence-padding': 'Programs that read sequences see two of them, or none.',
  'name-mismatch': 'Half a year from now nobody finds it, and programs that go by names pass it over.',
  'banned-word': 'There is always one more after it, and then nobody knows which one counts.',
  'over-limit': 'It takes room that other projects need.',
  'version-twice': 'Two people worked on from one version: one of them will be lost.',
  'old-version-on-top': 'Whoever opens the folder may open the wrong one.',
  'versioned-delivery': 'Others link to this name: with every version the link breaks.',
  'sequence-gap': 'The picture jumps or stops there.',
  'empty-file': 'It was never written, or writing it failed.',
  'licence-missing': 'Without its note nobody may use it, and nobody can prove that we did rightly.',
  'empty-folder': 'It should hold something by now: it was forgotten, or lies somewhere else.',
  'same-content': 'It takes its room twice, and one day the wrong one of the two is edited.',
  'same-name': 'A search finds both, and programs that look for a name take the first they meet.',
  'version-gap': 'What went before cannot be gone back to, or somebody has it elsewhere.',
  'companion-missing': 'Alone it is of no use; its document was moved, renamed or removed.',
  'companion-apart': 'A program looks for it beside the document, and there it is not.',
  'date-mismatch': 'Whoever looks for a day finds another one’s work.',
  'absolute-reference': 'It breaks as soon as the project is moved or opened on another computer.',
  'outside-reference': 'What it points to does not come along when the project is handed over.',
  'broken-reference': 'What it points to is not there: the program will ask for it, or leave it out.',
};

/** What to do about it, in a sentence. */
export const RULE_CURES: Readonly<Record<RuleCode, string>> = {
  'missing-folder': 'Make it, by “Change…” or by hand under just this name.',
  'misspelt-folder': 'Give it the right name; what is in it stays where it is.',
  'unplanned-folder': 'Move what is in it to where it belongs, or have the template know the folder.',
  'misplaced-folder': 'Move it to its place. Where there is one already, put the two together.',
  'missing-starter': 'Make it anew, by “Change…”, or accept that this project does without.',
  'foreign-project': 'Move it to the project it was made for, or give it this project’s number.',
  'unportable-name': 'Give it a name without what is named above.',
  'path-too-long': 'Shorten its name, or the names of the folders above it.',
  'name-clash': 'Keep the right one of them, and give the other another name.',
  'stray-generated': 'Have the program put such files into the folder for them, and remove this one.',
  'family-not-accepted': 'Move it to a folder that takes such files.',
  'misplaced-file': 'Move it there; its name stays.',
  'loose-file': 'Move it into the folder it belongs to.',
  'unknown-code': 'Write a code the house knows, or have this one added to the lists.',
  'version-style': 'Rename it as proposed.',
  'sequence-padding': 'Rename the frames as proposed, all of them at once.',
  'name-mismatch': 'Rename it as proposed, or ask the name helper what to call it.',
  'banned-word': 'Leave the word out: the version says which one counts.',
  'over-limit': 'Clear what can be made anew, or have the limit raised.',
  'version-twice': 'Look at both, go on with one of them, and give the other the next version.',
  'old-version-on-top': 'Move it to the folder for older versions; the latest stays.',
  'versioned-delivery': 'Take the version out of the name: the newest takes the place of the one before.',
  'sequence-gap': 'Render the missing frames, or say which frames are expected.',
  'empty-file': 'Save or copy it once more.',
  'licence-missing': 'Put its licence note beside it, or take the material out.',
  'empty-folder': 'Bring in what belongs there, or accept that nothing will come.',
  'same-content': 'Keep the one that is where it belongs.',
  'same-name': 'Tell them apart by their names, or keep one.',
  'version-gap': 'Bring the missing version back from whoever has it, or accept that it is gone.',
  'companion-missing': 'Bring its document here, or remove the side file.',
  'companion-apart': 'Put it beside its document.',
  'date-mismatch': 'Put the right day into the name, or move it to its day.',
  'absolute-reference': 'Have the program write paths from the file’s own folder.',
  'outside-reference': 'Copy what it points to into the project, and point to that.',
  'broken-reference': 'Bring back what it points to, or point to where it is now.',
};

const listed = (value: Params[string] | undefined): string =>
  Array.isArray(value) ? value.join(', ') : String(value ?? '');

const more = (p: Params): string => (Number(p.count) > 3 ? ` and ${Number(p.count) - 3} more` : '');
const frames = (p: Params): string => (p.frames ? ` ${p.frames} frames as one.` : '');

type Words = (params: Params, broken: string) => string;

/** What is said of each finding; `broken` tells which parts of the name are wrong. */
const FINDING_WORDS: Readonly<Record<RuleCode, Words>> = {
  'missing-folder': (p) => `The folder ${p.name} is missing.${p.purpose ? ` ${p.purpose}` : ''}`,
  'misspelt-folder': (p) => `${p.name} is probably meant to be ${p.meant}.`,
  'unplanned-folder': (p) =>
    `No rule knows the folder ${p.name}.${p.home ? ` What is in it belongs in ${p.home}.` : ''}`,
  'misplaced-folder': (p) =>
    p.doubled ? `${p.name} lies once more in ${p.home}.` : `The folder ${p.name} belongs at ${p.home}.`,
  'missing-starter': (p) => `The starter file ${p.name} is not there any more.`,
  'unportable-name': (p) => `${p.name}: ${wordsFor(String(p.fault), p)}`,
  'path-too-long': (p) => `The path of ${p.name} has ${p.length} characters; ${p.budget} are the most.`,
  'name-clash': (p) => `${p.name} and ${listed(p.others)} are one name to some systems.`,
  'stray-generated': (p) => `${p.name} was made by a program${p.home ? ` and belongs in ${p.home}` : ''}.${frames(p)}`,
  'family-not-accepted': (p) =>
    `${p.name} is of the family ${p.family}; this folder takes ${listed(p.accepts)}.${p.home ? ` It belongs in ${p.home}.` : ''}${frames(p)}`,
  'misplaced-file': (p) => `${p.name} belongs in ${p.home}.${frames(p)}`,
  'loose-file': (p) =>
    `${p.name} lies loose in ${p.folder === '' ? "the project's root" : p.folder}, where only folders belong.`,
  'foreign-project': (p) => {
    const what = [p.number ? `the number ${p.number}` : '', p.client ? `the client ${p.client}` : '']
      .filter((t) => t !== '')
      .join(' and ');
    return `${p.name} carries ${what}; this project is ${p.own}.${frames(p)}`;
  },
  'unknown-code': (p) => `${p.name}: nobody knows ${listed(p.codes)}.${frames(p)}`,
  'version-style': (p, broken) => `${p.name} writes its version otherwise than ${p.convention}: ${broken}`,
  'sequence-padding': (p, broken) => `${p.name} writes its frames otherwise than ${p.convention}: ${broken}`,
  'banned-word': (p, broken) => `${p.name} holds a banned word: ${broken}`,
  'name-mismatch': (p, broken) => `${p.name} breaks the rule ${p.convention}: ${broken}`,
  'over-limit': (p) => `${p.name} holds ${p.bytes} bytes; ${p.limit} are the most.`,
  'version-twice': (p) => `${p.name} and ${listed(p.others)} claim one version.`,
  'old-version-on-top': (p) => {
    if (p.keep !== undefined)
      return `${Number(p.count) > 1 ? `${p.count} versions, ${p.name} among them, are` : `${p.name} is`} older than the ${p.keep} that are kept.`;
    return `${Number(p.count) > 1 ? `${p.count} older versions, ${p.name} among them, belong` : `${p.name} belongs`} in ${p.folder}; ${p.latest} is the latest.`;
  },
  'versioned-delivery': (p) => `${p.name} carries the version ${p.version}; names here stay the same.`,
  'sequence-gap': (p) =>
    `${p.count} of its frames ${Number(p.count) === 1 ? 'is' : 'are'} missing: ${listed(p.missing)}.`,
  'empty-file': (p) => `${p.name} holds nothing.`,
  'licence-missing': (p) => `${p.name} has no licence note beside it.`,
  'empty-folder': (p) =>
    `${p.name} should hold something after ${p.days} ${Number(p.days) === 1 ? 'day' : 'days'}, and is empty.`,
  'same-content': (p) =>
    `${p.name} is there ${Number(p.count) === 2 ? 'twice' : `${p.count} times`}, the same to the last byte.`,
  'same-name': (p) => `${p.name} is a name in ${p.count} folders.`,
  'version-gap': (p) =>
    `Before ${p.name} ${Number(p.count) === 1 ? 'version' : 'versions'} ${listed(p.missing)}${Number(p.count) > 20 ? ' and more' : ''} ${Number(p.count) === 1 ? 'is' : 'are'} missing.`,
  'companion-missing': (p) => `${p.name} is a side file, and its document is not in this project.`,
  'companion-apart': (p) => `${p.name} is a side file; its document lies in ${p.home || "the project's root"}.`,
  'date-mismatch': (p) =>
    p.folder
      ? `${p.name} is the folder of ${p.date}; what is in it is of another day (${p.found}).`
      : `${p.name} carries ${p.date}, but was last written on ${p.found}.`,
  'absolute-reference': (p) => `${p.name} points by a whole path to ${listed(p.targets)}${more(p)}.`,
  'outside-reference': (p) => `${p.name} points out of the project, to ${listed(p.targets)}${more(p)}.`,
  'broken-reference': (p) =>
    `${p.name} points to ${listed(p.targets)}${more(p)}, which ${Number(p.count) === 1 ? 'is' : 'are'} not there.`,
};

export const findingWords = (finding: Finding): string =>
  FINDING_WORDS[finding.rule](finding.params, `${problemsWords(finding.problems)}.${frames(finding.params)}`);
