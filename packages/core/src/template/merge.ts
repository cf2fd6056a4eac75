/**
 * Three states of one hierarchy made one: what a shared block was, what a template made of it, what the block is now.
 * By identities, setting by
 * setting: what one side alone changed is taken from it, what both changed alike is taken once, and what both changed
 * otherwise is a clash that
 * somebody decides (the template's own way unless told).
 */

import { deepEqual } from '../deep-equal';
import { present } from '../element';
import type { FolderNode, Starter } from './node';

export type Side = 'mine' | 'theirs';

export interface Clash {
  /**
   * The folder's id, and the setting both changed: `place` is where it stands, `folder` that it is there at all,
   * `starter` one of its files.
   */
  readonly id: string;
  readonly what: string;
  readonly name: string;
  readonly mine: unknown;
  readonly theirs: unknown;
}

export interface Merged {
  readonly folders: readonly FolderNode[];
  readonly clashes: readonly Clash[];
}

export type Decide = (clash: Clash) => Side;

interface Seat {
  readonly own: Readonly<Record<string, unknown>>;
  readonly parent: string;
  readonly children: readonly string[];
}
type Seats = ReadonlyMap<string, Seat>;

/** Stands for what holds the whole; no folder's id is empty. */
const TOP = '';

export function mergeFolders(
  base: readonly FolderNode[],
  mine: readonly FolderNode[],
  theirs: readonly FolderNode[],
  decide: Decide = () => 'mine',
): Merged {
  return new Merging(seatsOf(base), seatsOf(mine), seatsOf(theirs), decide).run();
}

function seatsOf(folders: readonly FolderNode[]): Seats {
  const seats = new Map<string, Seat>([[TOP, { own: {}, parent: TOP, children: folders.map((f) => f.id) }]]);
  const walk = (node: FolderNode, parent: string): void => {
    const { id, folders: inner = [], ...own } = node;
    seats.set(id, { own, parent, children: inner.map((f) => f.id) });
    for (const child of inner) walk(child, id);
  };
  for (const folder of folders) walk(folder, TOP);
  return seats;
}

class Merging {
  private readonly clashes: Clash[] = [];
  private readonly parents = new Map<string, string>();

  constructor(
    private readonly base: Seats,
    private readonly mine: Seats,
    private readonly theirs: Seats,
    private readonly decide: Decide,
  ) {}

  run(): Merged {
    const kept = this.keptIds();
    for (const id of kept) if (id !== TOP) this.parents.set(id, this.parentOf(id));
    this.breakCycles(kept);
    const build = (parent: string): FolderNode[] =>
      this.childrenOf(parent, kept).map((id) => {
        const inner = build(id);
        return { id, ...this.ownOf(id), ...(inner.length > 0 && { folders: inner }) } as FolderNode;
      });
    return { folders: build(TOP), clashes: this.clashes };
  }

  /**
   * A folder one side took out goes, unless the other changed it or put something in it; what holds a kept one is kept.
   */
  private keptIds(): Set<string> {
    const kept = new Set<string>([TOP]);
    for (const id of new Set([...this.mine.keys(), ...this.theirs.keys()])) {
      const [m, t] = [this.mine.has(id), this.theirs.has(id)];
      if ((m && t) || !this.base.has(id)) kept.add(id);
      else if (!m || !t) {
        const there: Side = m ? 'mine' : 'theirs';
        if (!this.touched(id, there)) continue;
        const clash: Clash = { id, what: 'folder', name: this.nameOf(id), mine: m, theirs: t };
        this.clashes.push(clash);
        if (this.decide(clash) === there) kept.add(id);
      }
    }
    for (const id of [...kept])
      for (let at = this.parentOf(id); at !== TOP && !kept.has(at); at = this.parentOf(at)) kept.add(at);
    return kept;
  }

  /** Whether a side has changed a folder or anything in it since the base. */
  private touched(id: string, side: Side): boolean {
    const now = this[side].get(id);
    const was = this.base.get(id);
    if (now === undefined || was === undefined) return now !== was;
    return (
      !deepEqual(now.own, was.own) ||
      now.parent !== was.parent ||
      now.children.some((child) => this.touched(child, side))
    );
  }

  private parentOf(id: string): string {
    const [b, m, t] = [this.base.get(id)?.parent, this.mine.get(id)?.parent, this.theirs.get(id)?.parent];
    return present(this.choose(id, 'place', b, m, t));
  }

  /**
   * Moves of both sides can put two folders into each other: there the template's own places count. Each pass leaves
   * fewer others.
   */
  private breakCycles(kept: ReadonlySet<string>): void {
    const ownPlace = (id: string): string | undefined => {
      let at = this.mine.get(id)?.parent;
      while (at !== undefined && !kept.has(at)) at = this.mine.get(at)?.parent;
      return at;
    };
    for (const start of this.parents.keys()) {
      const seen = new Set<string>();
      for (let at = start; at !== TOP; at = this.parents.get(at) ?? TOP) {
        if (!seen.has(at)) {
          seen.add(at);
          continue;
        }
        for (const id of seen) {
          const own = ownPlace(id);
          if (own !== undefined) this.parents.set(id, own);
        }
        seen.clear();
      }
    }
  }

  private childrenOf(parent: string, kept: ReadonlySet<string>): string[] {
    const here = new Set([...this.parents].filter(([id, at]) => at === parent && kept.has(id)).map(([id]) => id));
    const order = (seats: Seats) => (seats.get(parent)?.children ?? []).filter((id) => here.has(id));
    const [b, m, t] = [order(this.base), order(this.mine), order(this.theirs)];
    const shared = (a: readonly string[]) => a.filter((id) => b.includes(id) && m.includes(id) && t.includes(id));
    // The order of the side that changed it; what the other side alone has comes after what it stands after there.
    const moved = !deepEqual(shared(b), shared(m));
    const [first, second] = moved ? [m, t] : [t, m];
    const out = [...first];
    for (const [i, id] of second.entries()) {
      if (out.includes(id)) continue;
      const before = second
        .slice(0, i)
        .reverse()
        .find((other) => out.includes(other));
      out.splice(before === undefined ? 0 : out.indexOf(before) + 1, 0, id);
    }
    return [...out, ...[...here].filter((id) => !out.includes(id))];
  }

  private ownOf(id: string): Record<string, unknown> {
    const [b, m, t] = [this.base.get(id)?.own, this.mine.get(id)?.own, this.theirs.get(id)?.own];
    if (m === undefined || t === undefined) return { ...(m ?? t) };
    const out: Record<string, unknown> = {};
    for (const key of new Set([...Object.keys(m), ...Object.keys(t)])) {
      const value =
        key === 'starters'
          ? this.starters(id, b?.starters, m.starters, t.starters)
          : this.choose(id, key, b?.[key], m[key], t[key]);
      if (value !== undefined) out[key] = value;
    }
    return out;
  }

  /** Starter files one by one, in the order of the template and then of the block. */
  private starters(folder: string, base: unknown, mine: unknown, theirs: unknown): readonly Starter[] | undefined {
    const by = (list: unknown) => new Map(((list ?? []) as readonly Starter[]).map((s) => [s.id, s]));
    const [b, m, t] = [by(base), by(mine), by(theirs)];
    const out = [...new Set([...m.keys(), ...t.keys()])].flatMap(
      (id) => this.choose(`${folder}/${id}`, 'starter', b.get(id), m.get(id), t.get(id), folder) ?? [],
    );
    return out.length === 0 ? undefined : out;
  }

  private readonly decided = new Map<string, Side>();

  private choose<T>(
    id: string,
    what: string,
    base: T | undefined,
    mine: T | undefined,
    theirs: T | undefined,
    folder = id,
  ): T | undefined {
    if (deepEqual(mine, theirs) || deepEqual(theirs, base)) return mine ?? (what === 'place' ? theirs : undefined);
    if (deepEqual(mine, base)) return theirs ?? (what === 'place' ? mine : undefined);
    // A folder only one side has stands where that side has it.
    if (what === 'place' && (mine === undefined || theirs === undefined)) return mine ?? theirs;
    const key = `${id} ${what}`;
    let side = this.decided.get(key);
    if (side === undefined) {
      const clash: Clash = { id, what, name: this.nameOf(folder), mine, theirs };
      this.clashes.push(clash);
      side = this.decide(clash);
      this.decided.set(key, side);
    }
    return side === 'mine' ? mine : theirs;
  }

  private nameOf(id: string): string {
    const own = this.mine.get(id)?.own ?? this.theirs.get(id)?.own ?? {};
    return String(own.name ?? own.block ?? id);
  }
}
