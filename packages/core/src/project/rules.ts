/**
 * A project's rules, compiled once: the plan by path, conventions by the fields in hand, families by extension. Check,
 * name helper and planners share them; a worker compiles its own from the same plain data.
 */

import { frameRange, nameOf } from '../listing/entry';
import { extensionOf } from '../listing/extension';
import { valuesOf } from '../name/automaton/scan';
import type { NameContext } from '../name/mend/costs';
import { compileConvention } from '../name/pattern/compile';
import type { Field, Reading, ReadValue, Registers, Values } from '../name/pattern/field';
import type { CompiledConvention } from '../name/pattern/ops';
import { parsePattern } from '../name/pattern/parse';
import { writeSlot } from '../name/write';
import { ownValue } from '../own-value';
import { DEFAULT_PATH_BUDGET, DEFAULT_PROFILES, type ProfileName } from '../portable/profiles';
import { expandTemplate } from '../template/expand';
import type { Expansion, PlannedLine } from '../template/expansion';
import type { Convention, Template, Weight } from '../template/node';
import { AgreedSettings } from './agreed';
import { Documents } from './documents';
import type { FolderConvention } from './folder-convention';
import { GENERATED, isLeftBySystem } from './generated';
import { Homes } from './homes';

export interface CheckInput {
  readonly template: Template;
  readonly values: Values;
  /** The studio's registers; the template's own are added. */
  readonly registers: Registers;
  /** Milliseconds since 1970; where it is not given nothing is still settling. */
  readonly now?: number | undefined;
  /**
   * UTF-16 units of what stands before the project's own folder on the system where that is longest, its last separator
   * included.
   */
  readonly prefix?: number | undefined;
  /** What was chosen on the setup sheet, by each setting's label; what is not among them is as usual. */
  readonly settings?: Readonly<Record<string, string>> | undefined;
}

/** Files changed within this time, in milliseconds, are not judged for gaps, emptiness or versions. */
const SETTLING = 2 * 60_000;

export class ProjectRules {
  readonly template: Template;
  readonly expansion: Expansion;
  readonly registers: Registers;
  readonly number: string | undefined;
  readonly client: string | undefined;
  readonly profiles: readonly ProfileName[];
  readonly budget: number;
  /** What stands before a path from the project's root: the volume's prefix, the root's name and a separator. */
  readonly before: number;
  readonly now: number | undefined;
  private homes: Homes | null = null;
  /** Several rules ask for the same name's home. */
  private lastHome: { readonly name: string; readonly home: PlannedLine | null } | null = null;
  private readonly dated = new Map<string, { readonly key: string; readonly date: string } | null>();
  private lineOf: Map<string, PlannedLine> | null = null;
  private readonly byPath = new Map<string, PlannedLine>();
  /** Folders in which files are planned: in all others no file needs to be looked up. */
  private readonly withFiles = new Set<string | null>();
  private readonly compiled = new Map<string, CompiledConvention | null>();
  private readonly folders = new Map<string, readonly FolderConvention[]>();
  private readonly byExtension = new Map<string, readonly FolderConvention[]>();
  private readonly families = new Map<string, string>();
  /** Families by the extension of their side files. */
  private readonly companions = new Map<string, readonly string[]>();
  private readonly withCompanions = new Set<string>();
  readonly documents: Documents;
  readonly agreed: AgreedSettings;
  private readonly people = new Set<string>();
  /** The list that entries of this name come from. */
  private readonly lists = new Map<string, string>();
  private readonly extensions = new Map<string, ReadonlySet<string>>();
  private readonly known = new Map<CompiledConvention, NameContext['known']>();
  private readonly readBack = new Map<CompiledConvention, Map<string, ReadValue | undefined>>();

  constructor(input: CheckInput) {
    this.template = input.template;
    this.expansion = expandTemplate(input.template, input.values, input.registers);
    this.registers = this.expansion.registers;
    this.profiles = input.template.checks?.profiles ?? DEFAULT_PROFILES;
    this.budget = input.template.checks?.pathBudget ?? DEFAULT_PATH_BUDGET;
    this.now = input.now;
    this.before = (input.prefix ?? 0) + this.expansion.rootName.length + 1;
    const values = this.expansion.values.values;
    this.number = values.number === undefined || values.number === null ? undefined : String(values.number);
    this.client = typeof values.client === 'string' ? values.client : undefined;
    for (const line of this.expansion.lines) {
      this.byPath.set(line.path.normalize('NFC'), line);
      if (line.kind === 'file') this.withFiles.add(line.parent);
      if (line.folder?.onePer) this.lists.set(line.folder.onePer.as, line.folder.onePer.list);
    }
    this.documents = new Documents(this.registers.families);
    this.agreed = new AgreedSettings(input.template.setup, input.settings ?? {}, (path) => this.planned(path));
    for (const family of this.registers.families) {
      for (const ext of family.extensions) this.families.set(ext.toLowerCase(), family.name);
      for (const ext of family.companions ?? [])
        this.companions.set(ext.toLowerCase(), [...(this.companions.get(ext.toLowerCase()) ?? []), family.name]);
      if (family.companions !== undefined && family.companions.length > 0) this.withCompanions.add(family.name);
    }
    for (const person of this.registers.people) this.people.add(person.initials);
  }

  /** The same rules at another moment: nothing is compiled again. */
  at(now: number | undefined): ProjectRules {
    return Object.assign(Object.create(ProjectRules.prototype) as ProjectRules, this, { now });
  }

  planned(path: string): PlannedLine | undefined {
    return this.byPath.get(isAscii(path) ? path : path.normalize('NFC'));
  }

  /** Whether a folder is one document; what the plan has as a folder is none. */
  readonly isDocumentFolder = (path: string): boolean =>
    this.documents.anyFolders && this.documents.isFolder(nameOf(path)) && this.planned(path)?.kind !== 'folder';

  plansFilesIn(line: PlannedLine): boolean {
    return this.withFiles.has(line.key);
  }

  isSettling(modified: number): boolean {
    return this.now !== undefined && modified > 0 && Math.abs(this.now - modified) < SETTLING;
  }

  /** Frames that each sequence in this folder should have; `null` where nothing says. */
  framesOf(line: PlannedLine): readonly [number, number] | null {
    const said = line.folder?.frames;
    if (said === undefined) return null;
    const value = ownValue(line.entries, said) ?? ownValue(this.expansion.values.values, said);
    return frameRange(typeof value === 'string' ? value : said);
  }

  /** The dated folder this one is, or lies in; its date as ISO 8601. */
  datedFolder(line: PlannedLine): { readonly key: string; readonly date: string } | null {
    const known = this.dated.get(line.key);
    if (known !== undefined) return known;
    let found: { key: string; date: string } | null = null;
    for (const [as, entry] of Object.entries(line.entries))
      if (this.ruleOfEntry(as)?.type === 'date') found = { key: as, date: entry };
    if (found !== null) {
      const { key: as, date } = found;
      this.lineOf ??= new Map(this.expansion.lines.map((l) => [l.key, l]));
      let top = line;
      for (
        let above = this.lineOf.get(line.parent ?? '');
        above?.entries[as] === date;
        above = this.lineOf.get(above.parent ?? '')
      )
        top = above;
      found = { key: top.key, date };
    }
    this.dated.set(line.key, found);
    return found;
  }

  /** The planned folder whose convention this very name follows; `null` where there is none, or more than one. */
  homeOf(name: string): PlannedLine | null {
    this.homes ??= new Homes(
      this.expansion.lines,
      (line) => this.conventionsIn(line),
      (line) => this.datedFolder(line)?.date ?? null,
    );
    if (this.lastHome?.name !== name) this.lastHome = { name, home: this.homes.of(name) };
    return this.lastHome.home;
  }

  weightOf({ code, weight }: { readonly code: string; readonly weight: Weight }): Weight | 'off' {
    return this.template.checks?.rules?.[code] ?? weight;
  }

  /** The family of a file by its extension, double extensions first; `null` for one that no family lists. */
  familyOf(name: string): string | null {
    return this.families.get(extensionOf(name, this.families)) ?? null;
  }

  /** Extensions that some family lists, for finding the longest one of a name. */
  get extensionsKnown(): { has(ext: string): boolean } {
    return this.families;
  }

  /** Families whose side file this is; none where its extension is a family's own, which a document may have too. */
  companionOf(name: string): readonly string[] {
    if (this.companions.size === 0) return [];
    const ext = extensionOf(name, this.companions);
    const families = this.companions.get(ext) ?? [];
    const own = this.families.get(ext);
    return own === undefined || own === GENERATED ? families : [];
  }

  get anyCompanions(): boolean {
    return this.companions.size > 0;
  }

  hasCompanions(family: string): boolean {
    return this.withCompanions.has(family);
  }

  /** Made by a program, or left behind by a system. */
  isGenerated(name: string): boolean {
    return isLeftBySystem(name) || this.familyOf(name) === GENERATED;
  }

  /** Whose initials stand in a name as a part of their own; `null` for nobody's, or several people's. */
  personIn(name: string): string | null {
    let found: string | null = null;
    for (const part of name.split(/[^\p{L}\p{N}]+/u)) {
      if (!this.people.has(part) || part === found) continue;
      if (found !== null) return null;
      found = part;
    }
    return found;
  }

  /**
   * Conventions meant for files of this extension; where none is and the family is accepted all the same, no name is
   * asked for.
   */
  conventionsFor(line: PlannedLine, name: string): readonly FolderConvention[] {
    const all = this.conventionsIn(line);
    if (all.length === 0) return all;
    const fitting = all.filter((c) => c.extensions === null || c.extensions.has(extensionOf(name, c.extensions)));
    if (fitting.length > 0) return fitting.length === all.length ? all : fitting;
    const family = this.familyOf(name);
    return family !== null && line.rules.accepts?.includes(family) ? [] : all;
  }

  /** Conventions for files of this extension, each once, as some folder has it. */
  conventionsOf(ext: string): readonly FolderConvention[] {
    const known = this.byExtension.get(ext);
    if (known !== undefined) return known;
    const found = new Map<string, FolderConvention>();
    for (const line of this.expansion.lines)
      for (const id of line.rules.conventions ?? []) {
        if (found.has(id) || line.kind !== 'folder') continue;
        const one = this.conventionsIn(line).find(({ convention }) => convention.id === id);
        if (one !== undefined && (one.extensions === null || one.extensions.has(ext))) found.set(id, one);
      }
    const all = [...found.values()];
    this.byExtension.set(ext, all);
    return all;
  }

  /**
   * Conventions that hold in a planned folder, compiled with its entries; those that cannot be compiled are left out.
   */
  conventionsIn(line: PlannedLine): readonly FolderConvention[] {
    const known = this.folders.get(line.key);
    if (known) return known;
    const made = (line.rules.conventions ?? []).flatMap((id) => {
      const convention = this.template.conventions.find((c) => c.id === id);
      return convention === undefined ? [] : (this.folderConvention(convention, line) ?? []);
    });
    this.folders.set(line.key, made);
    return made;
  }

  private folderConvention(convention: Convention, line: PlannedLine): FolderConvention | null {
    const fields = () => this.fieldsIn(convention, line);
    const scope = `${convention.id}|${Object.keys(line.entries).join(',')}`;
    const strict = this.compile(scope, convention, fields, this.number);
    if (strict === null) return null;
    const bound = this.boundIn(strict, line);
    const extensions = this.extensionsOf(convention);
    return {
      convention,
      strict,
      bound,
      extensions,
      foreign: strict.slots.some((s) => s.field === 'number')
        ? this.compile(`${scope}|any`, convention, fields, undefined)
        : strict,
      context: {
        bound,
        known: this.knownIn(strict),
        abbreviations: this.registers.abbreviations,
        banned: this.registers.banned,
      },
    };
  }

  private extensionsOf(convention: Convention): ReadonlySet<string> | null {
    const { families } = convention;
    if (families === undefined) return null;
    const known = this.extensions.get(convention.id);
    if (known) return known;
    const made = new Set(
      this.registers.families
        .filter((f) => families.includes(f.name))
        .flatMap((f) => f.extensions.map((e) => e.toLowerCase())),
    );
    this.extensions.set(convention.id, made);
    return made;
  }

  private compile(
    key: string,
    convention: Convention,
    fields: () => readonly Field[],
    number: string | undefined,
  ): CompiledConvention | null {
    const known = this.compiled.get(key);
    if (known !== undefined) return known;
    const pattern = parsePattern(convention.pattern);
    const year = Number(String(this.expansion.values.values.date ?? '').slice(0, 4));
    const made = pattern.ok
      ? compileConvention(pattern.value, {
          fields: fields(),
          registers: this.registers,
          families: convention.families,
          ...(number !== undefined && { number }),
          ...(year > 0 && { year }),
        })
      : null;
    const convention_ = made?.ok ? made.value : null;
    this.compiled.set(key, convention_);
    return convention_;
  }

  /** A convention's own fields come first, then the entries in hand, then the template's. */
  private fieldsIn(convention: Convention, line: PlannedLine): Field[] {
    const entries = Object.keys(line.entries).flatMap((as): Field[] => {
      const rule = this.ruleOfEntry(as);
      return rule === null ? [] : [{ key: as, ...rule }];
    });
    return [...(convention.fields ?? []), ...entries, ...this.template.fields];
  }

  /** The list whose entries go by this name in patterns. */
  readonly listOfEntry = (as: string): string | undefined => this.lists.get(as);

  /** The rule of the list whose entries go by this name. */
  private ruleOfEntry(as: string) {
    const field = this.template.fields.find((f) => f.key === this.lists.get(as));
    return field?.type === 'list' ? field.of : null;
  }

  private boundIn(convention: CompiledConvention, line: PlannedLine): Reading {
    const given: Record<string, string> = { ...line.entries };
    if (this.number !== undefined) given.number = this.number;
    if (this.client !== undefined) given.client = this.client;
    return this.asRead(convention, given);
  }

  /** Values in the form in which this convention would read them back in. Folders by the thousand carry the same entries. */
  private asRead(convention: CompiledConvention, given: Readonly<Record<string, string>>): Reading {
    const known = this.readBack.get(convention) ?? new Map<string, ReadValue | undefined>();
    this.readBack.set(convention, known);
    const bound: Record<string, ReadValue> = {};
    for (const { field, slot, domain } of convention.slots) {
      const value = ownValue(given, field);
      if (value === undefined) continue;
      const key = `${field}\0${value}`;
      let read = known.get(key);
      if (read === undefined && !known.has(key)) {
        const written = writeSlot(slot, domain, value);
        read = written.ok ? valuesOf(domain, written.value)[0] : undefined;
        known.set(key, read);
      }
      if (read !== undefined) bound[field] = read;
    }
    return bound;
  }

  /** For each text field, the entries this project's lists and values have for it: the same in all its folders. */
  private knownIn(convention: CompiledConvention): NameContext['known'] {
    const cached = this.known.get(convention);
    if (cached) return cached;
    const known: Record<string, readonly string[]> = {};
    for (const { field, domain } of convention.slots) {
      if (domain.kind !== 'text' && domain.kind !== 'like') continue;
      const list = this.lists.get(field);
      const entries =
        list === undefined
          ? [ownValue(this.expansion.values.values, field)]
          : (this.expansion.values.lists.get(list)?.all ?? []).slice(0, MOST_KNOWN);
      const texts = entries.flatMap((entry) =>
        typeof entry === 'string' ? Object.values(this.asRead(convention, { [field]: entry })) : [],
      );
      if (texts.length > 0) known[field] = texts.map(String);
    }
    this.known.set(convention, known);
    return known;
  }
}

/** A folder for what programs make along the way: it may be cleared at any time. */
export const isForGenerated = ({ kind, folder }: Pick<PlannedLine, 'kind' | 'folder'>): boolean =>
  kind === 'folder' && (folder?.accepts?.includes(GENERATED) === true || folder?.signpost === 'cache');
/**
 * Entries a broken name is compared with: more would make each explanation slow, and nobody mistypes among thousands.
 */
const MOST_KNOWN = 300;

// biome-ignore lint/suspicious/noControlCharactersInRegex: the whole ASCII range is meant
const isAscii = (text: string) => /^[\x00-\x7f]*$/.test(text);
