/** Conventions that cannot be made ready: nothing is made or judged by rules that nobody can read. */
import { compileConvention } from '../name/pattern/compile';
import type { Field, Registers } from '../name/pattern/field';
import { parsePattern } from '../name/pattern/parse';
import type { Diagnostic } from './diagnose';
import type { Convention, Template } from './node';
import type { ResolvedFolder } from './resolve';

interface Known {
  readonly fields: Template['fields'];
  readonly registers: Registers;
  readonly faults: readonly Diagnostic[];
}

/** A template is made ready at every letter, and its conventions are mostly what they were. */
const remembered = new WeakMap<Convention, Known>();

/** Each fault stands at its convention. */
export function conventionFaults(
  { conventions, fields }: Template,
  root: ResolvedFolder,
  registers: Registers,
): readonly Diagnostic[] {
  let entries: readonly Field[] | null = null;
  return conventions.flatMap((convention) => {
    const known = remembered.get(convention);
    if (known?.fields === fields && known.registers === registers) return known.faults;
    entries ??= entryFields(root, fields);
    const inHand = [...(convention.fields ?? []), ...entries, ...fields];
    const faults = faultsOf(convention, inHand, registers);
    remembered.set(convention, { fields, registers, faults });
    return faults;
  });
}

function faultsOf(
  { id, pattern, families }: Convention,
  fields: readonly Field[],
  registers: Registers,
): readonly Diagnostic[] {
  const parsed = parsePattern(pattern);
  const compiled = parsed.ok ? compileConvention(parsed.value, { fields, registers, families }) : parsed;
  const known = new Set(registers.families.map((family) => family.name));
  const unknown = (families ?? []).filter((family) => !known.has(family));
  const faults = [
    ...unknown.map((family) => ({ code: 'family-unknown' as const, params: { family } })),
    ...(compiled.ok
      ? []
      : compiled.faults.map(({ code, at, length, params }) => ({ code, params: { ...params, at, length } }))),
  ];
  return faults.map((fault) => ({ ...fault, weight: weightOf(fault.code), node: id, line: null, field: null }));
}

/** A list of the house that is still empty is no fault of the convention’s. */
const weightOf = (code: Diagnostic['code']): Diagnostic['weight'] =>
  code === 'register-empty' ? 'awkward' : 'refused';

/** Entries of lists go by their own names in names. */
function entryFields(root: ResolvedFolder, fields: Template['fields']): readonly Field[] {
  const out = new Map<string, Field>();
  const walk = ({ node: { onePer }, folders }: ResolvedFolder): void => {
    const list = onePer === undefined ? undefined : fields.find((f) => f.key === onePer.list);
    if (onePer !== undefined && list?.type === 'list') out.set(onePer.as, { key: onePer.as, ...list.of });
    for (const folder of folders) walk(folder);
  };
  walk(root);
  return [...out.values()];
}
