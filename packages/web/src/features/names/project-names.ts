/**
 * What can be saved in a project, and what a name found somewhere means in it: worked out in the browser from the
 * project's own rules.
 */

import type { ProjectPage } from '@nesting/contract';
import { present } from '@nesting/core';
import { type CompiledConvention, explainName, type NameContext, type Registers, readName } from '@nesting/core/name';
import { type FolderConvention, ProjectRules } from '@nesting/core/project';
import type { Convention, PlannedLine } from '@nesting/core/template';
import { type Tried, tryName } from '../conventions/tried';

/** A convention of the project with the folders in which it holds. */
export interface Savable {
  readonly convention: Convention;
  readonly places: readonly { readonly line: PlannedLine; readonly rule: FolderConvention }[];
}

export interface ProjectNames {
  readonly rules: ProjectRules;
  readonly savable: readonly Savable[];
}

export function projectNames(project: ProjectPage, registers: Registers): ProjectNames {
  const rules = new ProjectRules({ template: project.body, values: project.values, registers });
  const by = new Map<string, { convention: Convention; places: { line: PlannedLine; rule: FolderConvention }[] }>();
  for (const line of rules.expansion.lines) {
    if (line.kind !== 'folder') continue;
    for (const rule of rules.conventionsIn(line)) {
      const held = by.get(rule.convention.id) ?? { convention: rule.convention, places: [] };
      held.places.push({ line, rule });
      by.set(rule.convention.id, held);
    }
  }
  return { rules, savable: [...by.values()] };
}

/** Fields a person fills in: what the folder and the project settle, and the version, are not asked for. */
export function askedSlots({ strict, bound }: FolderConvention): CompiledConvention['slots'] {
  const seen = new Set(['version', 'frame', 'number', ...Object.keys(bound)]);
  return strict.slots.filter(({ field }) => !seen.has(field) && seen.add(field));
}

export interface Meaning {
  readonly convention: Convention;
  readonly tried: Tried;
  /** Folders in which the name, or the one it was meant to be, belongs. */
  readonly folders: readonly string[];
}

/** The convention that reads a name or explains it best, and where a file of that name belongs. */
export function meaningOf({ rules, savable }: ProjectNames, name: string): Meaning | null {
  const open: NameContext['bound'] = {
    ...(rules.number !== undefined && { number: rules.number }),
    ...(rules.client !== undefined && { client: rules.client }),
  };
  const all = savable.flatMap(({ convention, places }) => {
    const [first] = places;
    if (first === undefined) return [];
    const { strict } = first.rule;
    const context = {
      ...first.rule.context,
      bound: Object.fromEntries(
        strict.slots.flatMap((s) => (open[s.field] === undefined ? [] : [[s.field, present(open[s.field])]])),
      ),
    };
    const tried = tryName(strict, context, name);
    const cost = tried.ok ? -1 : explainName(strict, name, context).problems.length + (tried.meant === null ? 100 : 0);
    const right = tried.ok ? name : tried.meant;
    const folders =
      right === null
        ? []
        : places.filter(({ rule }) => readName(rule.strict, right, rule.bound) !== null).map(({ line }) => line.path);
    return [{ convention, tried, folders, cost }];
  });
  return all.sort((a, b) => a.cost - b.cost)[0] ?? null;
}
