/** What documents say afterwards, and what would be torn apart. */
import { join, nameOf, parentOf } from '../../listing/entry';
import { refFormatOf } from '../../references/formats';
import { Moves } from '../../references/moves';
import { referenceAfter, rewriteReferences } from '../../references/rewrite';
import { pathMeant, targetOf } from '../../references/target';
import type { ByHand, RewrittenDocument } from '../repair/documents';
import { tornApart } from '../torn';
import type { Carried, CarryGiven } from './given';
import type { Placing } from './placing';

export type Patches = ReadonlyMap<string, ReturnType<typeof rewriteReferences>['patches']>;

export class Referring {
  private readonly moves: Moves;
  /** Each that comes, to a place that nothing had before. */
  private readonly away: Moves;

  constructor(
    private readonly given: CarryGiven,
    placed: Placing,
    private readonly coming: ReadonlyMap<string, string>,
  ) {
    this.away = new Moves(new Map([...coming].map(([from, to]) => [from, `\0${to}`])), new Map());
    // What stays behind has its place in the new project too: whoever brings it later puts it there. Of a revision it is
    // there already.
    const would = new Map<string, string>();
    for (const { targets, path } of given.revision === null ? given.documents : [])
      for (const target of targets) {
        const inside = this.meant(path, target);
        if (inside !== null && !this.comes(inside))
          would.set(inside, join(placed.folder(parentOf(inside)), nameOf(inside)));
      }
    this.moves = new Moves(new Map([...would, ...coming]), new Map());
  }

  rewritten() {
    const documents: RewrittenDocument[] = [];
    const byHand: ByHand[] = [];
    const patches = new Map<string, ReturnType<typeof rewriteReferences>['patches']>();
    const { roots, read } = this.given;
    for (const { path, targets } of this.given.documents) {
      const after = this.coming.get(path);
      if (after === undefined) continue;
      const follow = { before: path, after, moves: this.moves, roots: roots.source, rootsAfter: roots.target };
      const format = refFormatOf(nameOf(path));
      if (format === null) {
        for (const target of targets) {
          const to = referenceAfter(follow, target);
          if (to !== target) byHand.push({ document: path, target, to, why: 'other-format' });
        }
        continue;
      }
      const found = read(path);
      if (typeof found === 'string') {
        for (const target of targets) byHand.push({ document: path, target, to: this.after(path, target), why: found });
        continue;
      }
      const done = rewriteReferences({ ...follow, text: found.text, format });
      for (const { target, why } of done.unable) byHand.push({ document: path, target, to: null, why });
      if (done.patches.length === 0) continue;
      patches.set(path, done.patches);
      documents.push({ path, after, changes: done.changes });
    }
    return { documents, byHand, patches };
  }

  /** Within one project nothing is torn apart. */
  bound(): Pick<Carried, 'needed' | 'referring' | 'outside'> {
    const { documents, roots, revision } = this.given;
    const torn = tornApart(documents, roots.source, (path) => this.comes(path));
    return revision === null ? torn : { needed: [], referring: [], outside: torn.outside };
  }

  /** A place of frames comes where one of them does. */
  private comes(inside: string): boolean {
    return this.coming.has(inside) || this.away.ofFrames(inside) !== inside;
  }

  private after(path: string, target: string): string | null {
    const inside = this.meant(path, target);
    return inside === null ? null : this.moves.ofFrames(inside);
  }

  private meant(path: string, target: string): string | null {
    return pathMeant(targetOf(path, target, this.given.roots.source));
  }
}
