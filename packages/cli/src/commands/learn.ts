import { elementAt, LIMITS } from '@nesting/core';
import { learnConventions } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, registersOf, textOf, valuesOf } from '../input';
import { print, say } from '../output';

/** Names kept with the convention as good ones. */
const KEPT = 5;

/**
 * A convention file from sample names; the others that were found, and the names that fit none, are told on standard
 * error.
 */
export async function learn(options: Options): Promise<Exit> {
  const names = [
    ...new Set(
      textOf(options.positionals[0] ?? '-')
        .split(/\r?\n/)
        .filter((name) => name !== ''),
    ),
  ];
  if (names.length === 0) throw new Unusable('no names to learn from');
  if (names.length > LIMITS.learnNames)
    say(`note: of ${names.length} names the first ${LIMITS.learnNames} are learned from`);
  const { title } = valuesOf(options);
  const { conventions, misfits } = learnConventions(
    names,
    registersOf(options),
    typeof title === 'string' ? title : null,
  );
  const files = conventions.map((c, i) => {
    const convention: Convention = {
      id: `learned-${i + 1}`,
      name: `Learned ${i + 1}`,
      pattern: c.pattern,
      fields: c.fields,
      ...(c.families !== undefined && { families: c.families }),
      good: c.reads.slice(0, KEPT).map((n) => elementAt(names, n)),
    };
    return {
      file: { format: 'nesting/convention', formatVersion: 1, ...convention },
      reads: c.reads.length,
      oneWay: c.oneWay,
    };
  });
  if (options.as === 'json') {
    await print(
      `${JSON.stringify({ conventions: files.map((f) => ({ reads: f.reads, oneWay: f.oneWay, convention: f.file })), misfits: misfits.map((i) => names[i]) }, null, 2)}\n`,
    );
  } else {
    const [first, ...others] = files;
    if (first === undefined) {
      say('no convention was found in these names');
      return EXIT.findings;
    }
    await print(`${JSON.stringify(first.file, null, 2)}\n`);
    say(`reads ${first.reads} of ${names.length} names${first.oneWay ? '' : '; some name could be read in two ways'}`);
    for (const other of others) say(`also: ${other.file.pattern} reads ${other.reads} (all of them with --json)`);
    for (const i of misfits.slice(0, 20)) say(`fits none: ${names[i]}`);
    if (misfits.length > 20) say(`fits none: ${misfits.length - 20} more`);
  }
  return misfits.length > 0 || files.length !== 1 ? EXIT.findings : EXIT.ok;
}
