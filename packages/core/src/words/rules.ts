/** What is said of each rule and of what it finds: an artist's words. A rule without its words does not compile. */
import { RULE_BY_CODE, type RuleCode, type RuleParams } from '../check/registry';
import { hasParams } from '../check/rule';
import type { Problem } from '../name/mend/suggest';
import type { Params } from '../result';
import { problemsWords, wordsFor } from './findings';

interface RuleWords<Code extends RuleCode> {
  /** The heading of what it finds. */
  readonly title: string;
  /** Why it matters, in a sentence. */
  readonly reason: string;
  /** What to do about it, in a sentence. */
  readonly cure: string;
  /** What is said of a finding; `broken` tells which parts of the name are wrong. */
  readonly says: (params: RuleParams<Code>, broken: string) => string;
}

const more = (p: { readonly count: number }): string => (p.count > 3 ? ` and ${p.count - 3} more` : '');
const frames = (p: { readonly frames?: number }): string => (p.frames ? ` ${p.frames} frames as one.` : '');

export const RULE_WORDS: { readonly [Code in RuleCode]: RuleWords<Code> } = {
  'missing-folder': {
    title: 'Missing folders',
    reason: 'What belongs in it has no home, and lands somewhere else.',
    cure: 'Make it, under just this name.',
    says: (p) => `The folder ${p.name} is missing.${p.purpose ? ` ${p.purpose}` : ''}`,
  },
  'misspelt-folder': {
    title: 'Misspelt folders',
    reason: 'Programs and people look for the right name, make it anew, and then there are two.',
    cure: 'Give it the right name; what is in it stays where it is.',
    says: (p) => `${p.name} is probably meant to be ${p.meant}.`,
  },
  'unplanned-folder': {
    title: 'Folders nobody planned',
    reason: 'Nobody who takes over will look here, and nothing in it is checked.',
    cure: 'Move what is in it to where it belongs, or have the template know the folder.',
    says: (p) =>
      `No rule knows the folder ${p.name}${p.more ? `, nor ${p.more} more beside it` : ''}.${p.home ? ` What is in it belongs in ${p.home}.` : ''}`,
  },
  'misplaced-folder': {
    title: 'Folders in the wrong place',
    reason: 'Whoever looks where it belongs finds nothing, or only half.',
    cure: 'Move it to its place. Where there is one already, put the two together.',
    says: (p) => (p.doubled ? `${p.name} lies once more in ${p.home}.` : `The folder ${p.name} belongs at ${p.home}.`),
  },
  'missing-starter': {
    title: 'Starter files that are gone',
    reason: 'Every project of this kind begins with it; somebody will look for it.',
    cure: 'Make it anew, or accept that this project does without.',
    says: (p) => `The starter file ${p.name} is not there any more.`,
  },
  'foreign-project': {
    title: "Another project's number or client",
    reason: 'It was probably saved while another project was open; whoever looks for it there will not find it.',
    cure: 'Move it to the project it was made for, or give it this project’s number.',
    says: (p) => {
      const what = [p.number ? `the number ${p.number}` : '', p.client ? `the client ${p.client}` : '']
        .filter((t) => t !== '')
        .join(' and ');
      return `${p.name} carries ${what}; this project is ${p.own}.${frames(p)}`;
    },
  },
  'unportable-name': {
    title: 'Names some system cannot hold',
    reason: 'It cannot be opened or even copied on a system this project is meant for.',
    cure: 'Give it a name without what is named above.',
    says: (p) => `${p.name}: ${wordsFor(p.fault, p)}`,
  },
  'path-too-long': {
    title: 'Paths that are too long',
    reason: 'Programs that add to a path stop working here, and some systems cannot open it.',
    cure: 'Shorten its name, or the names of the folders above it.',
    says: (p) => `The path of ${p.name} has ${p.length} characters; ${p.budget} are the most.`,
  },
  'name-clash': {
    title: 'Names that clash',
    reason: 'On systems that do not tell capitals apart one of them hides or overwrites the other.',
    cure: 'Keep the right one of them, and give the other another name.',
    says: (p) => `${p.name} and ${p.others.join(', ')} are one name to some systems.`,
  },
  'stray-generated': {
    title: 'Generated files in the wrong place',
    reason: 'It fills the disk, is backed up and handed over, and nobody needs it.',
    cure: 'Have the program put such files into the folder for them, and remove this one.',
    says: (p) => `${p.name} was made by a program${p.home ? ` and belongs in ${p.home}` : ''}.${frames(p)}`,
  },
  'family-not-accepted': {
    title: 'Files that do not belong to their folder',
    reason: 'Nobody looks for such files here, and programs that read the folder trip over them.',
    cure: 'Move it to a folder that takes such files.',
    says: (p) =>
      `${p.name} is ${p.family === '' ? 'of no known family' : `of the family ${p.family}`}; this folder takes ${p.accepts.join(', ')}.${p.home ? ` It belongs in ${p.home}.` : ''}${frames(p)}`,
  },
  'misplaced-file': {
    title: 'Files in the wrong place',
    reason: 'Its name is right, and whoever looks for it looks in another folder.',
    cure: 'Move it there; its name stays.',
    says: (p) => `${p.name} belongs in ${p.home}.${frames(p)}`,
  },
  'loose-file': {
    title: 'Loose files',
    reason: 'No files belong beside these folders; people and programs expect them inside.',
    cure: 'Move it into the folder it belongs to.',
    says: (p) =>
      `${p.name} lies loose in ${p.folder === '' ? "the project's root" : p.folder}, where only folders belong.`,
  },
  'unknown-code': {
    title: 'Codes nobody knows',
    reason: 'Nobody can tell who or what is meant, and a search by the code finds nothing.',
    cure: 'Write a code the house knows, or have this one added to the lists.',
    says: (p) => `${p.name}: nobody knows ${p.codes.join(', ')}.${frames(p)}`,
  },
  'version-style': {
    title: 'Versions written otherwise',
    reason: 'Sorted by name it stands in the wrong place, and the next version is counted wrong.',
    cure: 'Rename it as proposed.',
    says: (p, broken) => `${p.name} writes its version otherwise than ${p.convention}: ${broken}`,
  },
  'sequence-padding': {
    title: 'Frames with other digits',
    reason: 'Programs that read sequences see two of them, or none.',
    cure: 'Rename the frames as proposed, all of them at once.',
    says: (p, broken) => `${p.name} writes its frames otherwise than ${p.convention}: ${broken}`,
  },
  'name-mismatch': {
    title: 'Names that break the rule',
    reason: 'Half a year from now nobody finds it, and programs that go by names pass it over.',
    cure: 'Rename it as proposed, or ask the name helper what to call it.',
    says: (p, broken) => `${p.name} breaks the rule ${p.convention}: ${broken}`,
  },
  'banned-word': {
    title: 'Banned words',
    reason: 'There is always one more after it, and then nobody knows which one counts.',
    cure: 'Leave the word out: the version says which one counts.',
    says: (p, broken) => `${p.name} holds a banned word: ${broken}`,
  },
  'over-limit': {
    title: 'Folders over their limit',
    reason: 'It takes room that other projects need.',
    cure: 'Clear what can be made anew, or have the limit raised.',
    says: (p) => `${p.name} holds ${p.bytes} bytes; ${p.limit} are the most.`,
  },
  'version-twice': {
    title: 'Versions claimed twice',
    reason: 'Two people worked on from one version: one of them will be lost.',
    cure: 'Look at both, go on with one of them, and give the other the next version.',
    says: (p) => `${p.name} and ${p.others.join(', ')} claim one version.`,
  },
  'old-version-on-top': {
    title: 'Older versions on top',
    reason: 'Whoever opens the folder may open the wrong one.',
    cure: 'Move it to the folder for older versions; the latest stays.',
    says: (p) => {
      if (p.keep !== undefined)
        return `${p.count > 1 ? `${p.count} versions, ${p.name} among them, are` : `${p.name} is`} older than the ${p.keep} that are kept.`;
      return `${p.count > 1 ? `${p.count} older versions, ${p.name} among them, belong` : `${p.name} belongs`} in ${p.folder}; ${p.latest} is the latest.`;
    },
  },
  'versioned-delivery': {
    title: 'Versions in lasting names',
    reason: 'Others link to this name: with every version the link breaks.',
    cure: 'Take the version out of the name: the newest takes the place of the one before.',
    says: (p) => `${p.name} carries the version ${p.version}; names here stay the same.`,
  },
  'sequence-gap': {
    title: 'Missing frames',
    reason: 'The picture jumps or stops there.',
    cure: 'Render the missing frames, or say which frames are expected.',
    says: (p) => `${p.count} of its frames ${p.count === 1 ? 'is' : 'are'} missing: ${p.missing.join(', ')}.`,
  },
  'empty-file': {
    title: 'Empty files',
    reason: 'It was never written, or writing it failed.',
    cure: 'Save or copy it once more.',
    says: (p) =>
      p.ranges === undefined
        ? `${p.name} holds nothing.`
        : `${p.count} frames of this sequence hold nothing: ${p.ranges.join(', ')}.`,
  },
  'licence-missing': {
    title: 'Material without its licence',
    reason: 'Without its note nobody may use it, and nobody can prove that we did rightly.',
    cure: 'Put its licence note beside it, or take the material out.',
    says: (p) => `${p.name} has no licence note beside it.`,
  },
  'setting-mismatch': {
    title: 'Files made with other settings',
    reason: 'It drifts, is scaled or is resampled where it meets the rest, and mostly nobody sees it before the end.',
    cure: 'Make it again with what was agreed, convert it, or agree on something else on the setup sheet.',
    says: (p) =>
      `“${p.setting}” is ${p.found} in ${p.name}${p.count > 1 ? ` and ${p.count - 1} more beside it` : ''}; ${p.agreed} was agreed.`,
  },
  'missing-delivery': {
    title: 'Deliveries that are late',
    reason: 'Somebody outside waits for it.',
    cure: 'Bring it to its folder under its name, or accept until a day that was agreed on.',
    says: (p) =>
      `${p.name}${p.entry === undefined ? '' : ` for ${p.entry}`} was due on ${p.by}, and is not in ${p.folder}.`,
  },
  'empty-folder': {
    title: 'Folders still empty',
    reason: 'It should hold something by now: it was forgotten, or lies somewhere else.',
    cure: 'Bring in what belongs there, or accept that nothing will come.',
    says: (p) => `${p.name} should hold something after ${p.days} ${p.days === 1 ? 'day' : 'days'}, and is empty.`,
  },
  'same-content': {
    title: 'The same thing twice',
    reason: 'It takes its room twice, and one day the wrong one of the two is edited.',
    cure: 'Keep the one that is where it belongs.',
    says: (p) => `${p.name} is there ${p.count === 2 ? 'twice' : `${p.count} times`}, the same to the last byte.`,
  },
  'same-name': {
    title: 'One name in several folders',
    reason: 'A search finds both, and programs that look for a name take the first they meet.',
    cure: 'Tell them apart by their names, or keep one.',
    says: (p) => `${p.name} is a name in ${p.count} folders.`,
  },
  'version-gap': {
    title: 'Versions missing in between',
    reason: 'What went before cannot be gone back to, or somebody has it elsewhere.',
    cure: 'Bring the missing version back from whoever has it, or accept that it is gone.',
    says: (p) =>
      `Before ${p.name} ${p.count === 1 ? 'version' : 'versions'} ${p.missing.join(', ')}${p.count > 20 ? ' and more' : ''} ${p.count === 1 ? 'is' : 'are'} missing.`,
  },
  'companion-missing': {
    title: 'Side files without their document',
    reason: 'Alone it is of no use; its document was moved, renamed or removed.',
    cure: 'Bring its document here, or remove the side file.',
    says: (p) => `${p.name} is a side file, and its document is not in this project.`,
  },
  'companion-apart': {
    title: 'Side files away from their document',
    reason: 'A program looks for it beside the document, and there it is not.',
    cure: 'Put it beside its document.',
    says: (p) => `${p.name} is a side file; its document lies in ${p.home || "the project's root"}.`,
  },
  'date-mismatch': {
    title: 'Dates that do not fit',
    reason: 'Whoever looks for a day finds another one’s work.',
    cure: 'Put the right day into the name, or move it to its day.',
    says: (p) =>
      p.folder
        ? `${p.name} is the folder of ${p.date}; what is in it is of another day (${p.found}).`
        : p.among
          ? `${p.name}${p.among > 1 ? ` and ${p.among - 1} more` : ''} of ${p.date} in the folder of ${p.found}.`
          : `${p.name} carries ${p.date}, but was last written on ${p.found}.`,
  },
  'absolute-reference': {
    title: 'References by a whole path',
    reason: 'It breaks as soon as the project is moved or opened on another computer.',
    cure: 'Have the program write paths from the file’s own folder.',
    says: (p) => `${p.name} points by a whole path to ${p.targets.join(', ')}${more(p)}.`,
  },
  'outside-reference': {
    title: 'References out of the project',
    reason: 'What it points to does not come along when the project is handed over.',
    cure: 'Copy what it points to into the project, and point to that.',
    says: (p) => `${p.name} points out of the project, to ${p.targets.join(', ')}${more(p)}.`,
  },
  'broken-reference': {
    title: 'References to nothing',
    reason: 'What it points to is not there: the program will ask for it, or leave it out.',
    cure: 'Bring back what it points to, or point to where it is now.',
    says: (p) =>
      `${p.name} points to ${p.targets.join(', ')}${more(p)}, which ${p.count === 1 ? 'is' : 'are'} not there.`,
  },
};

/** Of any rule, as it was found or stored. */
export interface AnyFinding {
  readonly rule: RuleCode;
  readonly params: Params;
  readonly problems: readonly Problem[];
  /** What older versions stored may have other parameters, and has its sentence instead. */
  readonly message?: string | undefined;
}

export function findingWords({ rule, params, problems, message }: AnyFinding): string {
  const known = RULE_BY_CODE.get(rule);
  if (known !== undefined && hasParams(known.params, params)) return sentence(rule, params, problems);
  return message ?? RULE_WORDS[rule]?.title ?? rule;
}

function sentence(rule: RuleCode, params: object, problems: readonly Problem[]): string {
  // The rule has held its parameters against its own shape.
  const says = RULE_WORDS[rule].says as (params: object, broken: string) => string;
  return says(params, `${problemsWords(problems)}.${frames(params)}`);
}
