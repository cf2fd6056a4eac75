/**
 * Findings → what puts them right, line by line, and the changes that do it.
 *
 * 1. Each finding is held against the disk as it is now: what is gone, or lately written, is left.
 * 2. Its ways are found. A person's answer takes one of them; else the surest is taken where it is sure enough.
 * 3. What was taken is laid out together; what is in each other's way stays.
 * 4. Documents that refer to what moves are rewritten.
 */
import type { Change } from '../../change/change';
import { stateOf } from '../../check/match';
import { RULE_BY_CODE, type RuleCode } from '../../check/registry';
import { type FileEntry, join, nameOf, parentOf, partsOf } from '../../listing/entry';
import type { Confidence } from '../../name/mend/suggest';
import { nameFaults } from '../../portable/name';
import type { ProjectRules } from '../../project/rules';
import type { Coded } from '../../result';
import { isElsewhere } from '../elsewhere';
import { countReferrers } from '../referrers';
import {
  type ByHand,
  type DocumentFacts,
  type DocumentText,
  type RewrittenDocument,
  rewriteDocuments,
  type Unread,
} from './documents';
import { freeName, renamedItem } from './item';
import { OWN_NAME, versionAfter } from './name-options';
import {
  type Act,
  fileIn,
  type Neighbour,
  type Option,
  type ProjectView,
  RANK,
  type Referrers,
  type RepairCase,
  type ToRepair,
} from './option';
import { optionsOf } from './options';
import { type Clash, settleActs } from './settle';

/** What a person said of one finding: a way by its key, or none; another name or folder in place of the proposed one. */
export interface Answer {
  readonly key: string | null;
  readonly name?: string | undefined;
  /** From the project's root. */
  readonly folder?: string | undefined;
}

export interface RepairGiven {
  readonly rules: ProjectRules;
  readonly findings: readonly ToRepair[];
  readonly answers: Readonly<Record<string, Answer>>;
  /** Ways of this confidence and better are taken without being asked for; `null` for none. */
  readonly from: Confidence | null;
  readonly view: ProjectView;
  /** Other projects that names may belong to. */
  readonly neighbours: readonly Neighbour[];
  readonly documents: readonly DocumentFacts[];
  readonly read: (path: string) => DocumentText | Unread;
  /** Whole paths of the project's root, as each system has it. */
  readonly roots: readonly string[];
}

export const REPAIR_STATES = [
  /** A way was taken, and nothing is in its way. */
  'ready',
  /** There are ways, and none was taken. */
  'ask',
  /** A person said that it stays. */
  'left',
  /** Nothing that a program can do. */
  'by-hand',
  /** What was taken is in the way of something, or has a name that cannot be. */
  'clash',
  /** Not there any more. */
  'gone',
  /** Written a moment ago, or open in a program: it waits until it is quiet. */
  'held',
  /** On another volume: not put right from here. */
  'elsewhere',
] as const;
export type RepairState = (typeof REPAIR_STATES)[number];

export interface RepairLine {
  /** The finding's. */
  readonly id: string;
  readonly rule: RuleCode;
  readonly weight: string;
  readonly path: string;
  readonly entry: 'folder' | 'file';
  readonly state: RepairState;
  readonly options: readonly Omit<Option, 'acts'>[];
  readonly chosen: string | null;
  /** Where it comes to be; `null` where it goes, stays, or is not put right. */
  readonly after: string | null;
  readonly clash: Clash | null;
  /** A name that is free where what was taken is in the way of something. */
  readonly free: string | null;
  /** Why the name that was given cannot be. */
  readonly fault: Coded | null;
  /** Entries that change for it: frames, side files, what is put together. */
  readonly count: number;
  readonly bytes: number;
  /** Milliseconds since 1970; `null` for a folder, and for what is gone. */
  readonly modified: number | null;
  readonly family: string | null;
}

export interface Repair {
  readonly lines: readonly RepairLine[];
  readonly changes: readonly Change[];
  readonly documents: readonly RewrittenDocument[];
  readonly byHand: readonly ByHand[];
}

export function repair(given: RepairGiven): Repair {
  const referrers = referrersIn(given);
  const judged = given.findings.map((finding) => judge(given, finding, referrers));
  const taken = judged.flatMap(({ finding, option, fault, state }) =>
    option === null || fault !== null || state !== null ? [] : [{ id: finding.id, acts: option.acts }],
  );
  const settled = settleActs(given, taken);
  const { changes, documents, byHand } = rewriteDocuments({ ...given, ...settled });
  const sums = sumsOf(changes);
  const lines = judged.map((j) => lineOf(given, j, settled.clashes.get(j.finding.id) ?? null, sums.get(j.finding.id)));
  return { lines, changes, documents, byHand };
}

interface Judged {
  readonly finding: ToRepair;
  readonly entry: 'folder' | 'file';
  readonly file: FileEntry | null;
  /** Why nothing is taken, whatever its ways are; `null` where that is open. */
  readonly state: RepairState | null;
  readonly options: readonly Option[];
  readonly option: Option | null;
  readonly fault: Coded | null;
}

function judge(given: RepairGiven, finding: ToRepair, referrers: Referrers): Judged {
  const c = { ...caseOf(given, finding), referrers };
  const entry = entryOf(c);
  const base = { finding, entry, file: c.file, options: [], option: null, fault: null };
  const isMade = RULE_BY_CODE.get(finding.rule)?.remedy.act === 'make' && finding.rule !== 'licence-missing';
  const isAccepted = RULE_BY_CODE.get(finding.rule)?.remedy.act === 'accept';
  if (isElsewhere(given.rules, finding.path)) return { ...base, state: 'elsewhere' };
  if (!isMade && !isAccepted && !isThere(c)) return { ...base, state: 'gone' };
  const options = optionsOf(c);
  if (options.length === 0) return { ...base, state: 'by-hand' };
  const answer = given.answers[finding.id];
  if (answer !== undefined && answer.key === null) return { ...base, options, state: 'left' };
  const isQuiet = answer !== undefined || !isAtWork(c);
  if (!isQuiet) return { ...base, options, state: 'held' };
  const option =
    answer === undefined ? surest(options, given.from) : (options.find((o) => o.key === answer.key) ?? null);
  if (option?.key === OWN_NAME && answer?.name === undefined) return { ...base, options, option, state: 'ask' };
  if (option === null) return { ...base, options, option, state: 'ask' };
  const fault = faultOfAnswer(given.rules, answer);
  return { ...base, options, option: fault === null ? placedOtherwise(option, answer) : option, fault, state: null };
}

/** Counted once it is asked for. */
function referrersIn({ documents, roots }: RepairGiven): Referrers {
  let counts: Map<string, number> | null = null;
  return (path) => {
    counts ??= countReferrers(documents, roots);
    return counts.get(path) ?? 0;
  };
}

function caseOf({ rules, view, roots, neighbours }: RepairGiven, finding: ToRepair): Omit<RepairCase, 'referrers'> {
  const folder = parentOf(finding.path);
  const listing = view.list(folder);
  const state = stateOf(rules, folder);
  const file = fileIn(listing, nameOf(finding.path));
  return { rules, view, roots, neighbours, finding, listing, file, line: state.kind === 'planned' ? state.line : null };
}

const entryOf = ({ finding, listing, file }: Omit<RepairCase, 'referrers'>): 'folder' | 'file' => {
  if (file !== null) return 'file';
  if (listing?.folders.includes(nameOf(finding.path))) return 'folder';
  return RULE_BY_CODE.get(finding.rule)?.about ?? 'file';
};

const isThere = ({ finding, listing, file }: RepairCase): boolean =>
  file !== null || listing?.folders.includes(nameOf(finding.path)) === true;

/** Somebody is at it: it was written a moment ago, or a program keeps its lock beside it. */
function isAtWork({ rules, file, listing, finding }: RepairCase): boolean {
  if (file === null) return false;
  if (rules.isSettling(file.modified)) return true;
  const name = nameOf(finding.path);
  const locks = [`.~lock.${name}#`, `~$${name}`, `~$${name.slice(2)}`, `${name}.lock`, `.${name}.lck`, `.#${name}`];
  return locks.some((lock) => lock !== name && fileIn(listing, lock) !== null);
}

function surest(options: readonly Option[], from: Confidence | null): Option | null {
  const [first, second] = options;
  if (first === undefined || from === null || first.acts.length === 0) return null;
  if (RANK[first.confidence] > RANK[from]) return null;
  // Two that are as sure as each other are a choice.
  return second !== undefined && second.confidence === first.confidence && first.confidence !== 'sure' ? null : first;
}

function faultOfAnswer(rules: ProjectRules, answer: Answer | undefined): Coded | null {
  const names = [...(answer?.name === undefined ? [] : [answer.name]), ...partsOf(answer?.folder ?? '')];
  for (const name of names) {
    const fault = nameFaults(name, rules.profiles).find((f) => f.weight === 'refused');
    if (fault !== undefined) return { code: fault.code, params: fault.params };
  }
  const folder = partsOf(answer?.folder ?? '').join('/');
  return isElsewhere(rules, folder) ? { code: 'folder-elsewhere', params: { folder } } : null;
}

/** The same way, to a name and a folder of a person's own: of a sequence every frame follows. */
function placedOtherwise(option: Option, answer: Answer | undefined): Option {
  const { to } = option;
  if (to === null || (answer?.name === undefined && answer?.folder === undefined)) return option;
  const [name, folder] = [answer.name ?? nameOf(to), partsOf(answer.folder ?? parentOf(to)).join('/')];
  const moves = option.acts.filter((act) => act.do === 'move' && parentOf(act.to) === parentOf(to));
  const names = moves.map((act) => (act.do === 'move' ? nameOf(act.from) : ''));
  const pairs = new Map(renamedItem(names, name) ?? []);
  const acts = option.acts.map((act): Act => {
    if (act.do === 'write') return { ...act, to: join(folder, name) };
    const other = act.do === 'move' && moves.includes(act) ? pairs.get(nameOf(act.from)) : undefined;
    return act.do === 'move' && other !== undefined ? { ...act, to: join(folder, other) } : act;
  });
  return { ...option, acts, to: join(folder, name) };
}

interface Sum {
  readonly count: number;
  readonly bytes: number;
}

function sumsOf(changes: readonly Change[]): ReadonlyMap<string, Sum> {
  const out = new Map<string, { count: number; bytes: number }>();
  for (const { subject, expects } of changes) {
    if (subject.kind !== 'finding') continue;
    const sum = out.get(subject.finding) ?? { count: 0, bytes: 0 };
    out.set(subject.finding, sum);
    sum.count++;
    sum.bytes += expects?.size ?? 0;
  }
  return out;
}

function lineOf(given: RepairGiven, judged: Judged, clash: Clash | null, sum: Sum | undefined): RepairLine {
  const { finding, entry, file, state, options, option, fault } = judged;
  const { id, rule, weight, path } = finding;
  const isTaken = option !== null && (state === null || state === 'ask');
  return {
    id,
    rule,
    weight,
    path,
    entry,
    state: state ?? (clash !== null || fault !== null ? 'clash' : 'ready'),
    options: options.map(({ acts: _acts, ...shown }) => shown),
    chosen: isTaken ? option.key : null,
    after: isTaken ? option.to : null,
    clash,
    // Of two folders that are put together it is something in them that is in the way.
    free: clash === null || (entry === 'folder' && clash.at !== option?.to) ? null : freeAt(given, clash.at),
    fault,
    count: sum?.count ?? 0,
    bytes: sum?.bytes ?? file?.size ?? 0,
    modified: file?.modified ?? null,
    family: entry === 'file' ? given.rules.familyOf(nameOf(path)) : null,
  };
}

/** The next version of its chain, else the name with a number behind it. */
function freeAt({ rules, view }: RepairGiven, at: string): string {
  const state = stateOf(rules, parentOf(at));
  const line = state.kind === 'planned' ? state.line : null;
  const older = line?.folder?.older === undefined ? [] : [join(line.path, line.folder.older.folder)];
  const names = [...new Set([parentOf(at), line?.path ?? '', ...older])].flatMap((folder) => {
    const listing = view.list(folder);
    return [...(listing?.files.map((f) => f.name) ?? []), ...(listing?.folders ?? [])];
  });
  const next = line === null ? null : versionAfter(rules.conventionsFor(line, nameOf(at)), nameOf(at), names);
  return next ?? freeName(nameOf(at), new Set(names.map((name) => name.toLowerCase())));
}
