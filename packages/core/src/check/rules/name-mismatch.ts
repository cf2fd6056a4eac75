import { explainName } from '../../name/suggest';
import type { Rule } from '../rule';
import { frameless } from '../sequence';

/** A name that does not read by its folder's convention: each part that fails, what was expected, the likeliest name meant. */
export const nameMismatch: Rule = {
  code: 'name-mismatch',
  scope: 'file',
  judge: ({ conventions, file, path }) => {
    const tried = conventions.map((c) => ({ strict: c.strict, convention: c.convention, explanation: explainName(c.strict, file.name, c.context) }));
    const best = tried.sort((a, b) => cost(a.explanation.problems.length, a.explanation.suggestions.length) - cost(b.explanation.problems.length, b.explanation.suggestions.length))[0];
    if (best === undefined) return null;
    return { path, ...frameless(best.strict, path), params: { name: file.name, convention: best.convention.name, pattern: best.convention.pattern }, explanation: best.explanation };
  },
};

/** The convention that explains the name best: one with a suggestion, then the one with fewest problems. */
const cost = (problems: number, suggestions: number) => problems + (suggestions > 0 ? 0 : 100);
