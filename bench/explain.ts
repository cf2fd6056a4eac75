/**
 * Explaining and suggesting for 10,000 broken names: the corpus again and again, so that what is cached is cached for
 * all alike.
 */
import { present, valueAt } from '@nesting/core';
import { explainName } from '@nesting/core/name';
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
  const times = Array.from({ length: 4 }, () => {
    const start = performance.now();
    for (const { name, convention, context } of items) explainName(convention, name, context);
    return performance.now() - start;
  });
  const time = median(times.slice(1));
  line(`explain and suggest for ${NAMES} broken names`, `${(time / 1000).toFixed(2)} s`, 'under 2 s', time < 2000);
}
