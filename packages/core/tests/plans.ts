/**
 * Plans made at random: a tree, and what it is to become, by moves that a disk would take. Each entry is followed by
 * its identity.
 */
import fc from 'fast-check';
import {
  type Batch,
  type Change,
  type Intents,
  type Journal,
  MemoryDisk,
  type Outcome,
  type Port,
} from '../src/change';

export const FOLDER = '.nesting/batches/b1';
export const bytesOf = (content: { readonly kind: string; readonly text?: string }) =>
  Uint8Array.from([...(content.text ?? '')].map((c) => c.charCodeAt(0)));

/** What is not the batch's own. */
export const treeOf = (disk: MemoryDisk): string[] => disk.tree().filter((line) => !line.startsWith('.nesting'));

export function withOwn(disk: MemoryDisk, ...folders: string[]): MemoryDisk {
  for (const folder of folders) for (const inner of ['new', 'kept']) disk.put(`${folder}/${inner}`, 'folder');
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
  /** The tree it is to become. */
  readonly after: readonly string[];
}

const NAMES = ['a', 'A', 'b', 'c', 'd', 'old', 'Old'] as const;
/** Names that differ in their capitals stand for one name on some systems: a plan never puts both in one folder. */
const alike = (path: string, other: string) => path.toLowerCase() === other.toLowerCase();

interface Draw {
  readonly entries: readonly { readonly parent: number; readonly name: number; readonly folder: boolean }[];
  readonly moves: readonly { readonly who: number; readonly into: number; readonly name: number }[];
  readonly makes: readonly { readonly into: number; readonly name: number; readonly folder: boolean }[];
  readonly rewrites: readonly number[];
  /** Whether what merely goes along with its folder is a change too. */
  readonly whole: boolean;
}

const drawn = fc.record({
  entries: fc.array(fc.record({ parent: fc.nat(30), name: fc.nat(6), folder: fc.boolean() }), {
    minLength: 2,
    maxLength: 16,
  }),
  moves: fc.array(fc.record({ who: fc.nat(30), into: fc.nat(30), name: fc.nat(6) }), { maxLength: 14 }),
  makes: fc.array(fc.record({ into: fc.nat(30), name: fc.nat(6), folder: fc.boolean() }), { maxLength: 4 }),
  rewrites: fc.array(fc.nat(30), { maxLength: 3 }),
  whole: fc.boolean(),
});

export const plans: fc.Arbitrary<Plan> = drawn.map(planOf);

function planOf(draw: Draw): Plan {
  const standing: { path: string; kind: 'folder' | 'file' }[] = [];
  const has = (path: string) => standing.some((e) => alike(e.path, path));
  for (const { parent, name, folder } of draw.entries) {
    const folders = ['', ...standing.filter((e) => e.kind === 'folder').map((e) => e.path)];
    const above = folders[parent % folders.length] as string;
    const path = `${above === '' ? '' : `${above}/`}${NAMES[name]}`;
    if (!has(path)) standing.push({ path, kind: folder ? 'folder' : 'file' });
  }
  const before = () => {
    const disk = withOwn(new MemoryDisk(), FOLDER);
    for (const { path, kind } of standing)
      disk.put(path, kind, kind === 'file' ? { size: path.length, modified: 1000 } : {});
    return disk;
  };
  const model = before();
  const was = new Map([...model.places()].map(([id, path]) => [path, id]));
  const now = () => new Map([...model.places()].filter(([, path]) => !path.startsWith('.nesting')));
  const pathIn = (into: number, name: number): string => {
    const folders = [
      '',
      ...[...now()]
        .filter(([, path]) => model.look(path)?.kind === 'folder')
        .map(([, path]) => path)
        .sort(),
    ];
    const above = folders[into % folders.length] as string;
    return `${above === '' ? '' : `${above}/`}${NAMES[name]}`;
  };
  for (const { who, into, name } of draw.moves) {
    const all = [...now().values()].sort();
    const from = all[who % all.length] as string;
    const to = pathIn(into, name);
    if (`${to}/`.startsWith(`${from}/`) || all.some((p) => p !== from && alike(p, to))) continue;
    if (from !== to) model.move(from, to);
  }
  const changes: Change[] = [];
  const rewritten = new Set(
    draw.rewrites.map(
      (n) =>
        (
          standing.filter((e) => e.kind === 'file')[
            n % Math.max(1, standing.filter((e) => e.kind === 'file').length)
          ] ?? { path: '' }
        ).path,
    ),
  );
  const places = now();
  const ids = new Map([...places].map(([id, path]) => [path, id]));
  const nameOf = (path: string) => path.slice(path.lastIndexOf('/') + 1);
  const idAbove = (path: string, by: ReadonlyMap<string, string>) =>
    by.get(path.slice(0, Math.max(0, path.lastIndexOf('/')))) ?? 'root';
  for (const { path, kind } of standing) {
    const after = places.get(was.get(path) ?? '') as string;
    const content = rewritten.has(path) ? { kind: 'text' as const, text: `new ${path}` } : null;
    // Its own folder is another one, or it has another name there; else it goes along, whatever its path.
    const moved = idAbove(path, was) !== idAbove(after, ids) || nameOf(path) !== nameOf(after);
    if (moved || content !== null || (draw.whole && after !== path))
      changes.push({
        key: `at ${path}`,
        what: kind,
        before: path,
        after,
        content,
        ...(kind === 'file' && { expects: { size: path.length, modified: 1000 } }),
      });
  }
  for (const { into, name, folder } of draw.makes) {
    const path = pathIn(into, name);
    if ([...now().values()].some((p) => alike(p, path))) continue;
    changes.push({
      key: `new ${path}`,
      what: folder ? 'folder' : 'file',
      before: null,
      after: path,
      content: folder ? null : { kind: 'text', text: 'made' },
    });
    if (folder) model.make(path);
    else model.write(path, bytesOf({ kind: 'text', text: 'made' }));
  }
  return { before, changes, after: [...now().values()].sort() };
}

/** A disk whose process is killed before its so many-th act; what comes after does nothing more. */
export function killedAt(disk: MemoryDisk, notes: Notes, at: number): Port {
  let acts = 0;
  const act =
    <A extends unknown[]>(work: (...args: A) => void) =>
    (...args: A): void => {
      if (notes.dead || acts++ === at) {
        notes.dead = true;
        throw new Error('dead');
      }
      work(...args);
    };
  return {
    look: (path) => disk.look(path),
    list: (path) => disk.list(path),
    make: act((path) => disk.make(path)),
    unmake: act((path) => disk.unmake(path)),
    write: act((path, bytes) => disk.write(path, bytes)),
    unwrite: act((path) => disk.unwrite(path)),
    move: act((from, to) => disk.move(from, to)),
    copy: act((from, to) => disk.copy(from, to)),
  };
}
