/** A project's plan → the changes that make it, its marker and its rules in `.nesting` included. */

import type { Change } from '../change/change';
import { type OrderFault, orderChanges } from '../change/order';
import { isMaking, type MakingStep } from '../change/perform';
import type { Registers, Values } from '../name/pattern/field';
import { OWN_FOLDER } from '../project/own-folder';
import { signpostFiles } from '../project/signpost-files';
import { signpostsOf } from '../project/signposts';
import { failure, type Result, success } from '../result';
import type { Expansion, PlannedLine } from '../template/expansion';
import type { Template } from '../template/node';

/** What stands in `.nesting/project.json`: enough to recognise a project whose folder was moved. */
export interface Marker {
  readonly format: 'nesting/marker';
  readonly formatVersion: 1;
  /** The project's id. */
  readonly project: string;
  readonly template: { readonly id: string; readonly name: string; readonly edition: number };
  readonly values: Values;
  /** ISO 8601. */
  readonly started: string;
}

export const MARKER_PATH = `${OWN_FOLDER}/project.json`;
export const MARKER_TEMPLATE_PATH = `${OWN_FOLDER}/template.nest.json`;
export const MARKER_REGISTERS_PATH = `${OWN_FOLDER}/registers.json`;

export interface StartPlan {
  readonly template: Template;
  readonly expansion: Expansion;
  readonly project: string;
  readonly started: string;
}

/** Keys of kept contents are the starter's `from`, with `fill:` in front where it is filled in. */
export function startChanges(plan: StartPlan): Change[] {
  const { expansion } = plan;
  const changes = expansion.lines
    .filter((line) => line.made && line.path !== '')
    .map(
      (line): Change => ({
        key: line.key,
        what: line.kind,
        before: null,
        after: line.path,
        content:
          line.starter === null
            ? null
            : { kind: 'kept', key: `${line.starter.fill ? 'fill:' : ''}${line.starter.from}` },
      }),
    );
  return [
    ...changes,
    { key: OWN_FOLDER, what: 'folder', before: null, after: OWN_FOLDER, content: null },
    ...ownFiles(plan).map(
      ({ path, text }): Change => ({
        key: path,
        what: 'file',
        before: null,
        after: path,
        content: { kind: 'text', text },
      }),
    ),
  ];
}

/** A start's changes only make what is new: their steps do too. A plan with a fault has no steps at all. */
export function makingSteps(changes: readonly Change[]): Result<readonly MakingStep[], OrderFault> {
  const { steps, faults } = orderChanges(changes);
  return faults.length > 0 ? failure(faults) : success(steps.filter(isMaking));
}

/** What stands in a project's own folder: its marker, its rules as they are for it, and its signposts for programs. */
export function ownFiles(plan: StartPlan): readonly { readonly path: string; readonly text: string }[] {
  const json = (data: unknown) => `${JSON.stringify(data, null, 2)}\n`;
  return [
    { path: MARKER_PATH, text: json(markerOf(plan)) },
    { path: MARKER_TEMPLATE_PATH, text: json(plan.template) },
    { path: MARKER_REGISTERS_PATH, text: json(plan.expansion.registers satisfies Registers) },
    ...signpostFiles(MARKER_PATH, signpostsOf(plan.expansion)).map(({ name, text }) => ({
      path: `${OWN_FOLDER}/${name}`,
      text,
    })),
  ];
}

/**
 * What is made on other volumes, by volume: redirected folders with all that is in them, and the folders that lead to
 * them.
 */
export function redirectedChanges(expansion: Expansion): ReadonlyMap<string, readonly Change[]> {
  const byKey = new Map(expansion.lines.map((l) => [l.key, l]));
  const out = new Map<string, Map<string, Change>>();
  for (const line of expansion.lines) {
    if (line.elsewhere?.made !== true) continue;
    const changes = out.get(line.elsewhere.volume) ?? new Map<string, Change>();
    out.set(line.elsewhere.volume, changes);
    for (
      let at: PlannedLine | undefined = line;
      at !== undefined && at.path !== '' && !changes.has(at.key);
      at = byKey.get(at.parent ?? '')
    ) {
      const { key, kind, path, starter } = at;
      changes.set(key, {
        key,
        what: kind,
        before: null,
        after: path,
        content: starter === null ? null : { kind: 'kept', key: `${starter.fill ? 'fill:' : ''}${starter.from}` },
      });
    }
  }
  return new Map([...out].map(([volume, changes]) => [volume, [...changes.values()]]));
}

function markerOf({ template, expansion, project, started }: StartPlan): Marker {
  return {
    format: 'nesting/marker',
    formatVersion: 1,
    project,
    template: { id: template.id, name: template.name, edition: template.edition ?? 1 },
    values: expansion.values.values,
    started,
  };
}
