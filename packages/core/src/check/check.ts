/** The parts of a check put together: what only the whole can tell is judged, and all of it is put in order. */
import { type FolderListing, nameOf } from '../listing/entry';
import { withWholeDocuments } from '../project/documents';
import type { ProjectRules } from '../project/rules';
import { Checker } from './checker';
import type { CheckSummary, Finding } from './finding';
import { settleFolders } from './folders';
import type { FolderRow } from './gathered';
import { makeFinding } from './make-finding';
import { isOwn } from './match';
import { joinPartialResults, type PartialResult } from './partial-result';
import { RULES, type RuleCode } from './registry';
import type { ListAgain, Rule } from './rule';

export interface CheckOutcome {
  readonly summary: CheckSummary;
  readonly bytes: number;
  readonly findings: readonly Finding[];
  readonly rows: readonly FolderRow[];
}

const ALL: readonly Rule<RuleCode>[] = RULES;

export function mergeChecks(
  rules: ProjectRules,
  parts: readonly PartialResult[],
  again: ListAgain = () => null,
): CheckOutcome {
  return judgeWhole(rules, joinPartialResults(parts), again);
}

/**
 * `unread` are folders that are there and could not be read: nothing is said of them, and nothing in them is missed.
 */
export function judgeWhole(
  rules: ProjectRules,
  part: PartialResult,
  again: ListAgain,
  unread: readonly string[] = [],
): CheckOutcome {
  const rows = [...part.rows].sort((a, b) => (a.path < b.path ? -1 : 1));
  const whole = {
    rules,
    rows,
    part,
    again,
    unread,
    folders: settleFolders(rules, rows, unread),
    starters: new Set(part.starters.map((s) => s.key)),
  };
  const ends = ALL.flatMap((rule) =>
    (rule.end?.(whole) ?? []).flatMap((found) => makeFinding(rules, rule, found) ?? []),
  );
  const misspelt = new Set(whole.folders.misspelt.map(({ row }) => row.path));
  // Its right name is in order on every system: that is one finding.
  const alone = part.findings.filter(
    ({ finding }) => finding.rule !== 'unportable-name' || !misspelt.has(finding.path),
  );
  return outcomeOf(rows, withoutEchoes([...alone.map(({ finding }) => asSequence(finding)), ...ends]));
}

/** One name in two folders is said only where nothing else is wrong with either file. */
function withoutEchoes(all: readonly Finding[]): Finding[] {
  if (!all.some((f) => f.rule === 'same-name')) return [...all];
  const said = new Set(all.flatMap((f) => (f.rule === 'same-name' ? [] : [f.path, ...f.related])));
  return all.filter(
    (f) => f.rule !== 'same-name' || [f.path, ...f.related].filter((path) => !said.has(path)).length > 1,
  );
}

/** Ordered by path, then by rule; counted. */
export function outcomeOf(rows: readonly FolderRow[], all: readonly Finding[]): CheckOutcome {
  const findings = [...all].sort((a, b) =>
    a.path === b.path ? (a.rule < b.rule ? -1 : a.rule > b.rule ? 1 : a.id < b.id ? -1 : 1) : a.path < b.path ? -1 : 1,
  );
  const summary = {
    must: 0,
    should: 0,
    note: 0,
    files: rows.reduce((n, r) => n + r.files, 0),
    folders: Math.max(0, rows.length - 1),
  };
  for (const { weight } of findings) summary[weight]++;
  return { summary, bytes: rows.reduce((n, r) => n + r.bytes, 0), findings, rows };
}

/** A whole listing at once, for sources that are small or already in memory. */
export function checkListing(rules: ProjectRules, folders: readonly FolderListing[]): CheckOutcome {
  const checker = new Checker(rules);
  const seen = new Map<string, FolderListing>();
  for (const folder of withWholeDocuments(rules.isDocumentFolder, folders)) {
    const own = folder.path === '.nesting' || folder.path.startsWith('.nesting/');
    if (own) continue;
    const listing = { ...folder, folders: folder.folders.filter((name) => !isOwn(folder.path, name)) };
    seen.set(listing.path, listing);
    checker.folder(listing);
  }
  return mergeChecks(rules, [checker.part()], (path) => seen.get(path) ?? null);
}

/** Findings about names, whose others are frames. */
const OF_FRAMES: ReadonlySet<RuleCode> = new Set(ALL.flatMap((r) => (r.file === undefined ? [] : [r.code])));

/** The first frame stands for a sequence; the others are related to it. */
function asSequence(finding: Finding): Finding {
  if (finding.related.length === 0 || !OF_FRAMES.has(finding.rule)) return finding;
  const [path = finding.path, ...related] = [finding.path, ...finding.related].sort();
  const params = { ...finding.params, name: nameOf(path), frames: related.length + 1 };
  return { ...finding, path, related, params } as Finding;
}
