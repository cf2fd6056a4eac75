/**
 * One comparison of a listing with the rules, folder by folder and in any order. Several checkers may share one project, each with
 * some of its folders; `mergeChecks` puts their parts together and looks at what only the whole can tell.
 */
import { type FolderListing, join, nameOf } from '../listing/entry';
import { readName } from '../name/read';
import type { CheckSummary, Finding, RuleCode } from './finding';
import { findingId } from './finding';
import type { CheckGround, FolderConvention } from './ground';
import { settleFolders } from './folders';
import { extensionOf } from './ground';
import { isOwn, stateOf } from './match';
import { RULES } from './registry';
import { frameless } from './sequence';
import type { FileCase, Found, Rule } from './rule';

/** Counts of one folder, for the map of the project. */
export interface FolderRow {
  readonly path: string;
  readonly files: number;
  readonly bytes: number;
  /** Newest file's time, milliseconds since 1970; 0 for none. */
  readonly newest: number;
  readonly state: 'planned' | 'free' | 'unplanned' | 'inside-unplanned';
}

/** What one checker saw. Plain data: it crosses from worker to worker. */
export interface CheckPart {
  readonly findings: readonly Finding[];
  readonly rows: readonly FolderRow[];
  /** Keys of planned files that are there. */
  readonly starters: readonly string[];
}

export interface CheckOutcome {
  readonly summary: CheckSummary;
  readonly bytes: number;
  readonly findings: readonly Finding[];
  readonly rows: readonly FolderRow[];
}

const folderRules = RULES.filter((r): r is Extract<Rule, { scope: 'folder' }> => r.scope === 'folder');
const fileRules = RULES.filter((r): r is Extract<Rule, { scope: 'file' }> => r.scope === 'file');
const endRules = RULES.filter((r): r is Extract<Rule, { scope: 'end' }> => r.scope === 'end');

/** What these say of a name is all that is said of it. */
const CLAIMS: ReadonlySet<RuleCode> = new Set(['unportable-name', 'path-too-long', 'name-clash']);

export class Checker {
  private readonly findings = new Map<string, Finding & { related: string[] }>();
  private readonly rows: FolderRow[] = [];
  private readonly starters: string[] = [];
  /** Findings about frames, by their path without the frame. */
  private readonly sequences = new Map<string, { related: string[] }>();

  constructor(private readonly ground: CheckGround) {}

  folder(listing: FolderListing): void {
    const { ground } = this;
    const state = stateOf(ground, listing.path);
    let bytes = 0;
    let newest = 0;
    for (const file of listing.files) {
      bytes += file.size;
      if (file.modified > newest) newest = file.modified;
    }
    this.rows.push({ path: listing.path, files: listing.files.length, bytes, newest, state: state.kind });
    // In what no rule knows only its place is said.
    if (state.kind === 'inside-unplanned') return;
    const claimed = new Set<string>();
    const folderCase = { ground, listing, state };
    for (const rule of folderRules) {
      for (const found of rule.judge(folderCase)) {
        this.add(rule, found);
        if (CLAIMS.has(rule.code)) for (const path of [found.path, ...(found.related ?? [])]) claimed.add(path);
      }
    }
    if (state.kind !== 'planned') return;
    this.files(listing, state.line, claimed);
  }

  part(): CheckPart {
    return { findings: [...this.findings.values()].map(asSequence), rows: this.rows, starters: this.starters };
  }

  private files(listing: FolderListing, line: FileCase['line'], claimed: ReadonlySet<string>): void {
    const { ground } = this;
    const conventions = ground.conventionsIn(line);
    const plansFiles = ground.plansFilesIn(line);
    for (const file of listing.files) {
      const planned = plansFiles ? ground.planned(join(listing.path, file.name)) : undefined;
      if (planned?.kind === 'file') {
        this.starters.push(planned.key);
        continue;
      }
      if (line.rules.free || (claimed.size > 0 && claimed.has(join(listing.path, file.name)))) continue;
      const mine = conventions.length === 0 ? conventions : conventionsFor(ground, conventions, line.rules.accepts, file.name);
      if (mine.some((c) => readName(c.strict, file.name, c.bound) !== null)) continue;
      const fileCase: FileCase = { ground, path: join(listing.path, file.name), file, line, listing, conventions: mine };
      if (this.isFrameOfKnown(fileCase)) continue;
      for (const rule of fileRules) {
        const found = rule.judge(fileCase);
        if (found === null) continue;
        this.add(rule, found);
        break;
      }
    }
  }

  /** A frame of a sequence that was found already has nothing new to say: it is not explained again. */
  private isFrameOfKnown({ conventions, path }: FileCase): boolean {
    const framed = conventions.find((c) => c.strict.slots.some((s) => s.field === 'frame'));
    const subject = framed === undefined ? undefined : frameless(framed.strict, path).subject;
    const known = subject === undefined ? undefined : this.sequences.get(subject);
    known?.related.push(path);
    return known !== undefined;
  }

  private add(rule: Rule, found: Found): void {
    const finding = findingOf(this.ground, rule, found);
    if (finding === null) return;
    // One subject, one finding: the frames of a sequence share theirs.
    const known = this.findings.get(finding.id);
    if (known !== undefined) {
      known.related.push(finding.path);
      return;
    }
    const first = { ...finding, related: [...finding.related] };
    this.findings.set(finding.id, first);
    if (found.subject !== undefined && rule.scope === 'file') this.sequences.set(found.subject, first);
  }
}

/** Conventions meant for files of this extension; where none is and the family is accepted all the same, no name is asked for. */
export function conventionsFor(ground: CheckGround, all: readonly FolderConvention[], accepts: readonly string[] | null, name: string): readonly FolderConvention[] {
  const fitting = all.filter((c) => c.extensions === null || c.extensions.has(extensionOf(name, c.extensions)));
  if (fitting.length > 0) return fitting;
  const family = ground.familyOf(name);
  return family !== null && accepts?.includes(family) ? [] : all;
}

function findingOf(ground: CheckGround, rule: Rule, found: Found): Finding | null {
  const weight = ground.weightOf(rule.code);
  if (weight === 'off') return null;
  return {
    id: findingId(rule.code, found.subject ?? found.path),
    rule: rule.code,
    weight,
    path: found.path,
    params: found.params,
    problems: found.explanation?.problems ?? [],
    stretches: found.explanation?.stretches ?? [],
    suggestion: found.explanation?.suggestions[0] ?? null,
    related: found.related ?? [],
  };
}

export function mergeChecks(ground: CheckGround, parts: readonly CheckPart[]): CheckOutcome {
  const rows = parts.flatMap((p) => p.rows).sort((a, b) => (a.path < b.path ? -1 : 1));
  const whole = { ground, rows, folders: settleFolders(ground, rows), starters: new Set(parts.flatMap((p) => p.starters)) };
  const ends = endRules.flatMap((rule) => rule.judge(whole).flatMap((found) => findingOf(ground, rule, found) ?? []));
  const findings = [...parts.flatMap((p) => p.findings), ...ends].sort((a, b) => (a.path === b.path ? (a.rule < b.rule ? -1 : 1) : a.path < b.path ? -1 : 1));
  const of = (weight: string) => findings.filter((f) => f.weight === weight).length;
  return {
    summary: { must: of('must'), should: of('should'), note: of('note'), files: rows.reduce((n, r) => n + r.files, 0), folders: Math.max(0, rows.length - 1) },
    bytes: rows.reduce((n, r) => n + r.bytes, 0),
    findings,
    rows,
  };
}

/** A whole listing at once, for sources that are small or already in memory. */
export function checkListing(ground: CheckGround, folders: Iterable<FolderListing>): CheckOutcome {
  const checker = new Checker(ground);
  for (const folder of folders) {
    const own = folder.path === '.nesting' || folder.path.startsWith('.nesting/');
    if (!own) checker.folder({ ...folder, folders: folder.folders.filter((name) => !isOwn(folder.path, name)) });
  }
  return mergeChecks(ground, [checker.part()]);
}

/** Findings about names, whose others are frames. */
const OF_FRAMES: ReadonlySet<RuleCode> = new Set(RULES.filter((r) => r.scope === 'file').map((r) => r.code));

/** The first frame stands for a sequence; the others are related to it. */
function asSequence(finding: Finding): Finding {
  if (finding.related.length === 0 || !OF_FRAMES.has(finding.rule)) return finding;
  const [path = finding.path, ...related] = [finding.path, ...finding.related].sort();
  return { ...finding, path, related, params: { ...finding.params, name: nameOf(path), frames: related.length + 1 } };
}
