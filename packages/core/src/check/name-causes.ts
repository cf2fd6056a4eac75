/**
 * What is behind a name that breaks its folder's conventions: told once for each file, and asked by each rule about
 * names.
 */

import { type Cause, causeOf } from '../name/mend/cause';
import { type Explanation, explainName } from '../name/mend/suggest';
import type { Reading } from '../name/pattern/field';
import { readName } from '../name/read/read';
import type { FolderConvention } from '../project/folder-convention';
import { frameless } from '../project/frameless';
import { Remembered } from '../remembered';
import type { FileCase, ParamsOf, RawFinding } from './rule';

interface Told {
  readonly by: FolderConvention;
  readonly explanation: Explanation;
  readonly cause: Cause;
}

const told = new Remembered((c: FileCase): Told | null => {
  const tried = c.conventions.map((by) => ({ by, explanation: explainName(by.strict, c.file.name, by.context) }));
  const best = tried.sort((a, b) => cost(a.explanation) - cost(b.explanation))[0];
  if (best === undefined) return null;
  return { ...best, cause: causeOf(best.by.strict, c.file.name, best.by.context, best.explanation) };
});

/** What a broken name most likely stands for, where that was worked out already. */
export function suggestedBy(c: FileCase): { readonly by: FolderConvention; readonly reading: Reading } | null {
  const known = told.known(c);
  const name = known?.explanation.suggestions[0]?.name;
  const reading = known == null || name === undefined ? null : readName(known.by.strict, name, known.by.bound);
  return reading === null || known == null ? null : { by: known.by, reading };
}

/** Whether some name of the folder's conventions is meant, with a slip or two, or but for its extension. */
export function isNearName(c: FileCase): boolean {
  const explanation = told.of(c)?.explanation;
  if (explanation === undefined) return false;
  const { suggestions, problems } = explanation;
  return suggestions.length > 0 || problems.every((p) => p.part === 'ext' || p.change === 'separator');
}

/** The convention that explains the name best: one with a suggestion, then the one with fewest problems. */
const cost = ({ problems, suggestions }: Explanation) => problems.length + (suggestions.length > 0 ? 0 : 100);

/** The parameters of every finding about a broken name. */
export const NAME_PARAMS = { name: 'text', convention: 'text', pattern: 'text' } as const;

type NameFinding = RawFinding<ParamsOf<typeof NAME_PARAMS>>;

/** The finding where this alone is behind the name; else `null`. */
export function nameFinding<Code extends Cause['code']>(
  c: FileCase,
  code: Code,
): (NameFinding & { readonly cause: Extract<Cause, { code: Code }> }) | null {
  const all = told.of(c);
  if (all === null || !isOf(all.cause, code)) return null;
  const { convention, strict } = all.by;
  return {
    path: c.path,
    ...frameless(strict, c.path),
    params: { name: c.file.name, convention: convention.name, pattern: convention.pattern },
    explanation: all.explanation,
    cause: all.cause,
  };
}

const isOf = <Code extends Cause['code']>(cause: Cause, code: Code): cause is Extract<Cause, { code: Code }> =>
  cause.code === code;
