/**
 * What can be told only by looking into files. Which files to look into is said folder by folder, so that the looking
 * can be shared out;
 * what they hold comes back as facts, and is judged here. The rest of a check does not wait for it.
 */
import { elementAt } from '../element';
import { grouped } from '../grouped';
import { type FileEntry, type FolderListing, join, nameOf, parentOf } from '../listing/entry';
import type { ProjectRules } from '../project/rules';
import { isInLibrary } from '../references/libraries';
import { isThere, targetOf } from '../references/target';
import { settingMismatches, type ToldFact } from './agreed-facts';
import { type CheckOutcome, outcomeOf } from './check';
import type { Finding } from './finding';
import { itemsOf, type Run } from './items';
import { makeFinding } from './make-finding';
import { stateOf } from './match';
import { repeatedIn, rowOf } from './number-table';
import type { PartialResult } from './partial-result';
import { RULES, type RuleCode } from './registry';
import type { Rule } from './rule';
import { absoluteReference, brokenReference, outsideReference } from './rules/references';
import { sameContent } from './rules/same-content';

/** Sizes that stand more than once: only such files can be the same. */
export interface ContentWants {
  readonly sizes: ReadonlySet<number>;
  /** Frames and bytes of sequences. */
  readonly runs: ReadonlySet<string>;
}

const runSize = (frames: number, bytes: number): string => `${frames}:${bytes}`;

export function contentWants(part: PartialResult): ContentWants {
  const sizes = new Set(
    repeatedIn(part.sizes.values).map((places) => elementAt(part.sizes.values, elementAt(places, 0))),
  );
  const runs = [...grouped(part.runs, (r) => runSize(r.frames, r.bytes))].flatMap(([size, alike]) =>
    alike.length > 1 ? [size] : [],
  );
  return { sizes, runs: new Set(runs) };
}

/** Folders, as places in the part's rows, that hold single files of one size. */
export function rowsOfSameSize(part: PartialResult): number[][] {
  return repeatedIn(part.sizes.values).map((places) => [...new Set(places.map((place) => rowOf(part.sizes, place)))]);
}

/** Files of one folder to be looked into. */
export interface ContentTasks {
  readonly hash: readonly FileEntry[];
  readonly runs: readonly Run[];
  /** To be searched for references, and for the project's own path. */
  readonly search: readonly FileEntry[];
}

export function contentTasks(rules: ProjectRules, listing: FolderListing, wants: ContentWants): ContentTasks {
  const state = stateOf(rules, listing.path);
  if (state.kind !== 'planned' && state.kind !== 'free') return { hash: [], runs: [], search: [] };
  const items = itemsOf(rules, listing, state);
  const first = new Set(items.runs.map((run) => run.first));
  const frames = new Set(items.runs.flatMap((run) => run.names));
  const starters = new Set(items.starters);
  const singles = listing.files.filter(
    (file) => file.size > 0 && !file.isFolder && !rules.isSettling(file.modified) && !frames.has(file.name),
  );
  const isStarter = (name: string) => starters.has(rules.planned(join(listing.path, name))?.key ?? '');
  return {
    hash:
      rules.weightOf(sameContent) === 'off'
        ? []
        : singles.filter((file) => wants.sizes.has(file.size) && !isStarter(file.name)),
    runs: items.runs.filter(
      (run) => wants.runs.has(runSize(run.frames.length, run.bytes)) && !rules.isSettling(run.newest),
    ),
    // Frames of one sequence are made alike: the first speaks for all.
    search: [...singles, ...listing.files.filter((file) => first.has(file.name))],
  };
}

export type ContentFact =
  | {
      readonly kind: 'hash';
      readonly path: string;
      readonly frames: number;
      readonly size: number;
      readonly modified: number;
      readonly sha256: string;
    }
  | {
      readonly kind: 'references';
      readonly path: string;
      readonly modified: number /** As they are meant. */;
      readonly targets: readonly string[] /** The project's own path stands in a file whose form is not read. */;
      readonly holdsRoot: boolean;
    }
  | ToldFact;

export interface ContentCase {
  readonly facts: readonly ContentFact[];
  /** Whole paths of the project's root, as each system has it. */
  readonly roots: readonly string[];
  readonly namesIn: (folder: string) => ReadonlySet<string> | null;
}

/** What was found without a look into files, and what is found by it. */
export function withContents(rules: ProjectRules, outcome: CheckOutcome, given: ContentCase): CheckOutcome {
  const told = given.facts.filter((fact) => fact.kind === 'told');
  const found = [...sameContents(rules, given.facts), ...references(rules, given), ...settingMismatches(rules, told)];
  return outcomeOf(outcome.rows, withoutCopies([...outcome.findings, ...found]));
}

function sameContents(rules: ProjectRules, facts: readonly ContentFact[]): Finding[] {
  const hashes = facts.filter((f) => f.kind === 'hash');
  return [...grouped(hashes, (f) => `${f.sha256}:${f.frames}`)].flatMap(([content, alike]): Finding[] => {
    const [first, ...others] = [...alike].sort((a, b) => (a.path < b.path ? -1 : 1));
    if (first === undefined || others.length === 0) return [];
    const params = { name: nameOf(first.path), count: alike.length, bytes: first.size * others.length };
    const finding = makeFinding(rules, sameContent, {
      path: first.path,
      subject: content,
      params,
      related: others.map((o) => o.path),
      modified: alike.reduce((n, f) => Math.max(n, f.modified), 0),
    });
    return finding === null ? [] : [finding];
  });
}

type ReferenceRule = typeof absoluteReference | typeof outsideReference | typeof brokenReference;

function references(rules: ProjectRules, { facts, roots, namesIn }: ContentCase): Finding[] {
  const libraries = rules.registers.libraries ?? [];
  return facts.flatMap((fact): Finding[] => {
    if (fact.kind !== 'references') return [];
    const by = new Map<ReferenceRule, string[]>();
    const say = (rule: ReferenceRule, target: string) => by.set(rule, [...(by.get(rule) ?? []), target]);
    if (fact.holdsRoot) say(absoluteReference, roots[0] ?? '');
    for (const written of fact.targets) {
      const target = targetOf(fact.path, written, roots);
      if (isInLibrary(target, { file: fact.path, roots, libraries })) continue;
      if (target.kind === 'absolute') say(absoluteReference, target.path);
      else if (target.kind === 'outside') say(outsideReference, target.path);
      else if (
        target.kind === 'inside' &&
        !isThere(target.path, namesIn) &&
        !isToCome(rules, fact.path, target.path, namesIn)
      )
        say(brokenReference, written);
    }
    return [...by].flatMap(([rule, targets]) => {
      const all = [...new Set(targets)];
      const found = {
        path: fact.path,
        params: { name: nameOf(fact.path), targets: all.slice(0, 3), count: all.length },
        modified: fact.modified,
      };
      return makeFinding(rules, rule, found) ?? [];
    });
  });
}

/** A file of the plan may refer to what is still to be made: its folder is planned, and nothing has come into it yet. */
function isToCome(rules: ProjectRules, from: string, target: string, namesIn: ContentCase['namesIn']): boolean {
  if (rules.planned(from)?.kind !== 'file') return false;
  const folder = parentOf(target);
  if (rules.planned(folder)?.kind !== 'folder') return false;
  return [...(namesIn(folder) ?? [])].every((name) => rules.planned(join(folder, name)) !== undefined);
}

const ALL: readonly Rule<RuleCode>[] = RULES;

/** Findings about one file's name or place. */
const OF_FILES: ReadonlySet<RuleCode> = new Set([
  ...ALL.flatMap((r) => (r.file === undefined ? [] : [r.code])),
  'same-name',
]);

/** A copy of a file that is in order is only that: what its name and place are is not said besides. */
function withoutCopies(all: readonly Finding[]): Finding[] {
  const wrong = new Set(all.flatMap((f) => (OF_FILES.has(f.rule) ? [f.path] : [])));
  const copies = new Set<string>();
  for (const finding of all) {
    if (finding.rule !== 'same-content') continue;
    const paths = [finding.path, ...finding.related];
    if (paths.filter((path) => !wrong.has(path)).length === 1) for (const path of paths) copies.add(path);
    // Two that are right but for their being the same have one name by right: the name is no second cause.
    else
      for (const path of paths)
        if (all.some((f) => f.rule === 'same-name' && f.path === path && f.related.every((r) => paths.includes(r))))
          copies.add(path);
  }
  return copies.size === 0 ? [...all] : all.filter((f) => !OF_FILES.has(f.rule) || !copies.has(f.path));
}
