/** Entries that a project has to have before loose files come: its folder grows by itself, and its marker follows. */
import type { Change } from '../../change/change';
import { type CheckInput, ProjectRules } from '../../project/rules';
import { type DiskView, reshape } from '../reshape';
import { type Marker, ownFileChanges } from '../start';
import { type NewEntry, withEntries } from './days';

export interface GrowingFolder extends DiskView {
  readonly marker: Marker;
  /** Texts of the project's own folder; `null` where there is no such file. */
  readonly textAt: (path: string) => string | null;
}

export interface Growth {
  /** What the project is by then. */
  readonly input: CheckInput;
  readonly changes: readonly Change[];
  /** Starter files that new folders begin with, and that only the house has: they are not made. */
  readonly starters: readonly string[];
}

export function growingBy(
  entries: readonly NewEntry[],
  before: CheckInput,
  { marker, textAt, ...there }: GrowingFolder,
): Growth {
  if (entries.length === 0) return { input: before, changes: [], starters: [] };
  const rules = new ProjectRules(before);
  const input = { ...before, values: withEntries(rules, before.values, entries) };
  const grown = new ProjectRules(input);
  const { changes } = reshape({ before: rules, after: grown, there });
  const isStarter = ({ content }: Change): boolean => content?.kind === 'starter';
  const { project, started, settings } = marker;
  const plan = { template: input.template, expansion: grown.expansion, project, started, settings };
  return {
    input,
    changes: [...changes.filter((change) => !isStarter(change)), ...ownFileChanges(plan, textAt)],
    starters: changes.filter(isStarter).map(({ after }) => after?.path ?? ''),
  };
}
