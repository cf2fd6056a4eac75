import { createInterface } from 'node:readline';
import { explainName, type NameContext, readName, type Values } from '@nesting/core/name';
import { CHANGE_WORDS, expectationWords } from '@nesting/core/words';
import { EXIT, type Exit } from '../fail';
import { type Options, type Rule, ruleOf } from '../input';
import { Output } from '../output';

/** Reads names from standard input, a JSON line for each; memory stays the same however many there are. */
export async function read(options: Options): Promise<Exit> {
  const rule = ruleOf(options);
  const context = contextOf(rule);
  const out = new Output();
  let exit: Exit = EXIT.ok;
  for await (const name of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (name === '') continue;
    const values = readName(rule.compiled, name);
    if (values !== null) await out.line(JSON.stringify({ name, ok: true, values }));
    else {
      exit = EXIT.findings;
      await out.line(JSON.stringify({ name, ok: false, ...explained(rule, name, context) }));
    }
  }
  await out.flush();
  return exit;
}

function explained(rule: Rule, name: string, context: NameContext) {
  const { problems, suggestions } = explainName(rule.compiled, name, context);
  return {
    problems: problems.map((p) => ({ part: p.part, at: p.at, expected: expectationWords(p.expected), found: p.found })),
    suggestions: suggestions.map((s) => ({
      name: s.name,
      confidence: s.confidence,
      changes: s.changes.map((c) => ({ part: c.part, change: CHANGE_WORDS[c.code], from: c.from, to: c.to })),
    })),
  };
}

/** The project's own number must be met; its other texts and lists are known words. */
function contextOf({ compiled, registers, values }: Rule): NameContext {
  const known = Object.fromEntries(
    compiled.slots.flatMap(({ field }) => {
      const texts = textsOf(values[field] ?? values[`${field}s`]);
      return texts.length > 0 ? [[field, texts]] : [];
    }),
  );
  const number = values.number === undefined || values.number === null ? {} : { number: String(values.number) };
  return { bound: number, known, abbreviations: registers.abbreviations, banned: registers.banned };
}

const textsOf = (value: Values[string] | undefined): string[] =>
  typeof value === 'string'
    ? [value]
    : Array.isArray(value)
      ? value.filter((v): v is string => typeof v === 'string')
      : [];
