/**
 * What things are called in the new project.
 *
 * 1. A name that reads by its convention is written anew by what it means, with the new project's values.
 * 2. In all others the old project's number, client and title become the new one's as whole words, and so do the words
 *    that a person added.
 */

import type { Value } from '../../name/pattern/field';
import { versionAt, withFirstState } from '../../name/versions';
import { changeWords, type WordChange, wordsIn } from '../../name/whole-words';
import { writeName } from '../../name/write';
import { ownValue } from '../../own-value';
import type { FolderConvention } from '../../project/folder-convention';
import type { ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';
import type { Revision, SourceFile } from './source';
import type { CarryWay } from './way';

export const NAMED_BY = ['meaning', 'words', 'same', 'hand'] as const;
/** How a name came to be. */
export type NamedBy = (typeof NAMED_BY)[number];

/** A word, or several that stand together, as it stands in names that read by no convention. */
export interface OldWordFound {
  readonly old: string;
  /** `null` where it goes. */
  readonly now: string | null;
  /** Names that hold it, of those that come. */
  readonly names: number;
  /** Whether a person added it; else it is the project's own. */
  readonly isAdded: boolean;
}

/** Where a version stands among those of its chain that come along. */
export interface VersionPlace {
  /** From 1. */
  readonly rank: number;
  /** Nothing else of the chain comes: what it was in another state is left behind. */
  readonly isAlone: boolean;
}

export interface NewName {
  readonly name: string;
  readonly by: NamedBy;
}

export class NewNames {
  private readonly told: readonly ToldChange[];
  private readonly words: readonly WordChange[];

  constructor(
    private readonly source: ProjectRules,
    private readonly target: ProjectRules,
    private readonly way: CarryWay,
    private readonly revision: Revision | null,
  ) {
    const added = way.words.flatMap(({ old, new: now }) => toldWord(old, now, true));
    this.told = [...added, ...projectWords(source, target), ...(revision === null ? [] : revisionWords(revision))];
    this.words = this.told.map(({ change }) => change);
  }

  /** Each with how many of these names hold it. */
  oldWordsIn(names: readonly string[]): readonly OldWordFound[] {
    return this.told.map(({ change, old, now, isAdded }) => {
      const holds = (name: string) => changeWords(name, [{ ...change, now: () => '\0' }]) !== name;
      return { old, now, isAdded, names: names.filter(holds).length };
    });
  }

  of(file: SourceFile, line: PlannedLine | null, rank: VersionPlace): NewName {
    const { name } = file.file;
    const written = this.written(file, line, rank);
    if (written !== null) return { name: written, by: written === name ? 'same' : 'meaning' };
    return this.byWords(name);
  }

  byWords(name: string): NewName {
    const changed = changeWords(name, this.words);
    return { name: changed, by: changed === name ? 'same' : 'words' };
  }

  private written({ file, by, reading }: SourceFile, line: PlannedLine | null, place: VersionPlace): string | null {
    if (by === null || reading === null) return null;
    const there = line === null ? [] : this.target.conventionsFor(line, file.name);
    const as = there.find((c) => c.convention.id === by.convention.id);
    if (as === undefined) return null;
    const same = { ...reading, ...this.valuesAfter(reading), ...boundOf(as, reading), ...this.entryAfter(reading) };
    const values = this.way.version !== 'keep' && place.isAlone ? withFirstState(as.strict, same) : same;
    for (const version of this.versions(reading.version, place.rank)) {
      const { version: _version, ...rest } = values;
      const written = writeName(as.strict, version === undefined ? rest : { ...rest, version });
      if (written.ok) return written.value;
    }
    return null;
  }

  /** One after another, until the convention takes it. */
  private versions(version: Value | undefined, rank: number): readonly (Value | undefined)[] {
    if (version === undefined || this.way.version === 'keep') return [version];
    const like = typeof version === 'number' || typeof version === 'string' ? version : undefined;
    const first = versionAt(rank, like);
    return this.way.version === 'drop' ? [undefined, first] : [first];
  }

  private entryAfter(reading: Readonly<Record<string, Value>>): Record<string, Value> {
    if (this.revision === null || reading[this.revision.as] === undefined) return {};
    return { [this.revision.as]: this.revision.now };
  }

  /** Values that are the old project's own become the new one's; another title, or another day, is what it was. */
  private valuesAfter(reading: Readonly<Record<string, Value>>): Record<string, Value> {
    const [was, now] = [this.source.expansion.values.values, this.target.expansion.values.values];
    const out: Record<string, Value> = {};
    for (const field of ['title', 'date']) {
      const [value, old, next] = [reading[field], was[field], now[field]];
      if (typeof value !== 'string' || typeof old !== 'string' || typeof next !== 'string') continue;
      if (wordsIn(value).join(' ').toLowerCase() === wordsIn(old).join(' ').toLowerCase()) out[field] = next;
    }
    return out;
  }
}

/** The number, the client and the entries of the new folder, where the name carries them. */
const boundOf = ({ bound }: FolderConvention, reading: Readonly<Record<string, Value>>): Record<string, Value> =>
  Object.fromEntries(Object.entries(bound).filter(([field]) => ownValue(reading, field) !== undefined));

interface ToldChange extends Omit<OldWordFound, 'names'> {
  readonly change: WordChange;
}

function toldWord(old: string, now: string | null, isAdded: boolean): ToldChange[] {
  const words = wordsIn(old);
  return words.length === 0 ? [] : [{ old, now, isAdded, change: { words, now: () => now } }];
}

/** A single letter, or a count below ten, stands in too many names for other things. */
const revisionWords = ({ was, now }: Revision): ToldChange[] => (was.length < 2 ? [] : toldWord(was, now, false));

function projectWords(source: ProjectRules, target: ProjectRules): readonly ToldChange[] {
  const [was, now] = [source.expansion.values.values, target.expansion.values.values];
  const plain = (old: string | undefined, next: string | undefined): ToldChange[] =>
    old === undefined || next === undefined || old === next ? [] : toldWord(old, next, false);
  const [title, nextTitle] = [was.title, now.title];
  const titled =
    typeof title === 'string' && typeof nextTitle === 'string' && title !== nextTitle
      ? toldWord(title, nextTitle, false).map((told) => ({
          ...told,
          change: { ...told.change, now: (found: string) => inMannerOf(found, nextTitle) },
        }))
      : [];
  return [...plain(source.number, target.number), ...plain(source.client, target.client), ...titled];
}

/** Words written as others were: with their separator, in small, capital or mixed letters. */
function inMannerOf(found: string, text: string): string {
  const separator = /[\p{L}\p{N}]([^\p{L}\p{N}]+)[\p{L}\p{N}]/u.exec(found)?.[1] ?? (/\s/.test(found) ? ' ' : '-');
  const words = wordsIn(text).map((word) => {
    if (found === found.toLowerCase()) return word.toLowerCase();
    return found === found.toUpperCase() ? word.toUpperCase() : word;
  });
  return words.join(separator);
}
