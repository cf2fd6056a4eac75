/** What moves is named in documents that only their programs write: a person points them to the new place. */
import type { Change } from '../change/change';
import { HOME } from '../change/place';
import { nameOf } from '../listing/entry';
import { Moves } from '../references/moves';
import type { Moved, Named } from '../references/named';
import { pathMeant, targetOf } from '../references/target';
import type { ByHand } from './repair/documents';

/** A document, with the whole paths and the names that were found in it. */
export interface MentioningDocument {
  readonly path: string;
  /** Whole paths in the project, as they are written. */
  readonly paths: readonly string[];
  readonly names: readonly Named[];
}

/** What changes its place in the project, or goes; what is copied stays where it was. */
export const movedBy = (changes: readonly Change[]): readonly Moved[] =>
  changes.flatMap(({ entry, before, after, subject }): Moved[] => {
    if (subject.kind === 'own' || subject.kind === 'project' || before?.root !== HOME) return [];
    const to = after?.root === HOME ? after.path : null;
    return before.path === to ? [] : [{ entry, before: before.path, after: to }];
  });

/** @param roots - whole paths of the project's root, as each system has it */
export function mentionsOf(
  moved: readonly Moved[],
  roots: readonly string[],
  documents: readonly MentioningDocument[],
): readonly ByHand[] {
  const movesOf = (entry: Moved['entry']) =>
    new Map(moved.flatMap((m) => (m.entry === entry && m.after !== null ? [[m.before, m.after] as const] : [])));
  const moves = new Moves(movesOf('file'), movesOf('folder'));
  const gone = new Set(moved.flatMap((m) => (m.after === null ? [m.before] : [])));
  return documents.flatMap(({ path: document, paths, names }) => {
    const whole = paths.flatMap((target): ByHand[] => {
      const inside = pathMeant(targetOf(document, target, roots));
      // Many a document holds its own name.
      if (inside === null || inside === document) return [];
      const to = gone.has(inside) ? null : moves.ofFrames(inside);
      return to === inside ? [] : [{ document, target, to, why: 'other-format' }];
    });
    const isToldWhole = (name: string) => whole.some(({ target }) => target.replaceAll('\\', '/').endsWith(name));
    const bare = names.filter(({ target }) => target !== nameOf(document) && !isToldWhole(target));
    return [...whole, ...bare.map(({ target, to }): ByHand => ({ document, target, to, why: 'other-format' }))];
  });
}
