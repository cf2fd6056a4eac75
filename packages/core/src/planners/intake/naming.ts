/** What a loose file is called in a folder: its own name where that follows the rules, else written by what is known. */

import { nameOf } from '../../listing/entry';
import { extensionOf } from '../../listing/extension';
import type { Reading, Value, Values } from '../../name/pattern/field';
import type { CompiledConvention, CompiledSlot } from '../../name/pattern/ops';
import { readName } from '../../name/read/read';
import { ordinal, versionAt } from '../../name/versions';
import { writeName } from '../../name/write';
import { ownValue } from '../../own-value';
import { clashKey } from '../../portable/name';
import type { FolderConvention } from '../../project/folder-convention';
import type { ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';
import { neededSlots, saidIn } from './places';
import type { Recognised } from './recognise';
import { singular, tokensOf } from './said';
import { namesOfLists } from './vocabulary';

export interface Named {
  readonly name: string;
  /** Fields that its convention asks for, and that nothing tells. */
  readonly missing: readonly string[];
  /** Fields whose value was not said outright: the words left over, the day it was written, a slip. */
  readonly derived: readonly string[];
  /** How it came to be: it follows the rules as it is, is written by them, or there are none. */
  readonly by: 'own' | 'written' | 'kept';
  /** The number or version that was said is another's: the next one stands in its place. */
  readonly isCountedOn?: boolean | undefined;
  /** It is one of an image sequence. */
  readonly isFrame?: boolean | undefined;
}

/** Values a person gave for it. */
export type GivenValues = Readonly<Record<string, string>>;

export class Naming {
  private readonly folders = new Map<string, FolderNames>();

  private readonly isListed: (field: string) => boolean;

  /** @param there - names in a folder of the project, as it is now */
  constructor(
    private readonly rules: ProjectRules,
    private readonly there: (folder: string) => readonly string[],
  ) {
    const listed = new Set([...namesOfLists(rules).values()].flat());
    this.isListed = (field) => listed.has(field);
  }

  of(file: Recognised, line: PlannedLine, given: GivenValues): Named {
    const own = this.ownName(file);
    const conventions = this.rules.conventionsFor(line, `x.${file.ext}`);
    const names = this.namesIn(line);
    if (conventions.length === 0) return { name: names.take(own, null), missing: [], derived: [], by: 'kept' };
    if (file.lie === null && Object.keys(given).length === 0)
      for (const { strict, bound } of conventions)
        if (readName(strict, own, bound) !== null) {
          names.add(own);
          return { name: own, missing: [], derived: [], by: 'own', isFrame: hasFrames(strict) };
        }
    const written = conventions.map((convention) => this.written(file, line, convention, given));
    const best = written.reduce((a, b) => (b.missing.length < a.missing.length ? b : a));
    if (best.missing.length > 0) return best;
    const name = names.take(best.name, best.next);
    const { missing, by, isFrame } = best;
    if (best.isOutright(name)) return { name, missing, derived: best.derived, by, isFrame };
    return { name, missing, derived: [...best.derived, best.counted ?? ''], by, isFrame, isCountedOn: best.isSaid };
  }

  /** With the extension of what it is. */
  private ownName({ file, ext, lie }: Recognised): string {
    const name = nameOf(file.path);
    const known = extensionOf(name, this.rules.extensionsKnown);
    if (lie === null && known !== '') return name;
    const stem = known === '' ? name : name.slice(0, name.length - known.length - 1);
    return ext === '' || (lie === null && name.toLowerCase().endsWith(`.${ext}`)) ? name : `${stem}.${ext}`;
  }

  private written(file: Recognised, line: PlannedLine, by: FolderConvention, given: GivenValues): Written {
    const { values, missing, derived } = new Filling(this.rules, file, line, by, given, this.isListed);
    const { strict } = by;
    const isFrame = hasFrames(strict);
    const counted = countedBy(strict);
    if (missing.length > 0) {
      const name = this.ownName(file);
      return { name, missing, derived, by: 'written', isFrame, next: null, counted, isSaid: false, isOutright: NEVER };
    }
    const isSaid = counted !== null && ownValue(values, counted) !== undefined;
    const names = this.namesIn(line);
    const nextNumber = counted === null ? null : names.nextBy(strict, counted, values);
    const like = strict.slots.some((s) => s.field === 'version' && s.domain.kind === 'letters') ? 'A' : 1;
    const at = (n: number) =>
      counted === null
        ? null
        : writtenBy(strict, { ...values, [counted]: counted === 'version' ? versionAt(n, like) : n });
    // One frame never leaves its sequence for another version.
    const next = nextNumber === null || (isFrame && isSaid) ? null : () => at(nextNumber());
    const name = counted === null || isSaid ? writtenBy(strict, values) : (next?.() ?? null);
    const faults = name === null ? faultsOf(strict, values, counted) : [];
    // A number that was said and is another's, or a version after one that is there: somebody may have meant another.
    const plainest = isSaid ? name : counted === 'version' ? at(1) : null;
    const isOutright = (taken: string) => plainest === null || taken === plainest;
    const called = name ?? this.ownName(file);
    return { name: called, missing: faults, derived, by: 'written', isFrame, next, counted, isSaid, isOutright };
  }

  private namesIn(line: PlannedLine): FolderNames {
    const known = this.folders.get(line.path);
    if (known !== undefined) return known;
    const made = new FolderNames(this.there(line.path));
    this.folders.set(line.path, made);
    return made;
  }
}

const NEVER = (): boolean => false;

const hasFrames = ({ slots }: CompiledConvention): boolean => slots.some(({ field }) => field === 'frame');

interface Written extends Named {
  /** The name with the number after, where it has one. */
  readonly next: (() => string | null) | null;
  /** The field that counts, and whether its value was said. */
  readonly counted: string | null;
  readonly isSaid: boolean;
  /** Whether a name has the number that was said, or needs none. */
  readonly isOutright: (name: string) => boolean;
}

function writtenBy(convention: CompiledConvention, values: Values): string | null {
  const name = writeName(convention, values);
  return name.ok ? name.value : null;
}

function faultsOf(convention: CompiledConvention, values: Values, counted: string | null): readonly string[] {
  const name = writeName(
    convention,
    counted === null ? values : { ...values, [counted]: ownValue(values, counted) ?? 1 },
  );
  return name.ok ? [] : name.faults.map(({ field }) => field);
}

/** What tells names apart that are alike otherwise: a number, else the version. */
function countedBy({ slots }: CompiledConvention): string | null {
  return (slots.find(isCounter) ?? slots.find(({ field }) => field === 'version'))?.field ?? null;
}

/** Names of one folder, with those that this plan brings. */
class FolderNames {
  private readonly taken: Set<string>;
  private readonly names: string[];
  private readonly last = new Map<string, number>();
  private readonly keys = new Map<string, string>();
  private readonly read = new Set<string>();

  constructor(there: readonly string[]) {
    this.names = [...there];
    this.taken = new Set(there.map(clashKey));
  }

  add(name: string): void {
    this.taken.add(clashKey(name));
    this.names.push(name);
  }

  /** The name, or the next one that is free; the name itself where there is no next one: then it clashes. */
  take(name: string, next: (() => string | null) | null): string {
    let free: string | null = name;
    for (let tries = 0; free !== null && this.taken.has(clashKey(free)); tries++)
      free = next === null || tries > MOST_TRIES ? null : next();
    if (free !== null) this.add(free);
    return free ?? name;
  }

  /** Counts on from the highest of all names that have these values otherwise. */
  nextBy(convention: CompiledConvention, field: string, values: Values): () => number {
    const scope = `${convention.pattern.source}\0${field}`;
    if (!this.read.has(scope)) {
      this.read.add(scope);
      for (const name of this.names) {
        const reading = readName(convention, name);
        if (reading !== null) this.count(`${scope}\0${keyOf(reading, field)}`, reading[field]);
      }
    }
    const key = this.keyFor(convention, field, values);
    return () => {
      const next = (this.last.get(key) ?? 0) + 1;
      this.last.set(key, next);
      return next;
    };
  }

  /** As a name with these values would be read. */
  private keyFor(convention: CompiledConvention, field: string, { [field]: _, ext: _ext, ...values }: Values): string {
    const scope = `${convention.pattern.source}\0${field}`;
    const asked = `${scope}\0${JSON.stringify(values)}`;
    const known = this.keys.get(asked);
    if (known !== undefined) return known;
    const probe = writeName(convention, { ...values, [field]: 1, ext: _ext ?? null });
    const reading = probe.ok ? readName(convention, probe.value) : null;
    const key = `${scope}\0${reading === null ? '' : keyOf(reading, field)}`;
    this.keys.set(asked, key);
    return key;
  }

  private count(key: string, value: Value | undefined): void {
    if (typeof value !== 'number' && typeof value !== 'string') return;
    this.last.set(key, Math.max(this.last.get(key) ?? 0, ordinal(value)));
  }
}

const MOST_TRIES = 10_000;
const keyOf = (reading: Reading, without: string): string =>
  JSON.stringify(Object.entries(reading).filter(([field]) => field !== without && field !== 'ext'));

const isCounter = ({ field, domain }: CompiledSlot): boolean =>
  domain.kind === 'digits' && field !== 'frame' && field !== 'version';

/** Values for the slots of one convention, from all that is known. */
class Filling {
  readonly values: Record<string, Value> = {};
  readonly missing: string[] = [];
  readonly derived: string[] = [];
  private isTailUsed = false;
  private isRestUsed = false;
  private readonly convention: CompiledConvention;

  constructor(
    private readonly rules: ProjectRules,
    private readonly file: Recognised,
    private readonly line: PlannedLine,
    by: FolderConvention,
    private readonly given: GivenValues,
    private readonly isListed: (field: string) => boolean,
  ) {
    this.convention = by.strict;
    const needed = new Set(neededSlots(by.strict).map(({ field }) => field));
    for (const slot of by.strict.slots) {
      const { field } = slot;
      if (ownValue(this.values, field) !== undefined || this.missing.includes(field)) continue;
      const value = this.known(slot) ?? (needed.has(field) ? this.made(slot) : undefined);
      if (value !== undefined) this.values[field] = value;
      else if (needed.has(field) && field !== 'version' && !isCounter(slot)) this.missing.push(field);
    }
  }

  /** Given, or said. */
  private known(slot: CompiledSlot): Value | undefined {
    const { field, domain } = slot;
    const own = ownValue(this.given, field) ?? ownValue(this.line.entries, field);
    if (own !== undefined && own !== '') return own;
    if (field === 'ext') return this.file.ext;
    if (field === 'version') return this.file.version ?? undefined;
    const { states } = this.convention;
    const said = saidIn(this.file, field);
    const options = domain.kind === 'fixed' ? domain.entries : null;
    const fitting = said.filter(
      ({ value }) => options === null || options.some((o) => String(o.value) === value || o.also.includes(value)),
    );
    const values = new Set(fitting.map(({ value }) => value));
    const [only] = values;
    if (values.size === 1 && only !== undefined) {
      if (fitting.every(({ isSlip }) => isSlip)) this.derived.push(field);
      return only;
    }
    if (domain.kind === 'date' && this.file.when !== null) {
      if (this.file.when.isUnsure) this.derived.push(field);
      const { day, time } = this.file.when;
      return time === null ? day : `${day}T${time}`;
    }
    if (field === states?.field) return states.words[0];
    if (field === 'frame') return this.file.counts.get(field) ?? this.tail();
    if (isCounter(slot)) return this.file.counts.get(field) ?? this.tail();
    // A project's own date and person are not those of its files.
    if (domain.kind === 'date' || field === 'person') return undefined;
    return ownValue(this.rules.expansion.values.values, field) ?? undefined;
  }

  private tail(): string | undefined {
    if (this.file.tail === null || this.isTailUsed) return undefined;
    this.isTailUsed = true;
    return this.file.tail;
  }

  /** From what is left over, or the folder's own words. */
  private made({ field, domain }: CompiledSlot): Value | undefined {
    if (domain.kind === 'fixed' && domain.of === 'choice') {
      const words = new Set(tokensOf(this.line.path).map((token) => singular(token.key)));
      const meant = domain.entries.filter((entry) =>
        [entry.text, ...entry.also].some((text) => words.has(singular(text.toLowerCase()))),
      );
      const [only] = meant;
      return meant.length === 1 && only !== undefined ? only.value : undefined;
    }
    const told = this.file.counts.get(field);
    if (domain.kind === 'text' && told !== undefined) return told;
    if (domain.kind === 'text' && !this.isListed(field) && !this.isRestUsed && this.file.rest.length > 0) {
      this.isRestUsed = true;
      const { rest } = this.file;
      // A few words are a subject; more, or digits among them, may be anything.
      if (rest.length > 3 || rest.some((word) => /\d/.test(word))) this.derived.push(field);
      return rest.join(' ');
    }
    if (domain.kind !== 'date') return undefined;
    // In a folder of one day that day is meant, and not the one on which a copy was written.
    const dated = this.rules.datedFolder(this.line);
    if (dated !== null) {
      this.derived.push(field);
      return dated.date;
    }
    if (this.file.file.modified > 0) {
      this.derived.push(field);
      return new Date(this.file.file.modified).toISOString().slice(0, 10);
    }
    return undefined;
  }
}
