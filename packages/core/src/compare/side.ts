/** One of two projects that are held against each other: its files, sequences as one, each with what it means. */

import { itemsOf, type Run, singlesOf } from '../check/items';
import { stateOf } from '../check/match';
import { type FileEntry, type FolderListing, join, nameOf, parentOf } from '../listing/entry';
import type { Reading } from '../name/pattern/field';
import { versionRank } from '../name/versions';
import { changeWords, type WordChange, wordsIn } from '../name/whole-words';
import { ownValue } from '../own-value';
import type { FolderConvention } from '../project/folder-convention';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';

export interface SideItem {
  /** From the root; of a sequence with `#` for its frame. */
  readonly path: string;
  /** Bytes, of a sequence all of it. */
  readonly size: number;
  /** Milliseconds since 1970, of a sequence that of its newest frame. */
  readonly modified: number;
  readonly frames: number;
  /** Names of its files, in order. */
  readonly names: readonly string[];
}

export interface ReadItem extends SideItem {
  /** The same in two projects for what means the same, whatever their numbers, clients and titles are. */
  readonly meaning: string;
  /** The same without its version; with it, which one it is. `null` where it has none. */
  readonly chain: { readonly key: string; readonly version: number } | null;
}

/** What of a project is compared. */
export interface Scope {
  /** One folder, from the root; empty for all of it. What it was made for is its own, as a number is. */
  readonly within: string;
  /** One entry of the list that its template calls its revisions, by folders and names: it is the side's own too. */
  readonly revision: { readonly as: string; readonly entry: string } | null;
  /** Which files; all where it is `null`. */
  readonly holds: ((path: string) => boolean) | null;
}

const WHOLE: Scope = { within: '', revision: null, holds: null };

/** `rules` are `null` for a folder that no rules are known of; `byKeys` where both sides are of one template. */
export function* itemsOfSide(
  rules: ProjectRules | null,
  listings: Iterable<FolderListing>,
  byKeys: boolean,
  scope: Scope = WHOLE,
): Generator<ReadItem> {
  const side = new Side(rules, byKeys, scope);
  for (const listing of listings) yield* side.folder(listing);
}

/** What every project has values of its own for. */
const OWN_FIELDS: ReadonlySet<string> = new Set(['number', 'client', 'frame']);

class Side {
  private readonly own: readonly WordChange[];
  private readonly title: string;
  /** Entries that the compared folder was made for, and the revision that is compared. */
  private readonly entries: Readonly<Record<string, string>>;

  constructor(
    private readonly rules: ProjectRules | null,
    private readonly byKeys: boolean,
    private readonly scope: Scope,
  ) {
    const { within, revision } = scope;
    this.entries = {
      ...(within === '' ? {} : rules?.planned(within)?.entries),
      ...(revision !== null && { [revision.as]: revision.entry }),
    };
    this.own = rules === null ? [] : ownWords(rules, Object.values(this.entries));
    this.title = rules === null ? '' : textOf(rules.expansion.values.values.title);
  }

  *folder(whole: FolderListing): Generator<ReadItem> {
    const { rules } = this;
    const { holds } = this.scope;
    const listing =
      holds === null ? whole : { ...whole, files: whole.files.filter(({ name }) => holds(join(whole.path, name))) };
    const isOfRevision = this.revisionIn(listing.path);
    const folder = this.folderMeaning(listing.path);
    const items = rules === null ? null : itemsOf(rules, listing, stateOf(rules, listing.path));
    const readings = new Map(items?.read.map((r) => [r.file.name, r]));
    const runs = new Map(items?.runs.map((run) => [run.first, run]));
    for (const file of items === null ? listing.files : singlesOf(listing, items)) {
      const [run, read] = [runs.get(file.name), readings.get(file.name)];
      if (!isOfRevision((run ?? read)?.reading)) continue;
      if (run !== undefined) yield this.sequence(listing.path, folder, run);
      else if (read !== undefined) yield plain(listing.path, file, this.byReading(folder, read.by, read.reading));
      else yield plain(listing.path, file, { meaning: `${folder}/${this.neutral(file.name)}`, chain: null });
    }
  }

  /** Whether a file of a folder belongs to the revision that is compared, by the folder or by its name. */
  private revisionIn(folder: string): (reading: Reading | undefined) => boolean {
    const { revision } = this.scope;
    if (revision === null) return () => true;
    const { as, entry } = revision;
    if (this.rules?.planned(folder)?.entries[as] === entry) return () => true;
    return (reading) => reading !== undefined && String(ownValue(reading, as) ?? '') === entry;
  }

  private sequence(path: string, folder: string, run: Run): ReadItem {
    return {
      path: join(path, `${run.head}#${run.tail}`),
      size: run.bytes,
      modified: run.newest,
      frames: run.names.length,
      names: [...run.names].sort(),
      ...this.byReading(folder, run.by, run.reading),
    };
  }

  private byReading(folder: string, by: FolderConvention, reading: Reading): Meant {
    let key = `${folder}/${by.convention.id}`;
    const { states } = by.strict;
    for (const { field } of by.strict.slots) {
      const value = ownValue(reading, field);
      if (value === undefined || OWN_FIELDS.has(field) || field === 'version' || field === states?.field) continue;
      if (Object.hasOwn(this.entries, field)) continue;
      key += `\0${field}=${field === 'title' && this.isTitle(String(value)) ? '' : value}`;
    }
    const { version } = reading;
    if (version === undefined) return { meaning: key, chain: null };
    const state = states === null ? '' : (ownValue(reading, states.field) ?? '');
    return {
      meaning: `${key}\0version=${version} ${state}`,
      chain: { key, version: versionRank(by.strict, reading) },
    };
  }

  private isTitle(value: string): boolean {
    return this.title !== '' && wordsIn(value).join(' ').toLowerCase() === this.title;
  }

  /** A planned folder by its identity; what is below one that no rule knows by its own names. */
  private folderMeaning(path: string): string {
    const { rules } = this;
    if (!this.byKeys || rules === null)
      return this.inside(path)
        .split('/')
        .map((name) => this.neutral(name))
        .join('/');
    const line = rules.planned(path);
    if (line?.kind === 'folder') return `\0${this.keyOf(line)}`;
    return path === '' ? '' : `${this.folderMeaning(parentOf(path))}/${this.neutral(nameOf(path))}`;
  }

  /** The same for folders of two revisions. */
  private keyOf({ key, node, entries }: PlannedLine): string {
    const { revision } = this.scope;
    if (revision === null || entries[revision.as] !== revision.entry) return key;
    const { [revision.as]: _own, ...others } = entries;
    return `${node} ${JSON.stringify(others)}`;
  }

  private inside(path: string): string {
    const { within } = this.scope;
    return within === '' ? path : path.slice(within.length + 1);
  }

  private neutral(name: string): string {
    return this.own.length === 0 ? name : changeWords(name, this.own);
  }
}

type Meant = Pick<ReadItem, 'meaning' | 'chain'>;

const plain = (folder: string, { name, size, modified }: FileEntry, { meaning, chain }: Meant): ReadItem => ({
  path: join(folder, name),
  size,
  modified,
  frames: 1,
  names: [name],
  meaning,
  chain,
});

const textOf = (value: unknown): string => (typeof value === 'string' ? wordsIn(value).join(' ').toLowerCase() : '');

/** A sign that no name holds stands for each value of the project's own. */
function ownWords({ number, client, expansion }: ProjectRules, entries: readonly string[]): readonly WordChange[] {
  const title = expansion.values.values.title;
  const values = [number, client, typeof title === 'string' ? title : undefined, ...entries];
  return values.flatMap((value, i): WordChange[] => {
    const words = wordsIn(value ?? '');
    return words.length === 0 ? [] : [{ words, now: () => `\0${i}` }];
  });
}
