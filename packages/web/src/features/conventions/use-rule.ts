import { compileConvention, examplePieces, parsePattern } from '@nesting/core/name';
import { wordsFor } from '@nesting/core/words';
import { useMemo } from 'react';
import { compileRule, type RuleInput } from '../../workers/compile-rule';

export interface Rule {
  readonly compiled: ReturnType<typeof compileRule>;
  readonly fault: { readonly words: string; readonly at: number; readonly length: number } | null;
  readonly example: ReturnType<typeof examplePieces>;
}

export function useRule(input: RuleInput | null): Rule {
  return useMemo(() => {
    const compiled = input === null ? null : compileRule(input);
    return {
      compiled,
      fault: input === null || compiled !== null ? null : faultOf(input),
      example: compiled === null ? [] : examplePieces(compiled, {}),
    };
  }, [input]);
}

function faultOf(input: RuleInput): Rule['fault'] {
  const parsed = parsePattern(input.pattern);
  const faults = parsed.ok ? compileConvention(parsed.value, input as never) : parsed;
  const first = faults.ok ? undefined : faults.faults[0];
  return first === undefined ? null : { words: wordsFor(first.code, first.params), at: first.at, length: first.length };
}
