/** Conventions of all templates, each once, with where it is used; and one compiled as it holds in a project, or in none. */
import type { ProjectRow, TemplateRow } from '@nesting/contract';
import { type Ambiguity, type CompiledConvention, compileConvention, type Convention, mergeRegisters, type NameContext, ownRegisters, parsePattern, proveOneWay, type Registers } from '@nesting/core';

export interface RuleRow {
  readonly key: string;
  readonly convention: Convention;
  /** The first template that has it: its fields and registers are the ones it is read with. */
  readonly template: TemplateRow;
  readonly usedIn: readonly string[];
}

export function rulesOf(templates: readonly TemplateRow[]): RuleRow[] {
  const rows = new Map<string, RuleRow>();
  for (const template of templates) {
    for (const convention of template.template.conventions) {
      const same = `${convention.name}\n${convention.pattern}`;
      const known = rows.get(same);
      rows.set(same, known ? { ...known, usedIn: [...known.usedIn, template.name] } : { key: `${template.id}/${convention.id}`, convention, template, usedIn: [template.name] });
    }
  }
  return [...rows.values()];
}

export interface ReadyRule {
  readonly compiled: CompiledConvention;
  readonly verdict: Ambiguity | 'one-way' | null;
  readonly context: NameContext;
}

/** `null` where the pattern cannot be used as it stands. */
export function readyRule(row: RuleRow, studio: Registers, project: ProjectRow | null): ReadyRule | null {
  const { template } = row.template;
  const registers = mergeRegisters(ownRegisters(template), studio);
  const pattern = parsePattern(row.convention.pattern);
  const lists = template.fields.flatMap((f) => (f.type === 'list' ? [{ key: f.key.replace(/s$/, ''), ...f.of }] : []));
  const fields = [...(row.convention.fields ?? []), ...lists, ...template.fields];
  const compiled = pattern.ok ? compileConvention(pattern.value, { fields, registers, families: row.convention.families, ...(project && { number: project.number }) }) : null;
  if (!compiled?.ok) return null;
  const bound = project ? { number: project.number, ...(project.client !== null && { client: project.client }) } : {};
  return { compiled: compiled.value, verdict: proveOneWay(compiled.value), context: { bound, known: {}, abbreviations: registers.abbreviations, banned: registers.banned } };
}
