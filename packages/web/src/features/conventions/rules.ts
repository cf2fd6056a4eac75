/**
 * What a convention leans on beside itself: the fields of the template that uses it, the registers, a project's own
 * values.
 */
import type { ConventionRow, ProjectRow, TemplateRow } from '@nesting/contract';
import { type Field, mergeRegisters, type NameContext, type Registers } from '@nesting/core/name';
import { type Convention, ownRegisters } from '@nesting/core/template';
import type { RuleInput } from '../../workers/compile-rule';

export interface Leaning {
  /** Fields of the template and entries of its lists, by the names they go by in its folders. */
  readonly fields: readonly Field[];
  readonly registers: Registers;
  /** The template they come from. */
  readonly from: string | null;
}

export function leaningOf(
  row: Pick<ConventionRow, 'usedIn'>,
  templates: readonly TemplateRow[],
  studio: Registers,
): Leaning {
  const used = templates.find((t) => row.usedIn.some((u) => u.template === t.id));
  if (used === undefined) return { fields: [], registers: studio, from: null };
  const { template } = used;
  const entries = template.fields.flatMap((f): Field[] =>
    f.type === 'list' ? [{ key: f.key.replace(/s$/, ''), ...f.of }] : [],
  );
  return {
    fields: [...entries, ...template.fields],
    registers: mergeRegisters(ownRegisters(template), studio),
    from: used.name,
  };
}

/** A convention's own fields come before those it leans on. */
export const inputOf = (convention: Convention, leaning: Leaning, project: ProjectRow | null): RuleInput => ({
  pattern: convention.pattern,
  fields: [...(convention.fields ?? []), ...leaning.fields],
  registers: leaning.registers,
  families: convention.families,
  number: project?.number,
});

export function contextOf(leaning: Leaning, project: ProjectRow | null): NameContext {
  const bound = project ? { number: project.number, ...(project.client !== null && { client: project.client }) } : {};
  return { bound, known: {}, abbreviations: leaning.registers.abbreviations, banned: leaning.registers.banned };
}
