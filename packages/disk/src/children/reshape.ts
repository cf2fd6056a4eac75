/** Tasks that plan what a project becomes: expanding and comparing rules takes its time, and looks at the disk. */
import { createHash } from 'node:crypto';
import { type Change, codeOf, type OrderFault, orderChanges } from '@nesting/core/change';
import type { Registers, Values } from '@nesting/core/name';
import {
  type Extra,
  type Marker,
  ownFileChanges,
  type Reshape,
  type ReshapeLine,
  reshape,
} from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { type Diagnostic, type Expansion, expandTemplate, type Template } from '@nesting/core/template';
import { inRoot } from '../roots/open';
import { readText } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import type { Root } from '../roots/root';
import { namesIn } from '../walk';
import type { OfWhere } from './looks';

export interface ReshapeTask extends OfWhere {
  readonly before: CheckInput;
  readonly after: CheckInput;
  readonly renamed: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly extra: readonly Extra[];
  readonly keep: readonly string[];
  /** What stands before the project's own folder in whole paths. */
  readonly prefix: string;
  readonly project: ProjectOfMarker;
  /** Lines that are handed back: beyond these nobody reads on, and the counts say the rest. */
  readonly mostLines: number;
  /** Whether the changes themselves are wanted too: there may be very many. */
  readonly withChanges: boolean;
}

/** What a project's marker says of it that its rules do not. */
export interface ProjectOfMarker {
  readonly id: string;
  /** ISO 8601. */
  readonly startedAt: string;
  readonly settings?: Marker['settings'];
}

/** A plan, and all that is judged of it. */
export interface PlannedReshape {
  readonly lines: readonly ReshapeLine[];
  /** How many lines there are. */
  readonly all: number;
  readonly counts: Readonly<Partial<Record<ReshapeLine['sign'], number>>>;
  readonly kept: number;
  /** What the project's own folder is called by the rules before and after. */
  readonly rootNames: { readonly before: string; readonly after: string };
  readonly values: Values;
  readonly registers: Registers;
  readonly longest: number;
  readonly budget: number;
  /** Some of the faults that refuse it. */
  readonly refused: readonly Diagnostic[];
  readonly orderFaults: readonly OrderFault[];
  /** Stands for all changes: another one, another plan. */
  readonly fingerprint: string;
  /** Of what is planned; empty where they were not wanted, as those of the program's own files are. */
  readonly changes: readonly Change[];
  readonly own: readonly Change[];
}

/** Faults of a kind that are told. */
const MOST_FAULTS = 20;

/** A project's plan from one set of rules to another, by what lies on the disk. */
export const planReshape = (task: ReshapeTask): PlannedReshape => inRoot(task.where, (root) => planIn(root, task));

function planIn(root: Root, { before, after, prefix, renamed, extra, keep, ...task }: ReshapeTask): PlannedReshape {
  const rules = { before: new ProjectRules(before), after: new ProjectRules(after) };
  const plan = reshape({
    ...rules,
    there: {
      look: (path) => standingAt(root, path),
      files: (folder) => namesIn(root, folder).files,
    },
    renamed,
    extra,
    keep: new Set(keep),
  });
  const { expansion } = rules.after;
  // Paths are measured where they are.
  const judged = expandTemplate(after.template, after.values, after.registers, { prefix });
  const own = ownChangesIn(root, after.template, expansion, task.project);
  return {
    ...shownOf(plan, task.mostLines),
    rootNames: { before: rules.before.expansion.rootName, after: expansion.rootName },
    values: expansion.values.values,
    registers: expansion.registers,
    longest: judged.longest,
    budget: judged.budget,
    refused: judged.diagnostics.filter((d) => d.weight === 'refused').slice(0, MOST_FAULTS),
    orderFaults: orderChanges([...plan.changes, ...own]).faults.slice(0, MOST_FAULTS),
    fingerprint: createHash('sha256').update(JSON.stringify(plan.changes)).digest('hex'),
    changes: task.withChanges ? plan.changes : [],
    own: task.withChanges ? own : [],
  };
}

function shownOf(
  { lines, kept }: Reshape,
  mostLines: number,
): Pick<PlannedReshape, 'lines' | 'all' | 'counts' | 'kept'> {
  const counts: Partial<Record<ReshapeLine['sign'], number>> = {};
  for (const { sign, count } of lines) counts[sign] = (counts[sign] ?? 0) + count;
  return { lines: lines.slice(0, mostLines), all: lines.length, counts, kept };
}

/** Bytes of a file of the program's own. */
const MOST_OWN = 64 * 2 ** 20;

/** The marker and the rules in the project's own folder follow its rules; what is so already is left. */
function ownChangesIn(
  root: Root,
  template: Template,
  expansion: Expansion,
  { id, startedAt, settings }: ProjectOfMarker,
): readonly Change[] {
  const plan = { template, expansion, project: id, started: startedAt, settings };
  return ownFileChanges(plan, (path) => textAt(root, path));
}

function textAt(root: Root, path: string): string | null {
  try {
    return readText(root, path, MOST_OWN);
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return null;
    throw error;
  }
}

export interface OwnTask extends OfWhere {
  readonly rules: CheckInput;
  readonly project: ProjectOfMarker;
}

export const ownChanges = ({ where, rules, project }: OwnTask): readonly Change[] =>
  inRoot(where, (root) =>
    ownChangesIn(root, rules.template, expandTemplate(rules.template, rules.values, rules.registers), project),
  );

/** Keys of all lines that any of these rules plan. Looks at no disk. */
export function plannedKeys({ rules }: { readonly rules: readonly CheckInput[] }): ReadonlySet<string> {
  const keys = new Set<string>();
  for (const { template, values, registers } of rules)
    for (const line of expandTemplate(template, values, registers).lines) keys.add(line.key);
  return keys;
}
