/** What every command takes: options, and the files they name. */

import { readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { parseArgs } from 'node:util';
import { parseCarryWay, parseConvention, parseRegisters, parseTemplate, parseValues } from '@nesting/contract';
import type { Result } from '@nesting/core';
import { present } from '@nesting/core';
import { codeOf } from '@nesting/core/change';
import {
  type CompiledConvention,
  compileConvention,
  mergeRegisters,
  NO_REGISTERS,
  parsePattern,
  type Registers,
  type Values,
} from '@nesting/core/name';
import { type CarryWay, PLAIN_WAY } from '@nesting/core/planners';
import type { Convention, Template } from '@nesting/core/template';
import { decodeText } from '@nesting/core/text';
import { wordsFor } from '@nesting/core/words';
import { Unusable } from './fail';

export interface Options {
  readonly positionals: readonly string[];
  readonly values: string | undefined;
  readonly registers: string | undefined;
  readonly as: string | undefined;
  readonly pattern: string | undefined;
  readonly into: string | undefined;
  /** A folder of loose files. */
  readonly from: string | undefined;
  /** Loose files are moved, not copied. */
  readonly move: boolean;
  /** Where what is brought in is copied once more. */
  readonly second: string | undefined;
  /** Where a project is carried over to. */
  readonly to: string | undefined;
  readonly template: string | undefined;
  /** A file that says how. */
  readonly way: string | undefined;
  readonly listing: string | undefined;
  readonly set: readonly string[];
  readonly dryRun: boolean;
  /** Rules, with commas between them. */
  readonly only: string | undefined;
  readonly confidence: string | undefined;
  /** A check that looks into no file. */
  readonly namesOnly: boolean;
  /** Families that are not packed, with commas between them. */
  readonly without: string | undefined;
  /** The one folder that is packed, from the project's root. */
  readonly within: string | undefined;
  /** Only what nothing newer supersedes, and no program made along the way. */
  readonly current: boolean;
  /** What is packed stays in the house: folders that are not for outsiders come too. */
  readonly inHouse: boolean;
}

export function optionsOf(args: readonly string[]): Options {
  try {
    const { values: v, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        values: { type: 'string' },
        registers: { type: 'string' },
        as: { type: 'string' },
        json: { type: 'boolean' },
        pattern: { type: 'string', short: 'p' },
        into: { type: 'string' },
        from: { type: 'string' },
        move: { type: 'boolean' },
        second: { type: 'string' },
        to: { type: 'string' },
        template: { type: 'string' },
        way: { type: 'string' },
        listing: { type: 'string' },
        set: { type: 'string', multiple: true },
        'dry-run': { type: 'boolean' },
        'names-only': { type: 'boolean' },
        only: { type: 'string' },
        confidence: { type: 'string' },
        without: { type: 'string' },
        within: { type: 'string' },
        current: { type: 'boolean' },
        'in-house': { type: 'boolean' },
      },
    });
    return {
      positionals,
      values: v.values,
      registers: v.registers,
      as: v.json ? 'json' : v.as,
      pattern: v.pattern,
      into: v.into,
      from: v.from,
      move: v.move ?? false,
      second: v.second,
      to: v.to,
      template: v.template,
      way: v.way,
      listing: v.listing,
      set: v.set ?? [],
      dryRun: v['dry-run'] ?? false,
      only: v.only,
      confidence: v.confidence,
      namesOnly: v['names-only'] ?? false,
      without: v.without,
      within: v.within,
      current: v.current ?? false,
      inHouse: v['in-house'] ?? false,
    };
  } catch (error) {
    throw new Unusable(error instanceof Error ? error.message : 'options that cannot be understood');
  }
}

/** A file's text, UTF-8 or UTF-16; `-` is standard input. */
export function textOf(file: string): string {
  try {
    return decodeText(readFileSync(file === '-' ? 0 : file));
  } catch (error) {
    throw new Unusable(`${file}: cannot be read (${codeOf(error)})`);
  }
}

/** What a listing's file says, read by `parse`. */
export function listingOf<T>(file: string, parse: (text: string) => T): T {
  const text = textOf(file);
  try {
    return parse(text);
  } catch {
    throw new Unusable(`${file}: no listing that can be understood`);
  }
}

function use<T>(answer: Result<T, string>): T {
  if (!answer.ok) throw new Unusable(answer.faults[0] ?? 'unusable input');
  return answer.value;
}

export function valuesOf(options: Options, fallback: Values = {}): Values {
  const given = options.values === undefined ? fallback : use(parseValues(textOf(options.values), options.values));
  return { ...given, ...setOf(options) };
}

/** What stands behind each `--set`, by field. */
export function setOf({ set }: Options): Readonly<Record<string, string>> {
  const pairs = set.map((pair) => {
    const at = pair.indexOf('=');
    if (at <= 0) throw new Unusable(`--set ${pair}: write it as field=value`);
    return [pair.slice(0, at), pair.slice(at + 1)] as const;
  });
  return Object.fromEntries(pairs);
}

export const registersOf = (options: Options, fallback: Registers = NO_REGISTERS): Registers =>
  options.registers === undefined ? fallback : use(parseRegisters(textOf(options.registers), options.registers));

/** How a project is carried over: what is current, versions begun anew, unless a file says otherwise. */
export const wayOf = ({ way }: Options): CarryWay =>
  way === undefined ? PLAIN_WAY : use(parseCarryWay(textOf(way), way));

export interface TemplateFile {
  readonly template: Template;
  /** Where its starter files are looked for. */
  readonly folder: string;
}

export const templateOf = (file: string): TemplateFile => ({
  template: use(parseTemplate(textOf(file), file)),
  folder: dirname(file),
});

export interface Rule {
  readonly convention: Convention;
  readonly compiled: CompiledConvention;
  readonly registers: Registers;
  readonly values: Values;
}

/** A convention file, or a bare pattern behind `-p`. */
export function ruleOf(options: Options): Rule {
  const [file] = options.positionals;
  if (options.pattern === undefined && file === undefined)
    throw new Unusable('give a convention file, or a pattern behind -p');
  const convention: Convention =
    options.pattern === undefined
      ? use(parseConvention(textOf(present(file)), file))
      : { id: 'pattern', name: options.pattern, pattern: options.pattern };
  const registers = registersOf(options);
  const values = valuesOf(options);
  const pattern = parsePattern(convention.pattern);
  if (!pattern.ok) {
    const fault = pattern.faults[0];
    throw new Unusable(
      `pattern, character ${(fault?.at ?? 0) + 1}: ${wordsFor(fault?.code ?? '', fault?.params ?? {})}`,
    );
  }
  const number = values.number === undefined || values.number === null ? undefined : String(values.number);
  const year = Number(String(values.date ?? '').slice(0, 4));
  const compiled = compileConvention(pattern.value, {
    fields: convention.fields ?? [],
    registers: mergeRegisters(NO_REGISTERS, registers),
    families: convention.families,
    ...(number !== undefined && { number }),
    ...(year > 0 && { year }),
  });
  if (!compiled.ok) {
    const fault = compiled.faults[0];
    throw new Unusable(
      `pattern, character ${(fault?.at ?? 0) + 1}: ${wordsFor(fault?.code ?? '', fault?.params ?? {})}`,
    );
  }
  return { convention, compiled: compiled.value, registers, values };
}
