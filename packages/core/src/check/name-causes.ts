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
import type { RuleCode } from '../project/rule-weights';
import { Remembered } from '../remembered';
import type { FileCase, RawFinding, Rule } from './rule';

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

/** The convention that explains the name best: one with a suggestion, then the one with fewest problems. */
const cost = ({ problems, suggestions }: Explanation) => problems.length + (suggestions.length > 0 ? 0 : 100);

/** A rule that holds where this alone is behind the name. */
export function nameRule(code: Extract<RuleCode, Cause['code']>): Rule {
  return {
    code,
    scope: 'file',
    judge: (c): RawFinding | null => {
      const all = told.of(c);
      if (all === null || all.cause.code !== code) return null;
      const { convention, strict } = all.by;
      const codes =
        all.cause.code === 'unknown-code'
          ? { codes: all.cause.codes.map((k) => k.found), fields: all.cause.codes.map((k) => k.field) }
          : {};
      return {
        path: c.path,
        ...frameless(strict, c.path),
        params: { name: c.file.name, convention: convention.name, pattern: convention.pattern, ...codes },
        explanation: all.explanation,
      };
    },
  };
}
