/** What is torn apart where only some files of a project go somewhere. */
import { pathMeant, targetOf } from '../references/target';
import type { DocumentFacts } from './repair/documents';

/** A document, and what it refers to. */
export interface TornReference {
  readonly document: string;
  readonly target: string;
}

export interface Torn {
  /** Documents that go, and what they refer to, which does not. */
  readonly needed: readonly TornReference[];
  /** Documents that stay, and what they refer to, which goes. */
  readonly referring: readonly TornReference[];
  /** Documents that go, and what they refer to outside of the project. */
  readonly outside: readonly TornReference[];
}

/**
 * @param roots - whole paths of the project, as each system has them
 * @param goes - by the path from the project's root; a place of frames goes where one of them does
 */
export function tornApart(
  documents: readonly DocumentFacts[],
  roots: readonly string[],
  goes: (path: string) => boolean,
): Torn {
  const [needed, referring, outside]: [TornReference[], TornReference[], TornReference[]] = [[], [], []];
  for (const { path, targets } of documents) {
    const isGoing = goes(path);
    for (const target of targets) {
      const meant = targetOf(path, target, roots);
      const inside = pathMeant(meant);
      const leadsOut = meant.kind === 'outside' || (meant.kind === 'absolute' && inside === null);
      if (isGoing && leadsOut) outside.push({ document: path, target });
      if (inside === null || goes(inside) === isGoing) continue;
      (isGoing ? needed : referring).push({ document: path, target: inside });
    }
  }
  return { needed, referring, outside };
}
