/** Which files' own facts are held to what the setup sheet agreed, and what comes of it. */
import { grouped } from '../grouped';
import { nameOf, parentOf } from '../listing/entry';
import type { MediaFacts } from '../listing/media-facts';
import type { Agreed } from '../project/agreed';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import { settingTold } from '../template/settings';
import type { Finding } from './finding';
import { makeFinding } from './make-finding';
import { settingMismatch } from './rules/setting-mismatch';

/** What the content of one file tells; of a sequence that of a frame. */
export interface ToldFact {
  readonly kind: 'told';
  readonly path: string;
  readonly modified: number;
  readonly facts: MediaFacts;
}

const NONE: readonly Agreed[] = [];

/** What a file of the project can be held to; empty where its content need not be read for it. */
export function agreedFor(rules: ProjectRules, path: string): readonly Agreed[] {
  if (rules.weightOf(settingMismatch) === 'off') return NONE;
  const folder = plannedOver(rules, path);
  return folder === null ? NONE : rules.agreed.of(folder, nameOf(path));
}

/** The folder of the plan that a file lies in; where anything goes in it, also of what lies deeper. */
function plannedOver(rules: ProjectRules, path: string): PlannedLine | null {
  const own = parentOf(path);
  for (let at = own; ; at = parentOf(at)) {
    const line = rules.planned(at);
    if (line?.kind === 'folder') return at === own || line.rules.free === true ? line : null;
    if (at === '') return null;
  }
}

/** One setting that a file was made otherwise than. */
export interface Differing {
  /** Its label on the sheet. */
  readonly setting: string;
  readonly agreed: string;
  readonly found: string;
}

const NO_DIFFERENCE: readonly Differing[] = [];

/** What a file at a place of the project tells otherwise than was agreed for it. */
export function differingFrom(rules: ProjectRules, path: string, facts: MediaFacts): readonly Differing[] {
  const agreed = agreedFor(rules, path);
  if (agreed.length === 0) return NO_DIFFERENCE;
  return agreed.flatMap(({ label, fact, value }): Differing[] => {
    const told = settingTold(fact, value, facts);
    return told === null || told.isRight ? [] : [{ setting: label, agreed: value, found: told.found }];
  });
}

export function settingMismatches(rules: ProjectRules, told: readonly ToldFact[]): Finding[] {
  const wrong = told.flatMap(({ path, modified, facts }) =>
    differingFrom(rules, path, facts).map((differing) => ({ path, modified, ...differing })),
  );
  const alike = grouped(wrong, ({ path, setting, found }) => JSON.stringify([parentOf(path), setting, found]));
  return [...alike].flatMap(([subject, some]): Finding[] => {
    const [first, ...others] = [...some].sort((a, b) => (a.path < b.path ? -1 : 1));
    if (first === undefined) return [];
    const { path, setting, agreed, found } = first;
    const finding = makeFinding(rules, settingMismatch, {
      ...{ path, subject, related: others.map((one) => one.path) },
      params: { name: nameOf(path), setting, agreed, found, count: some.length },
      modified: some.reduce((newest, one) => Math.max(newest, one.modified), 0),
    });
    return finding === null ? [] : [finding];
  });
}
