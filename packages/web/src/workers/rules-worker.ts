/** Proofs, cures, learning, deriving and the reading of many names, away from the screen's own thread. */
import { parseListing } from '@nesting/core/listing';
import {
  type Ambiguity,
  type CompiledConvention,
  type Cure,
  curesFor,
  type Learned,
  learnConventions,
  proveOneWay,
  type Registers,
  readValues,
} from '@nesting/core/name';
import { type Derived, deriveTemplate, type Known } from '@nesting/core/template';
import { expose, transfer } from 'comlink';
import { compileRule, type RuleInput } from './compile-rule';

export interface Proof {
  readonly verdict: Ambiguity | 'one-way' | null;
  readonly cures: readonly Cure[];
}

/** Lines of a text as names: where each begins and ends in it, and whether it follows the rule. */
export interface ReadNames {
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  readonly ok: Uint8Array;
  readonly passes: number;
}

/** The last rule compiled: names are read again and again by one. */
let last: { readonly key: string; readonly compiled: CompiledConvention | null } | null = null;

function compiledFor(input: RuleInput): CompiledConvention | null {
  const key = JSON.stringify(input);
  if (last?.key !== key) last = { key, compiled: compileRule(input) };
  return last.compiled;
}

const work = {
  prove(input: RuleInput, known: Readonly<Record<string, readonly string[]>>): Proof {
    const compiled = compiledFor(input);
    const verdict = compiled === null ? null : proveOneWay(compiled);
    const cures = verdict === null || verdict === 'one-way' ? [] : curesFor(input.pattern, input, verdict, known);
    return { verdict, cures };
  },

  read(input: RuleInput, text: string): ReadNames {
    const compiled = compiledFor(input);
    const starts: number[] = [];
    const ends: number[] = [];
    for (let from = 0; from < text.length; ) {
      const line = text.indexOf('\n', from);
      const end = line < 0 ? text.length : line;
      const trimmed = text.charCodeAt(end - 1) === 13 ? end - 1 : end;
      if (trimmed > from) {
        starts.push(from);
        ends.push(trimmed);
      }
      from = end + 1;
    }
    const ok = new Uint8Array(starts.length);
    let passes = 0;
    for (let i = 0; i < starts.length; i++) {
      if (compiled !== null && readValues(compiled, text.slice(starts[i], ends[i])) !== null) {
        ok[i] = 1;
        passes++;
      }
    }
    const found: ReadNames = { starts: Uint32Array.from(starts), ends: Uint32Array.from(ends), ok, passes };
    return transfer(found, [found.starts.buffer, found.ends.buffer, found.ok.buffer]);
  },

  /** `null` where the listing cannot be understood. */
  derive(listing: string, known: Known, registers: Registers, name: string): Derived | null {
    try {
      return deriveTemplate(parseListing(listing), known, registers, name);
    } catch {
      return null;
    }
  },

  learn: (names: readonly string[], registers: Registers): Learned => learnConventions(names, registers),
};

export type RulesWork = typeof work;

expose(work);
