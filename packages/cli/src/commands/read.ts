import { createInterface } from 'node:readline';
import { contextOfValues, explainName, type NameContext, readName } from '@nesting/core/name';
import { CHANGE_WORDS, expectationWords } from '@nesting/core/words';
import { EXIT, type Exit } from '../fail';
import { type Options, type Rule, ruleOf } from '../input';
import { Output } from '../output';

/** Reads names from standard input, a JSON line for each; memory stays the same however many there are. */
export async function read(options: Options): Promise<Exit> {
  const rule = ruleOf(options);
  const context = contextOfValues(rule.compiled, rule.values, rule.registers);
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
