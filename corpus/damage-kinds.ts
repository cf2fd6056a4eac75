import { elementAt, valueAt } from '@nesting/core';
import type { RuleCode } from '@nesting/core/check';
import type { MediaFacts } from '@nesting/core/listing';
import { type Disk, file, folder } from './good-disk';

export interface Expected {
  readonly rule: RuleCode;
  readonly path: string;
}

export interface DiskDamage {
  readonly kind: string;
  /**
   * Does it somewhere; what a check is to find then, and the places nobody else may damage; `null` where there is no
   * place left.
   */
  readonly act: (
    disk: Disk,
    pick: Pick,
    spared: (path: string) => boolean,
  ) => { readonly expected: readonly Expected[]; readonly touched: readonly string[] } | null;
}

export type Pick = <T>(all: readonly T[]) => T | undefined;

export const nameOf = (path: string) => path.slice(path.lastIndexOf('/') + 1);

export const above = (path: string) => path.slice(0, Math.max(0, path.lastIndexOf('/')));

export function moved(disk: Disk, from: string, to: string): void {
  for (const [path, entry] of [...disk]) {
    if (path !== from && !path.startsWith(`${from}/`)) continue;
    disk.delete(path);
    disk.set(to + path.slice(from.length), entry);
  }
}

export function removed(disk: Disk, from: string): void {
  for (const path of [...disk.keys()]) if (path === from || path.startsWith(`${from}/`)) disk.delete(path);
}

export const filesIn = (disk: Disk, test: RegExp, spared: (path: string) => boolean) =>
  [...disk]
    .filter(([path, e]) => !e.folder && test.test(path) && !spared(path))
    .map(([path]) => path)
    .sort();

/** A file gets another name. */
export const renamed = (kind: string, where: RegExp, name: (old: string) => string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, where, spared));
    if (path === undefined) return null;
    const to = `${above(path)}/${name(nameOf(path))}`;
    if (disk.has(to)) return null;
    const entry = valueAt(disk, path);
    disk.delete(path);
    disk.set(to, entry);
    return { expected: [{ rule, path: to }], touched: [path, to] };
  },
});

/** A file comes that was not there. */
export const added = (
  kind: string,
  where: readonly string[],
  name: (folder: string) => string,
  rule: RuleCode,
  size = 1000,
): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const at = pick(where.filter((f) => (f === '' || disk.has(f)) && !spared(f === '' ? name(f) : `${f}/${name(f)}`)));
    if (at === undefined) return null;
    const path = at === '' ? name(at) : `${at}/${name(at)}`;
    if (disk.has(path)) return null;
    disk.set(path, file(size));
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A working file that points somewhere. */
export const pointing = (kind: string, target: string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, WORKING, spared));
    if (path === undefined) return null;
    disk.set(path, file(1000, `#usda 1.0\ndef "a" (references = @${target}@) {}`));
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A file comes that holds what another one holds. */
export const doubled = (
  kind: string,
  where: RegExp,
  to: (path: string) => string,
  said?: (path: string, to: string) => string,
): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, where, spared));
    if (path === undefined) return null;
    const copy = to(path);
    if (disk.has(copy) || spared(copy) || !disk.has(above(copy))) return null;
    disk.set(path, file(1000, `content of ${path}`));
    disk.set(copy, file(1000, `content of ${path}`));
    return {
      expected: [{ rule: 'same-content', path: said?.(path, copy) ?? elementAt([path, copy].sort(), 0) }],
      touched: [path, copy],
    };
  },
});

export const newFolder = (kind: string, where: readonly string[], name: string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const at = pick(where.filter((f) => (f === '' || disk.has(f)) && !spared(f === '' ? name : `${f}/${name}`)));
    if (at === undefined) return null;
    const path = at === '' ? name : `${at}/${name}`;
    if (disk.has(path)) return null;
    disk.set(path, folder);
    disk.set(`${path}/what ever.usda`, file());
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A planned folder gets a name that is nearly its own. */
export const misspelt = (kind: string, where: readonly string[], name: (old: string) => string): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(where.filter((f) => disk.has(f) && !spared(f)));
    if (path === undefined) return null;
    const to = above(path) === '' ? name(nameOf(path)) : `${above(path)}/${name(nameOf(path))}`;
    moved(disk, path, to);
    return { expected: [{ rule: 'misspelt-folder', path: to }], touched: [path, to] };
  },
});

export const placed = (kind: string, from: string, to: string): DiskDamage => ({
  kind,
  act: (disk, _pick, spared) => {
    if (!disk.has(from) || !disk.has(above(to) || from) || spared(from) || spared(to)) return null;
    moved(disk, from, to);
    return { expected: [{ rule: 'misplaced-folder', path: to }], touched: [from, to] };
  },
});

export const WORKING = /\/working\/26011_[^/]*_v003\.usda$/;

export const SOUND = /^50_sound\/(?:music|effects)\//;

export const PAPER = /^10_paperwork\//;

export const BOARD = /^30_design\/boards\//;

export const workings = ['portico', 'fly-tower'].flatMap((s) =>
  ['s01', 's02', 's03'].map((c) => `40_motion/${s}/${c}/working`),
);

export const renders = workings.map((w) => w.replace('working', 'renders'));

export const entriesOf = (at: string) => /40_motion\/([^/]+)\/([^/]+)/.exec(at)?.slice(1) ?? [];

export const workingName = (at: string, change: Record<string, string> = {}) => {
  const [surface, scene] = entriesOf(at);
  const p = { number: '26011', surface, scene, task: 'anim', person: 'BO', version: 'v004', ...change };
  return `${p.number}_${p.surface}_${p.scene}_${p.task}_${p.person}_${p.version}.usda`;
};

/** A file that is otherwise in order was made with other settings than were agreed. */
export const made = (kind: string, which: RegExp, facts: MediaFacts): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, which, spared));
    const entry = path === undefined ? undefined : disk.get(path);
    if (path === undefined || entry === undefined) return null;
    disk.set(path, { ...entry, facts });
    return { expected: [{ rule: 'setting-mismatch', path }], touched: [path] };
  },
});
