/** Names of folders and starter files made ready once for each set of fields they can lean on. */
import { type CompileFault, compileName } from '../name/pattern/compile';
import type { Field, ListField, Registers } from '../name/pattern/field';
import { mergeRegisters } from '../name/pattern/field';
import type { CompiledName } from '../name/pattern/ops';
import { type PatternFault, parsePattern } from '../name/pattern/parse';
import type { Diagnostic } from './diagnose';
import { ownRegisters, type Template } from './node';
import { type ResolvedFolder, resolveTemplate } from './resolve';

export interface Compiled {
  readonly name: CompiledName | null;
  readonly faults: readonly (PatternFault | CompileFault)[];
}

/** `scope` names the fields in hand, so that compiled names are shared only where they mean the same. */
export type Compile = (source: string, fields: readonly Field[], scope: string) => Compiled;

/**
 * What was made last for these registers: a template is compiled anew at every letter, and its fields are mostly what
 * they were.
 */
const made = new WeakMap<Registers, { readonly fields: readonly Field[]; readonly compile: Compile }>();

export function compilerFor(fields: readonly Field[], registers: Registers): Compile {
  const known = made.get(registers);
  if (known?.fields === fields) return known.compile;
  const scopes = new Map<string, Map<string, Compiled>>();
  const compile: Compile = (source, own, scope) => {
    const cache = scopes.get(scope) ?? new Map<string, Compiled>();
    scopes.set(scope, cache);
    const compiled = cache.get(source);
    if (compiled) return compiled;
    const pattern = parsePattern(source);
    const name = pattern.ok ? compileName(pattern.value, { fields: own, registers }) : pattern;
    const fresh: Compiled = name.ok ? { name: name.value, faults: [] } : { name: null, faults: name.faults };
    cache.set(source, fresh);
    return fresh;
  };
  made.set(registers, { fields, compile });
  return compile;
}

const merged = new WeakMap<Registers, { readonly own: Template['registers']; readonly registers: Registers }>();

/** A template's own registers with the studio's, the very same object while neither changes. */
export function registersOf(template: Template, studio: Registers): Registers {
  const known = merged.get(studio);
  if (known !== undefined && known.own === template.registers) return known.registers;
  const registers = mergeRegisters(ownRegisters(template), studio);
  merged.set(studio, { own: template.registers, registers });
  return registers;
}

/** The fields in hand inside a folder made once for each entry of a list: the entry goes by its own name. */
export const fieldsWithin = (fields: readonly Field[], as: string, list: ListField): readonly Field[] => [
  ...fields.filter((f) => f.key !== as),
  { key: as, ...list.of } as Field,
];

/**
 * All that is wrong with a template whatever the values: with its nodes, and with the names that are written in them.
 */
export function diagnoseTemplate(template: Template, studio: Registers): readonly Diagnostic[] {
  const registers = registersOf(template, studio);
  const resolved = resolveTemplate(template, registers);
  const compile = compilerFor(template.fields, registers);
  const lists = new Map(template.fields.flatMap((f) => (f.type === 'list' ? [[f.key, f] as const] : [])));
  const out = [...resolved.diagnostics];
  const check = (source: string, node: string, fields: readonly Field[], scope: string): void => {
    if (source === '') return;
    for (const f of compile(source, fields, scope).faults)
      out.push({
        code: f.code,
        weight: 'refused',
        node,
        line: null,
        field: null,
        params: { ...f.params, at: f.at, length: f.length },
      });
  };
  const walk = (folder: ResolvedFolder, above: readonly Field[], outer: string): void => {
    const { onePer } = folder.node;
    const list = onePer === undefined ? undefined : lists.get(onePer.list);
    const fields = list === undefined ? above : fieldsWithin(above, onePer?.as ?? '', list);
    const scope = list === undefined ? outer : scopeWithin(outer, list.key, onePer?.as ?? '');
    check(folder.node.name ?? '', folder.id, fields, scope);
    for (const starter of folder.node.starters ?? []) check(starter.name, folder.id, fields, scope);
    for (const child of folder.folders) walk(child, fields, scope);
  };
  walk(resolved.root, template.fields, '');
  return out;
}

export const scopeWithin = (scope: string, list: string, as: string): string => `${scope}/${list}>${as}`;
