import { readName, writeName } from '@nesting/core/name';
import { wordsFor } from '@nesting/core/words';
import { EXIT, type Exit } from '../fail';
import { type Options, ruleOf } from '../input';
import { print, say } from '../output';

/** Writes one name. */
export async function name(options: Options): Promise<Exit> {
  const rule = ruleOf(options);
  const written = writeName(rule.compiled, rule.values);
  if (!written.ok) {
    if (options.as === 'json')
      await print(
        `${JSON.stringify({ ok: false, problems: written.faults.map((f) => ({ field: f.field, code: f.code, message: wordsFor(f.code, f.params) })) })}\n`,
      );
    else for (const fault of written.faults) say(`${fault.field}: ${wordsFor(fault.code, fault.params)}`);
    return EXIT.findings;
  }
  await print(
    options.as === 'json'
      ? `${JSON.stringify({ ok: true, name: written.value, values: readName(rule.compiled, written.value) })}\n`
      : `${written.value}\n`,
  );
  return EXIT.ok;
}
