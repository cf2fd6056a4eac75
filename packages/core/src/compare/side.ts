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

/**
 * `rules` are `null` for a folder that no rules are known of; `byKeys` where both sides are of one template.
 *
 * @param within - the one folder that is compared, from the root: what it was made for is its own, as a number is
 */
export function* itemsOfSide(
  rules: ProjectRules | null,
  listings: Iterable<FolderListing>,
  byKeys: boolean,
  within = '',
): Generator<ReadItem> {
  const side = new Side(rules, byKeys, within);
  for (const listing of listings) yield* side.folder(listing);
}

/** What every project has values of its own for. */
const OWN_FIELDS: ReadonlySet<string> = new Set(['number', 'client', 'frame']);

class Side {
  private readonly own: readonly WordChange[];
  private readonly title: string;
  /** Entries that the compared folder was made for. */
  private readonly entries: Readonly<Record<string, string>>;

  constructor(
    private readonly rules: ProjectRules | null,
    private readonly byKeys: boolean,
    private readonly within: string,
  ) {
    this.entries = within === '' ? {} : (rules?.planned(within)?.entries ?? {});
    this.own = rules === null ? [] : ownWords(rules, Object.values(this.entries));
    this.title = rules === null ? '' : textOf(rules.expansion.values.values.title);
  }

  *folder(listing: FolderListing): Generator<ReadItem> {
    const { rules } = this;
    const folder = this.folderMeaning(listing.path);
    const items = rules === null ? null : itemsOf(rules, listing, stateOf(rules, listing.path));
    const readings = new Map(items?.read.map((r) => [r.file.name, r]));
    const runs = new Map(items?.runs.map((run) => [run.first, run]));
    for (const file of items === null ? listing.files : singlesOf(listing, items)) {
      const [run, read] = [runs.get(file.name), readings.get(file.name)];
      if (run !== undefined) yield this.sequence(listing.path, folder, run);
      else if (read !== undefined)
        yield { ...plain(listing.path, file), ...this.byReading(folder, read.by, read.reading) };
      else yield { ...plain(listing.path, file), meaning: `${folder}/${this.neutral(file.name)}`, chain: null };
    }
  }

  private sequence(path: string, folder: string, run: Run): ReadItem {
    const item: SideItem = {
      path: join(path, `${run.head}#${run.tail}`),
      size: run.bytes,
      modified: run.newest,
      frames: run.names.length,
      names: [...run.names].sort(),
    };
    return { ...item, ...this.byReading(folder, run.by, run.reading) };
  }

  private byReading(folder: string, by: FolderConvention, reading: Reading): Pick<ReadItem, 'meaning' | 'chain'> {
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
    if (line?.kind === 'folder') return `\0${line.key}`;
    return path === '' ? '' : `${this.folderMeaning(parentOf(path))}/${this.neutral(nameOf(path))}`;
  }

  private inside(path: string): string {
    return this.within === '' ? path : path.slice(this.within.length + 1);
  }

  private neutral(name: string): string {
    return this.own.length === 0 ? name : changeWords(name, this.own);
  }
}

const plain = (folder: string, { name, size, modified }: FileEntry): SideItem => ({
  path: join(folder, name),
  size,
  modified,
  frames: 1,
  names: [name],
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
