/** How many documents of a project refer to each of its files. */
import { pathMeant, targetOf } from '../references/target';
import type { DocumentFacts } from './repair/documents';

/** @param roots - whole paths of the project's root, as each system has it */
export function countReferrers(documents: readonly DocumentFacts[], roots: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { path, targets } of documents) {
    const files = new Set(targets.flatMap((target) => pathMeant(targetOf(path, target, roots)) ?? []));
    for (const file of files) counts.set(file, (counts.get(file) ?? 0) + 1);
  }
  return counts;
}
