/** A convention as plain data, and compiled from it: the same on the screen's thread and in the worker. */
import {
  type CompiledConvention,
  compileConvention,
  type Field,
  parsePattern,
  type Registers,
} from '@nesting/core/name';

export interface RuleInput {
  readonly pattern: string;
  readonly fields: readonly Field[];
  readonly registers: Registers;
  readonly families: readonly string[] | undefined;
  readonly number: string | undefined;
}

/** `null` where the pattern cannot be used as it stands. */
export function compileRule(input: RuleInput): CompiledConvention | null {
  const pattern = parsePattern(input.pattern);
  const compiled = pattern.ok
    ? compileConvention(pattern.value, {
        fields: input.fields,
        registers: input.registers,
        families: input.families,
        ...(input.number !== undefined && { number: input.number }),
      })
    : null;
  return compiled?.ok ? compiled.value : null;
}
