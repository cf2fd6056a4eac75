/**
 * Explaining and suggesting for 10,000 broken names: the corpus again and again, so that what is cached is cached for
 * all alike.
 */
import { present, valueAt } from '@nesting/core';
import { explainName, readName } from '@nesting/core/name';
import { CASES, compileCase, contextOf } from '../corpus/conventions';
import { makeCorpus } from '../corpus/make';
import { line, median } from './measure';

const NAMES = 10_000;

export function benchExplain(): void {
  const compiled = new Map(CASES.map((c) => [c.id, { c, convention: compileCase(c) }]));
  const corpus = makeCorpus();
  const items = Array.from({ length: NAMES }, (_, i) => present(corpus[i % corpus.length])).map((item) => {
    const { c, convention } = valueAt(compiled, item.convention);
    return { name: item.broken, convention, context: contextOf(c, item.values) };
  });
  // The rival: the same names read by the matcher, fifty times, in the same run.
  const byMatcher = new Map(
    [...compiled.values()].map(({ convention }) => [convention, { ...convention, fast: null }]),
  );
  const rounds = Array.from({ length: 4 }, () => {
    let start = performance.now();
    for (const { name, convention, context } of items) explainName(convention, name, context);
    const explained = performance.now() - start;
    start = performance.now();
    for (const { name, convention } of items) readName(valueAt(byMatcher, convention), name);
    return { explained, read: performance.now() - start };
  });
  const time = median(rounds.slice(1).map((r) => r.explained));
  const ratio = time / (50 * median(rounds.slice(1).map((r) => r.read)));
  line(`explain and suggest for ${NAMES} broken names`, `${(time / 1000).toFixed(2)} s`, 'under 2 s', time < 2000);
  line(`  beside reading them by the matcher, 50 times`, `${ratio.toFixed(2)} ×`, 'at most 2 ×', ratio <= 2);
}
