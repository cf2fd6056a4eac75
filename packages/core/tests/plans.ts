/**
 * Plans made at random: a tree, and what it is to become, by moves that a disk would take. Each entry is followed by
 * its identity.
 */
import fc from 'fast-check';
import {
  type Batch,
  type Change,
  HOME,
  home,
  type Intents,
  isBelow,
  type Journal,
  MemoryDisk,
  type Outcome,
  type Place,
  type Port,
  placeKey,
  type RootId,
  rootIdOf,
} from '../src/change';

export const SHELF = rootIdOf('shelf');
/** Two roots: as one file system everything moves, as two everything is copied. */
const ROOTS = {
  one: { shelf: 'a', proves: true },
  two: { shelf: 'b', proves: true },
  unproved: { shelf: 'b', proves: false },
} as const;
export type Roots = keyof typeof ROOTS;
const twoRoots = (roots: Roots): MemoryDisk =>
  new MemoryDisk(
    new Map([
      [HOME, 'a'],
      [SHELF, ROOTS[roots].shelf],
    ]),
    ROOTS[roots].proves,
  );

export const FOLDER = '.nesting/batches/b1';
export const bytesOf = (content: { readonly kind: string; readonly text?: string }) =>
  Uint8Array.from([...(content.text ?? '')].map((c) => c.charCodeAt(0)));

/** What is not the batch's own. */
export const treeOf = (disk: MemoryDisk): string[] => disk.tree().filter((line) => !/^(shelf:)?\.nesting/.test(line));

export function withOwn(disk: MemoryDisk, ...folders: string[]): MemoryDisk {
  for (const root of disk.roots())
    for (const folder of folders)
      for (const inner of ['new', 'kept']) disk.put({ root, path: `${folder}/${inner}` }, 'folder');
  return disk;
}

export class Notes implements Journal {
  intents: Intents | null = null;
  readonly outcomes: Outcome[] = [];
  dead = false;
  constructor(readonly group: number) {}
  begin(intents: Intents): void {
    if (this.dead) throw new Error('dead');
    this.intents = JSON.parse(JSON.stringify(intents)) as Intents;
  }
  outcome(outcome: Outcome): void {
    if (this.dead) throw new Error('dead');
    this.outcomes.push(JSON.parse(JSON.stringify(outcome)) as Outcome);
  }
}

export const batchOf = (changes: readonly Change[], id = 'b1'): Batch => ({
  id,
  what: 'test',
  by: 'p',
  at: '2026-11-25T00:00:00Z',
  undoes: null,
  changes,
  folder: `.nesting/batches/${id}`,
});

export interface Plan {
  /** A disk as it is before; each call makes another of the same. */
  readonly before: () => MemoryDisk;
  readonly changes: readonly Change[];
  /** Places of the tree it is to become, as `placeKey` writes them. */
  readonly after: readonly string[];
}

const NAMES = ['a', 'A', 'b', 'c', 'd', 'old', 'Old'] as const;
/** Names that differ in their capitals stand for one name on some systems: a plan never puts both in one folder. */
const alike = (a: Place, b: Place) => placeKey(a).toLowerCase() === placeKey(b).toLowerCase();

interface Draw {
  readonly entries: readonly { readonly parent: number; readonly name: number; readonly folder: boolean }[];
  readonly moves: readonly { readonly who: number; readonly into: number; readonly name: number }[];
  readonly makes: readonly {
    readonly into: number;
    readonly name: number;
    readonly as: 'folder' | 'file' | 'copy';
    readonly of: number;
  }[];
  readonly rewrites: readonly { readonly who: number; readonly as: 'text' | 'rewritten' }[];
  /** Files and folders that are taken back, these with all that is in them. */
  readonly ends: readonly number[];
  /** Whether what merely goes along with its folder is a change too. */
  readonly whole: boolean;
}

const drawn = fc.record({
  entries: fc.array(fc.record({ parent: fc.nat(30), name: fc.nat(6), folder: fc.boolean() }), {
    minLength: 2,
    maxLength: 16,
  }),
  moves: fc.array(fc.record({ who: fc.nat(30), into: fc.nat(30), name: fc.nat(6) }), { maxLength: 14 }),
  makes: fc.array(
    fc.record({
      into: fc.nat(30),
      name: fc.nat(6),
      as: fc.constantFrom('folder', 'file', 'copy'),
      of: fc.nat(30),
    }),
    { maxLength: 4 },
  ),
  rewrites: fc.array(fc.record({ who: fc.nat(30), as: fc.constantFrom('text', 'rewritten') }), { maxLength: 3 }),
  ends: fc.array(fc.nat(30), { maxLength: 2 }),
  whole: fc.boolean(),
});

/** In the project's folder alone. */
export const plans: fc.Arbitrary<Plan> = drawn.map((draw) => planOf(draw, () => new MemoryDisk(), [HOME]));

/** In two roots, which are one file system or two. */
export const plansInTwo: fc.Arbitrary<Plan> = fc
  .tuple(drawn, fc.constantFrom<Roots>('one', 'two', 'unproved'))
  .map(([draw, roots]) => planOf(draw, () => twoRoots(roots), [HOME, SHELF]));

const pick = <T>(all: readonly T[], n: number): T | undefined => all[n % Math.max(1, all.length)];
const inside = ({ root, path }: Place, name: string): Place => ({ root, path: path === '' ? name : `${path}/${name}` });
const parent = ({ root, path }: Place): Place => ({ root, path: path.slice(0, Math.max(0, path.lastIndexOf('/'))) });
const nameOf = ({ path }: Place) => path.slice(path.lastIndexOf('/') + 1);
const PATCH = { at: 2, length: 3, bytes: 'WFla' };
const SIZE = 9;
const BYTES = bytesOf({ kind: 'text', text: 'abcdefghi' });

function planOf(draw: Draw, empty: () => MemoryDisk, roots: readonly RootId[]): Plan {
  const tops = roots.map((root): Place => ({ root, path: '' }));
  const standing: { at: Place; kind: 'folder' | 'file' }[] = [];
  for (const { parent: above, name, folder } of draw.entries) {
    const folders = [...tops, ...standing.filter((e) => e.kind === 'folder').map((e) => e.at)];
    const at = inside(pick(folders, above) as Place, NAMES[name] as string);
    if (!standing.some((e) => alike(e.at, at))) standing.push({ at, kind: folder ? 'folder' : 'file' });
  }
  const laid = (disk: MemoryDisk) => {
    for (const { at, kind } of standing) {
      if (kind === 'folder') disk.put(at, kind);
      else {
        disk.write(at, BYTES);
        disk.put(at, kind, { modified: 1000 });
      }
    }
    return withOwn(disk, FOLDER);
  };
  const before = () => laid(empty());
  // What the plan is to end in: as one file system, where everything moves as it is.
  const model = laid(new MemoryDisk(new Map(roots.map((root) => [root, '']))));
  const keyed = (places: Iterable<[string, Place]>) => new Map([...places].map(([id, at]) => [placeKey(at), id]));
  const was = keyed(model.places());
  const now = () => new Map([...model.places()].filter(([, { path }]) => !path.startsWith('.nesting')));
  const sorted = (places: readonly Place[]) => [...places].sort((a, b) => (placeKey(a) < placeKey(b) ? -1 : 1));
  const targetIn = (into: number, name: number): Place => {
    const folders = [...now().values()].filter((at) => model.look(at)?.kind === 'folder');
    return inside(pick([...tops, ...sorted(folders)], into) as Place, NAMES[name] as string);
  };
  for (const { who, into, name } of draw.moves) {
    const all = sorted([...now().values()]);
    const from = pick(all, who) as Place;
    const to = targetIn(into, name);
    if (isBelow(to, from) || all.some((at) => alike(at, to))) continue;
    model.move(from, to);
  }
  const files = standing.filter((e) => e.kind === 'file');
  const rewritten = new Map(draw.rewrites.map(({ who, as }) => [placeKey(pick(files, who)?.at ?? home('')), as]));
  const places = now();
  const ids = keyed(places);
  const idAbove = (at: Place, by: ReadonlyMap<string, string>) => by.get(placeKey(parent(at))) ?? `top ${at.root}`;
  const afterOf = (at: Place) => places.get(was.get(placeKey(at)) ?? '') as Place;
  // Its own folder is another one, or it has another name there; else it goes along, whatever its path.
  const isMoved = (at: Place) => idAbove(at, was) !== idAbove(afterOf(at), ids) || nameOf(at) !== nameOf(afterOf(at));
  const ended = new Set(
    draw.ends
      .flatMap((n) => pick(standing, n) ?? [])
      // Nobody goes into what goes away.
      .filter((end) => standing.every(({ at }) => !isBelow(afterOf(at), afterOf(end.at)) || !isMoved(at)))
      .map((end) => was.get(placeKey(end.at)) ?? ''),
  );
  const gone = [...ended].flatMap((id) => now().get(id) ?? []);
  const isGone = (at: Place) => gone.some((end) => placeKey(end) === placeKey(at) || isBelow(at, end));
  const changes: Change[] = [];
  const same = { subject: { kind: 'file' }, group: null } as const;
  for (const { at, kind } of standing) {
    const id = was.get(placeKey(at)) ?? '';
    const after = places.get(id) as Place;
    const expects = kind === 'file' ? { expects: { size: SIZE, modified: 1000 } } : {};
    const of = { ...same, id: `at ${placeKey(at)}`, entry: kind, before: at, ...expects };
    if (ended.has(id)) {
      // Who goes away in a folder that goes away whole, goes with it.
      if (![...ended].some((other) => other !== id && isBelow(after, places.get(other) as Place)))
        changes.push({ ...of, after: null, content: null, isWhole: kind === 'folder' });
      continue;
    }
    const how = rewritten.get(placeKey(at));
    const content =
      how === undefined || kind === 'folder' || isGone(after)
        ? null
        : how === 'text'
          ? { kind: 'text' as const, text: `new ${at.path}` }
          : { kind: 'rewritten' as const, patches: [PATCH] };
    if (isMoved(at) || content !== null || (draw.whole && placeKey(after) !== placeKey(at) && !isGone(after)))
      changes.push({ ...of, after, content });
  }
  const made: Place[] = [];
  for (const { into, name, as, of } of draw.makes) {
    const at = targetIn(into, name);
    if (isGone(at) || [...now().values()].some((other) => alike(other, at))) continue;
    const from = pick(files, of)?.at;
    if (as === 'copy' && from === undefined) continue;
    const content =
      as === 'folder'
        ? null
        : as === 'copy' && from !== undefined
          ? {
              kind: 'copy' as const,
              from,
              expects: { size: SIZE, modified: 1000 },
              ...(of % 2 === 1 && { patches: [PATCH] }),
            }
          : { kind: 'text' as const, text: 'made' };
    const entry = as === 'folder' ? 'folder' : 'file';
    changes.push({ ...same, id: `new ${placeKey(at)}`, entry, before: null, after: at, content });
    made.push(at);
    if (as === 'folder') model.make(at);
    else model.write(at, BYTES);
  }
  const after = [...now().values()].filter((at) => !isGone(at)).map(placeKey);
  return { before, changes, after: after.sort() };
}

/** A disk whose process is killed before its so many-th act; what comes after does nothing more. */
export function killedAt(disk: MemoryDisk, notes: Notes, at: number): Port {
  let acts = 0;
  const act =
    <A extends unknown[], R>(work: (...args: A) => R) =>
    (...args: A): R => {
      if (notes.dead || acts++ === at) {
        notes.dead = true;
        throw new Error('dead');
      }
      return work(...args);
    };
  return {
    hasIdentities: true,
    reach: (from, to) => disk.reach(from, to),
    provesCopies: () => disk.provesCopies(),
    look: (place) => disk.look(place),
    list: (place) => disk.list(place),
    make: act((place) => disk.make(place)),
    unmake: act((place) => disk.unmake(place)),
    write: act((place, bytes) => disk.write(place, bytes)),
    remove: act((place) => disk.remove(place)),
    move: act((from, to) => disk.move(from, to)),
    copy: act((from, to, patches) => disk.copy(from, to, patches)),
    sync: () => disk.sync(),
  };
}
