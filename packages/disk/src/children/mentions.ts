/** The tasks that find documents which still name the project they were carried over from, or places that are left. */
import { parentOf } from '@nesting/core/listing';
import { mentionsOf } from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { type Moved, Moves, NamesSought, pathMeant, referenceAfter, targetOf } from '@nesting/core/references';
import { inTree, type Mount } from '../roots/tree';
import { Looking } from './looking';
import type { OfWhere } from './looks';

export interface MentionsTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly rules: CheckInput;
  /** Whole paths of the old project and of this one, as each system has them, in the same order. */
  readonly roots: { readonly source: readonly string[]; readonly target: readonly string[] };
  /** Where each file of the old project came to lie. */
  readonly copied: ReadonlyMap<string, string>;
}

export interface Mention {
  readonly document: string;
  readonly target: string;
  /** The same file in this project; `null` where it did not come along. */
  readonly to: string | null;
}

function foldersOver(path: string): string[] {
  const out: string[] = [];
  for (let at = parentOf(path); at !== ''; at = parentOf(at)) out.push(at);
  return out;
}

export const mentions = ({ where, mounts, rules, roots, copied }: MentionsTask): Promise<readonly Mention[]> =>
  inTree(where, mounts, (tree) => {
    const looking = new Looking(tree, new ProjectRules(rules), []);
    const moves = new Moves(copied, new Map());
    const folders = new Set([...copied.keys()].flatMap(foldersOver));
    const came = (path: string) => copied.has(path) || folders.has(path) || moves.ofFrames(path) !== path;
    return looking.mentioning(roots.source, { withOpen: true }).flatMap(({ path: document, targets }) => {
      const follow = { before: document, after: document, roots: roots.source, rootsAfter: roots.target, moves };
      return targets.map((target) => {
        const inside = pathMeant(targetOf(document, target, roots.source));
        return { document, target, to: inside !== null && came(inside) ? referenceAfter(follow, target) : null };
      });
    });
  });

export interface OldPlacesTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly rules: CheckInput;
  readonly roots: readonly string[];
  /** What a change of this project moved. */
  readonly moved: readonly Moved[];
}

export const oldPlaces = ({ where, mounts, rules, roots, moved }: OldPlacesTask): Promise<readonly Mention[]> =>
  inTree(where, mounts, (tree) => {
    const documents = new Looking(tree, new ProjectRules(rules), []).naming(roots, new NamesSought(moved));
    return mentionsOf(moved, roots, documents).map(({ document, target, to }) => ({ document, target, to }));
  });
