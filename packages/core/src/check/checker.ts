/**
 * Judges folder by folder, in any order, and remembers what only the whole can tell. Several may share one project,
 * each with some of its folders.
 */
import { type FileEntry, type FolderListing, join } from '../listing/entry';
import { readName } from '../name/read/read';
import { ordinal } from '../name/versions';
import type { FolderConvention } from '../project/folder-convention';
import { frameless } from '../project/frameless';
import { GENERATED } from '../project/generated';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import { textHash } from '../text/hash';
import { dayCounts } from './days';
import type { Finding } from './finding';
import { type AloneSide, type FolderRow, type RunMark, tablesBy } from './gathered';
import { chainKey, type FolderItems, itemsOf, stemOf } from './items';
import { judgeFile, OF_FOLDERS } from './judges';
import { makeFinding } from './make-finding';
import { type FolderState, stateOf } from './match';
import { suggestedBy } from './name-causes';
import { TableMaker } from './number-table';
import type { PartialResult } from './partial-result';
import type { RuleCode } from './registry';
import type { FileCase, FolderCase, RawFinding, Rule } from './rule';
import { companionApart, companionMissing } from './rules/companions';
import { ownOf, readForeign } from './rules/foreign-project';
import { NOTE } from './rules/licence-missing';
import { sameContent } from './rules/same-content';
import { sameName } from './rules/same-name';
import { versionGap } from './rules/version-gap';

/** Files of an unplanned folder that tell what it is. */
const TELLING = 40;

export class Checker {
  private readonly findings = new Map<
    string,
    { readonly row: number; readonly finding: Finding & { related: string[] } }
  >();
  private readonly rows: FolderRow[] = [];
  private readonly starters: { row: number; key: string }[] = [];
  private readonly alone: AloneSide[] = [];
  private readonly runs: RunMark[] = [];
  private readonly tables = {
    sizes: new TableMaker(),
    names: new TableMaker(),
    documents: new TableMaker(),
    chains: new TableMaker(),
    versions: new TableMaker(),
  };
  /** Findings about frames, by their path without the frame. */
  private readonly sequences = new Map<string, { related: string[] }>();
  private readonly indexed: {
    readonly sizes: boolean;
    readonly names: boolean;
    readonly documents: boolean;
    readonly chains: boolean;
  };

  constructor(private readonly rules: ProjectRules) {
    const on = (...some: readonly Rule[]) => some.some((rule) => rules.weightOf(rule) !== 'off');
    this.indexed = {
      sizes: on(sameContent),
      names: on(sameName),
      documents: rules.anyCompanions && on(companionMissing, companionApart),
      chains: on(versionGap),
    };
  }

  folder(listing: FolderListing): void {
    const { rules } = this;
    const state = stateOf(rules, listing.path);
    // In what no rule knows only its place is said.
    const judged = state.kind === 'planned' || state.kind === 'free' || state.kind === 'unplanned';
    const items = itemsOf(rules, listing, state);
    this.rows.push(rowOf(rules, listing, state, items));
    if (judged) this.judge({ rules, listing, state, items });
    for (const table of Object.values(this.tables)) table.close();
  }

  part(): PartialResult {
    return {
      rows: this.rows,
      findings: [...this.findings.values()],
      starters: this.starters,
      alone: this.alone,
      runs: this.runs,
      ...tablesBy((name) => this.tables[name].table()),
    };
  }

  private get row(): number {
    return this.rows.length - 1;
  }

  private judge(folderCase: FolderCase): void {
    const { listing, state, items } = folderCase;
    const claimed = new Set<string>();
    for (const { rule, judge } of OF_FOLDERS) {
      for (const found of judge(folderCase)) {
        this.add(rule, found);
        if (rule.claims) for (const path of [found.path, ...(found.related ?? [])]) claimed.add(path);
      }
    }
    for (const key of items.starters) this.starters.push({ row: this.row, key });
    // Generated files are alike by nature, and nobody opens one for another.
    const ordinary = state.kind !== 'planned' || state.line.rules.accepts?.includes(GENERATED) !== true;
    if (state.kind === 'planned') this.files(folderCase, state.line, claimed);
    if (this.indexed.sizes && ordinary) this.sizes(listing, items);
    if (this.indexed.documents) this.documents(listing.files);
    for (const { file, stem, families } of items.alone)
      this.alone.push({ row: this.row, name: file.name, modified: file.modified, stem, families });
  }

  private files({ rules, listing, items }: FolderCase, line: PlannedLine, claimed: ReadonlySet<string>): void {
    const named = this.indexed.names && !line.rules.free && line.rules.accepts?.includes(GENERATED) !== true;
    for (const { file, by, reading } of items.read) {
      if (named) this.name(file.name);
      if (reading.version !== undefined) this.version(line, by, reading);
    }
    // Not every version of a work is rendered: sequences have no chain.
    if (named) for (const run of items.runs) this.name(`${run.head}#${run.tail}`);
    for (const { file, conventions } of items.open) {
      const path = join(listing.path, file.name);
      if (claimed.size > 0 && claimed.has(path)) continue;
      const fileCase: FileCase = { rules, path, file, line, listing, conventions };
      if (this.isFrameOfKnown(fileCase)) continue;
      if (this.file(fileCase)) this.meantVersion(fileCase);
      else if (named) this.name(file.name);
    }
  }

  private file(fileCase: FileCase): boolean {
    const judged = judgeFile(fileCase);
    if (judged === null) return false;
    this.add(judged.rule, { modified: fileCase.file.modified, ...judged.found });
    return true;
  }

  private name(name: string): void {
    if (!NOTE.test(name)) this.tables.names.push(textHash(name.toLowerCase()));
  }

  private sizes(listing: FolderListing, items: FolderItems): void {
    const push = (file: FileEntry) => file.size > 0 && !file.isFolder && this.tables.sizes.push(file.size);
    for (const { file } of items.read) push(file);
    for (const { file } of items.open) push(file);
    for (const file of items.cleared) push(file);
    for (const { file } of items.alone) push(file);
    for (const { head, tail, frames, bytes } of items.runs)
      if (bytes > 0)
        this.runs.push({ row: this.row, head: join(listing.path, head), tail, frames: frames.length, bytes });
  }

  private documents(files: readonly FileEntry[]): void {
    for (const { name } of files) {
      const family = this.rules.familyOf(name);
      if (family !== null && this.rules.hasCompanions(family))
        this.tables.documents.push(textHash(`${family}/${stemOf(name)}`));
    }
  }

  private version(line: PlannedLine, by: FolderConvention, reading: Readonly<Record<string, string | number>>): void {
    if (!this.indexed.chains || reading.version === undefined) return;
    this.tables.chains.push(textHash(`${line.key}|${chainKey(by, reading)}`));
    this.tables.versions.push(ordinal(reading.version));
  }

  /** The version a broken or misplaced name stands for is there all the same: no chain is broken by it. */
  private meantVersion(fileCase: FileCase): void {
    const { rules, file, line, conventions } = fileCase;
    if (!this.indexed.chains) return;
    const home = rules.homeOf(file.name);
    for (const by of home === null ? conventions : rules.conventionsIn(home)) {
      const meant = home === null ? readForeign(by, file.name) : readName(by.strict, file.name, by.bound);
      if (meant?.version === undefined || meant.frame !== undefined) continue;
      this.version(home ?? line, by, ownOf(by, meant));
      return;
    }
    const suggested = suggestedBy(fileCase);
    if (suggested !== null && suggested.reading.frame === undefined)
      this.version(line, suggested.by, suggested.reading);
  }

  /** A frame of a sequence that was found already has nothing new to say: it is not explained again. */
  private isFrameOfKnown({ conventions, path }: FileCase): boolean {
    const framed = conventions.find((c) => c.strict.slots.some((s) => s.field === 'frame'));
    const subject = framed === undefined ? undefined : frameless(framed.strict, path).subject;
    const known = subject === undefined ? undefined : this.sequences.get(subject);
    known?.related.push(path);
    return known !== undefined;
  }

  private add(rule: Rule<RuleCode>, found: RawFinding<object>): void {
    const finding = makeFinding(this.rules, rule, found);
    if (finding === null) return;
    // One subject, one finding: the frames of a sequence share theirs.
    const known = this.findings.get(finding.id);
    if (known !== undefined) {
      known.finding.related.push(finding.path);
      return;
    }
    const first = { ...finding, related: [...finding.related] };
    this.findings.set(finding.id, { row: this.row, finding: first });
    if (found.subject !== undefined && rule.file !== undefined) this.sequences.set(found.subject, first);
  }
}

function rowOf(rules: ProjectRules, listing: FolderListing, state: FolderState, items: FolderItems): FolderRow {
  let bytes = 0;
  let newest = 0;
  const families: Record<string, number> = {};
  for (const file of listing.files) {
    bytes += file.size;
    if (file.modified > newest) newest = file.modified;
  }
  for (const run of items.runs) {
    const family = rules.familyOf(run.first) ?? '';
    families[family] = (families[family] ?? 0) + run.bytes;
  }
  // Frames were counted by their sequence; what is left is few, or of no sequence.
  if (items.runs.length === 0 || items.read.length + items.open.length + items.cleared.length + items.alone.length > 0)
    countSingles(rules, listing, items, families);
  const meant = state.kind === 'unplanned' ? meantFolder(rules, listing.files) : undefined;
  const dates = state.kind === 'planned' ? dayCounts(rules, state.line, listing.path, items) : undefined;
  return {
    path: listing.path,
    files: listing.files.length,
    bytes,
    newest,
    state: state.kind,
    families,
    ...(listing.changed !== undefined && { changed: listing.changed }),
    ...(items.starterBytes > 0 && { starterBytes: items.starterBytes }),
    ...(rules.isSettling(newest) && { settling: true }),
    ...(meant !== undefined && { meant }),
    ...(dates !== undefined && { dates }),
  };
}

function countSingles(
  rules: ProjectRules,
  listing: FolderListing,
  items: FolderItems,
  families: Record<string, number>,
): void {
  const count = (file: FileEntry) => {
    const family = rules.familyOf(file.name) ?? '';
    families[family] = (families[family] ?? 0) + file.size;
  };
  if (items.runs.length === 0) {
    for (const file of listing.files) count(file);
    return;
  }
  for (const { file } of items.read) count(file);
  for (const { file } of items.open) count(file);
  for (const { file } of items.alone) count(file);
  for (const file of items.cleared) count(file);
}

/** The planned folder whose names most of these files have. */
function meantFolder(rules: ProjectRules, files: readonly FileEntry[]): string | undefined {
  const votes = new Map<string, number>();
  const asked = files.slice(0, TELLING);
  for (const { name } of asked) {
    const home = rules.homeOf(name);
    if (home !== null) votes.set(home.key, (votes.get(home.key) ?? 0) + 1);
  }
  const [key, most] = [...votes].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
  return most >= 2 && most * 3 >= asked.length * 2 ? key : undefined;
}
