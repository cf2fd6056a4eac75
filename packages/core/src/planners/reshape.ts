/**
 * A project's rules as they are and as they are to be → what changes on the disk: folders and starter files that are
 * made, things that get another
 * name, names of files that carry a value that is another now. Whatever the new rules do not know is left over: nothing
 * is ever removed.
 * Lines are matched by their identity, so that a folder is renamed and not made twice; entries of a list may be said to
 * be others now.
 */

import type { Change } from '../change/change';
import { home } from '../change/place';
import type { Standing } from '../change/port';
import { elementAt, present } from '../element';
import { join } from '../listing/entry';
import type { Reading } from '../name/pattern/field';
import { readName } from '../name/read/read';
import { writeName } from '../name/write';
import { ownValue } from '../own-value';
import { nameFaults } from '../portable/name';
import { DEFAULT_PROFILES } from '../portable/profiles';
import type { FolderConvention } from '../project/folder-convention';
import { frameless } from '../project/frameless';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import { entryOf, madeLines, starterEntries } from './start';

/** What the disk says when it is asked; only planned places are. */
export interface DiskView {
  readonly look: (path: string) => Omit<Standing, 'id'> | null;
  /** Names of the files in a folder. */
  readonly files: (folder: string) => readonly string[];
}

/** A starter file of the template once more, in a folder of one's choice. */
export interface Extra {
  /** The line of the starter file it is a copy of. */
  readonly starter: string;
  /** The line of the folder. */
  readonly folder: string;
  readonly name: string;
}

export interface ReshapeGiven {
  readonly before: ProjectRules;
  readonly after: ProjectRules;
  readonly there: DiskView;
  /** By list: entries that are called otherwise from now on. */
  readonly renamed?: Readonly<Record<string, Readonly<Record<string, string>>>> | undefined;
  readonly extra?: readonly Extra[] | undefined;
  /** Keys of files whose names stay, whatever they carry. */
  readonly keep?: ReadonlySet<string> | undefined;
}

export const RESHAPE_SIGNS = [
  'made',
  'renamed',
  /** There already, under the name it is to have. */
  'there',
  /** The new rules do not know it; it stays. */
  'left-over',
  /** Its new name is taken by something else, here or above: it stays as it is. */
  'taken',
  /** On another volume: not touched from here. */
  'elsewhere',
] as const;
export type ReshapeSign = (typeof RESHAPE_SIGNS)[number];

export interface ReshapeLine {
  readonly key: string;
  readonly what: 'folder' | 'file';
  readonly sign: ReshapeSign;
  readonly before: string | null;
  readonly after: string | null;
  /** Frames of a sequence are one line. */
  readonly count: number;
  /** The convention a file's new name is written by. */
  readonly convention: string | null;
}

export interface Reshape {
  readonly lines: readonly ReshapeLine[];
  readonly changes: readonly Change[];
  /** Of the lines that stay as they are and are no line here. */
  readonly kept: number;
}

export function reshape(given: ReshapeGiven): Reshape {
  return new Reshaping(given).run();
}

class Reshaping {
  private readonly lines: ReshapeLine[] = [];
  private readonly changes = new Map<string, Change>();
  private readonly before = new Map<string, PlannedLine>();
  private readonly after = new Map<string, PlannedLine>();
  private readonly keysAfter = new Map<string, string>();
  private readonly matched = new Set<string>();
  private readonly blocked = new Set<string>();
  private readonly seen = new Map<string, Standing['kind'] | null>();
  private kept = 0;

  constructor(private readonly given: ReshapeGiven) {
    for (const line of given.before.expansion.lines) {
      const key = this.keyAfter(line);
      this.before.set(key, line);
      this.keysAfter.set(line.key, key);
    }
    for (const line of given.after.expansion.lines) this.after.set(line.key, line);
  }

  run(): Reshape {
    for (const line of this.given.after.expansion.lines) if (line.parent !== null) this.line(line);
    for (const line of this.given.after.expansion.lines) if (line.kind === 'folder') this.filesOf(line);
    for (const extra of this.given.extra ?? []) this.extra(extra);
    this.leftOver();
    return { lines: this.lines, changes: [...this.changes.values()], kept: this.kept };
  }

  private look(path: string): Standing['kind'] | null {
    const known = this.seen.get(path);
    if (known !== undefined) return known;
    const found = this.given.there.look(path)?.kind ?? null;
    this.seen.set(path, found);
    return found;
  }

  /** The key a line of before has when its entries are called what they are called after. */
  private keyAfter(line: PlannedLine): string {
    const { renamed } = this.given;
    const chain = line.key.slice(line.node.length);
    if (renamed === undefined || chain === '') return line.key;
    const listOf = this.given.before.listOfEntry;
    const segments = chain
      .slice(1)
      .split('&')
      .map((segment) => {
        const cut = segment.indexOf('=');
        const [as, entry] = [segment.slice(0, cut), segment.slice(cut + 1)];
        const names = renamed[listOf(as) ?? ''];
        // An entry may be called `constructor`.
        return `${as}=${names !== undefined && Object.hasOwn(names, entry) ? names[entry] : entry}`;
      });
    return `${line.node}@${segments.join('&')}`;
  }

  private line(line: PlannedLine): void {
    const was = this.before.get(line.key);
    const parent = present(line.parent);
    if (line.elsewhere !== undefined) {
      if (was === undefined && line.elsewhere.made) this.say(line.key, line.kind, 'elsewhere', null, line.path);
      return;
    }
    const standing = was === undefined || was.elsewhere !== undefined ? null : this.look(was.path);
    if (was !== undefined && standing === entryOf(line)) {
      this.standing(line, was, parent);
      return;
    }
    if (!line.made || (was?.made && was.elsewhere === undefined)) return;
    if (this.look(line.path) !== null && this.wasAt(line.path) === undefined) {
      this.matched.add(line.path);
      if (this.look(line.path) === entryOf(line)) this.say(line.key, line.kind, 'there', line.path, line.path);
      else this.block(line, null);
      return;
    }
    if (this.blocked.has(parent)) {
      this.block(line, null);
      return;
    }
    this.make(line);
  }

  private standing(line: PlannedLine, was: PlannedLine, parent: string): void {
    this.matched.add(was.path);
    const named = line.name !== was.name;
    const moved = was.parent === null || this.keysAfter.get(was.parent) !== parent;
    if (!named && !moved) {
      if (this.blocked.has(parent)) this.blocked.add(line.key);
      this.kept++;
      return;
    }
    const other = this.wasAt(line.path);
    // A name that only its bearer gives up is free; one that somebody keeps is not.
    const taken =
      line.path !== was.path &&
      other === undefined &&
      this.look(line.path) !== null &&
      line.path.toLowerCase() !== was.path.toLowerCase();
    if (taken || this.blocked.has(parent)) {
      this.block(line, was.path);
      return;
    }
    this.needFolder(parent);
    this.changes.set(line.key, {
      ...{ id: line.key, subject: { kind: 'line', line: line.key }, group: null, entry: entryOf(line) },
      ...{ before: home(was.path), after: home(line.path), content: null },
    });
    this.say(line.key, line.kind, 'renamed', was.path, line.path);
  }

  /** The line that had a path before and has another one after. */
  private wasAt(path: string): PlannedLine | undefined {
    this.byPath ??= new Map([...this.before].map(([key, line]) => [line.path, { key, line }]));
    const found = this.byPath.get(path);
    if (found === undefined) return undefined;
    const after = this.after.get(found.key);
    return after !== undefined && after.path !== path ? found.line : undefined;
  }

  private byPath: Map<string, { key: string; line: PlannedLine }> | null = null;

  private make(line: PlannedLine): void {
    if (this.changes.has(line.key)) return;
    this.needFolder(present(line.parent));
    for (const change of madeLines(line)) this.changes.set(change.id, change);
    this.say(line.key, line.kind, 'made', null, line.path);
  }

  /** What goes into a folder that somebody removed, or that is only made when it is needed, needs it. */
  private needFolder(key: string): void {
    const line = this.after.get(key);
    if (line === undefined || line.parent === null || this.changes.has(key)) return;
    const was = this.before.get(key);
    if (was !== undefined && this.look(was.path) === 'folder') return;
    if (this.look(line.path) === 'folder') return;
    this.make(line);
  }

  private block(line: PlannedLine, was: string | null): void {
    this.blocked.add(line.key);
    this.say(line.key, line.kind, 'taken', was, line.path);
  }

  /** Names that carry what is another now: read by the old rules, written by the new ones. */
  private filesOf(line: PlannedLine): void {
    const { before, after, there } = this.given;
    const was = this.before.get(line.key);
    if (was === undefined || line.elsewhere !== undefined || this.blocked.has(line.key)) return;
    const pairs = before.conventionsIn(was).flatMap((old) => {
      const now = after.conventionsIn(line).find((c) => c.convention.id === old.convention.id);
      return now === undefined || sameNames(old, now) ? [] : [{ old, now }];
    });
    if (pairs.length === 0 || this.look(was.path) !== 'folder') return;
    const files = there.files(was.path);
    const names = new Set(files.map((name) => name.toLowerCase()));
    const sequences = new Map<string, number>();
    const stay = new Set<string>();
    for (const name of files) {
      if (before.planned(join(was.path, name))?.kind === 'file') continue;
      const found = firstOf(pairs, ({ old, now }) => renamedFile(name, old, now));
      if (found === null || found.name === name || !this.isLegal(found.name)) continue;
      const path = join(was.path, name);
      const key = `file:${path}`;
      // One line stands for all frames of a sequence: kept is kept for all of them.
      const subject = frameless(found.by.strict, path).subject;
      if (this.given.keep?.has(key) && subject !== undefined) stay.add(subject);
      if (this.given.keep?.has(key) || (subject !== undefined && stay.has(subject))) continue;
      const target = join(line.path, found.name);
      const free = !names.has(found.name.toLowerCase()) || found.name.toLowerCase() === name.toLowerCase();
      // Only files that get another name are looked at: a project may hold a hundred thousand.
      const expects = free ? there.look(path) : null;
      if (expects !== null)
        this.changes.set(key, {
          id: key,
          subject: { kind: 'file' },
          group: subject ?? null,
          entry: 'file',
          before: home(path),
          after: home(target),
          content: null,
          expects: { size: expects.size, modified: expects.modified },
        });
      names.add(found.name.toLowerCase());
      this.sayFile(key, path, target, free, found.by, sequences);
    }
  }

  private isLegal(name: string): boolean {
    return nameFaults(name, this.given.after.template.checks?.profiles ?? DEFAULT_PROFILES).every(
      (f) => f.weight !== 'refused',
    );
  }

  private sayFile(
    key: string,
    path: string,
    target: string,
    free: boolean,
    by: FolderConvention,
    sequences: Map<string, number>,
  ): void {
    const subject = frameless(by.strict, path).subject;
    const known = subject === undefined ? undefined : sequences.get(`${subject} ${free}`);
    const first = known === undefined ? undefined : this.lines[known];
    if (known !== undefined && first !== undefined) this.lines[known] = { ...first, count: first.count + 1 };
    else {
      if (subject !== undefined) sequences.set(`${subject} ${free}`, this.lines.length);
      this.lines.push({
        key,
        what: 'file',
        sign: free ? 'renamed' : 'taken',
        before: path,
        after: target,
        count: 1,
        convention: by.convention.name,
      });
    }
  }

  private extra({ starter, folder, name }: Extra): void {
    const [from, into] = [this.after.get(starter), this.after.get(folder)];
    if (from?.starter == null || into?.kind !== 'folder' || !this.isLegal(name)) return;
    const path = join(into.path, name);
    const key = `extra:${path}`;
    if (
      this.blocked.has(folder) ||
      this.look(path) !== null ||
      [...this.changes.values()].some((c) => c.after?.path === path)
    ) {
      this.say(key, 'file', 'taken', null, path);
      return;
    }
    this.needFolder(folder);
    for (const { at, entry, content } of starterEntries(from.starter, path)) {
      const id = at === path ? key : `extra:${at}`;
      const plain = { id, subject: { kind: 'file' }, group: null, before: null } as const;
      this.changes.set(id, { ...plain, entry, after: home(at), content });
    }
    this.say(key, 'file', 'made', null, path);
  }

  /** Only the topmost of what the new rules do not know; what is in it stays with it. */
  private leftOver(): void {
    const paths = new Set([...this.after.values()].map((l) => l.path));
    const over: string[] = [];
    for (const [key, line] of this.before) {
      if (line.parent === null || this.after.has(key) || paths.has(line.path) || this.matched.has(line.path)) continue;
      if (over.some((path) => line.path.startsWith(`${path}/`)) || this.look(line.path) !== entryOf(line)) continue;
      over.push(line.path);
      this.say(line.key, line.kind, 'left-over', line.path, line.path);
    }
  }

  private say(
    key: string,
    what: 'folder' | 'file',
    sign: ReshapeSign,
    before: string | null,
    after: string | null,
  ): void {
    this.lines.push({ key, what, sign, before, after, count: 1, convention: null });
  }
}

/** Nothing that both write differs: no name can change. */
function sameNames(old: FolderConvention, now: FolderConvention): boolean {
  return (
    old.convention.pattern === now.convention.pattern &&
    JSON.stringify([old.bound, old.context.known]) === JSON.stringify([now.bound, now.context.known])
  );
}

function renamedFile(
  name: string,
  old: FolderConvention,
  now: FolderConvention,
): { readonly name: string; readonly by: FolderConvention } | null {
  const reading = readName(old.strict, name, old.bound);
  if (reading === null) return null;
  const values: Record<string, Reading[string]> = { ...reading };
  for (const [field, value] of Object.entries(now.bound))
    if (field in values || ownValue(old.bound, field) === undefined) values[field] = value;
  // A text the project has one value for follows that value; another text is the file's own.
  for (const [field, texts] of Object.entries(now.context.known ?? {})) {
    const before = old.context.known?.[field] ?? [];
    if (
      ownValue(now.bound, field) === undefined &&
      before.length === 1 &&
      texts.length === 1 &&
      ownValue(values, field) === before[0]
    )
      values[field] = elementAt(texts, 0);
  }
  const written = writeName(now.strict, values);
  return written.ok ? { name: written.value, by: now } : null;
}

function firstOf<T, R>(all: readonly T[], find: (one: T) => R | null): R | null {
  for (const one of all) {
    const found = find(one);
    if (found !== null) return found;
  }
  return null;
}
