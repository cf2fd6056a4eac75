/** Fields, registers and values: what slots are filled from. Plain data, as they stand in files. */

export const SCALAR_TYPES = [
  'text',
  'choice',
  'client',
  'person',
  'count',
  'letters',
  'date',
  'version',
  'frame',
  'ext',
] as const;
export type ScalarType = (typeof SCALAR_TYPES)[number];

export interface Choice {
  readonly code: string;
  readonly label?: string | undefined;
  /** Other words people write for it. */
  readonly also?: readonly string[] | undefined;
}

/** What a value may be, without the key it is asked for under. */
export interface ScalarRule {
  readonly type: ScalarType;
  readonly max?: number | undefined;
  readonly chars?: string | undefined;
  readonly like?: string | undefined;
  readonly options?: readonly Choice[] | undefined;
  /** Of a choice: its words say how far a version is, in this order; a new version begins with the first. */
  readonly ofVersion?: boolean | undefined;
}

interface FieldHead {
  readonly id?: string | undefined;
  readonly key: string;
  readonly label?: string | undefined;
  readonly help?: string | undefined;
  readonly required?: boolean | undefined;
}

export type ScalarField = FieldHead & ScalarRule;
export type ListField = FieldHead & {
  readonly type: 'list';
  readonly of: ScalarRule;
  readonly within?: string | undefined;
  /** Entries may be added to a project by artists too. */
  readonly artistsMayAdd?: boolean | undefined;
  /** Its entries are revisions, one made from the other; what names and folders call an entry. */
  readonly revisions?: string | undefined;
};
export type Field = ScalarField | ListField;

/** A list whose entries are revisions, and what names and folders call one. */
export type RevisionList = ListField & { readonly revisions: string };

/** The list that a template calls its revisions. */
export const revisionList = (fields: readonly Field[]): RevisionList | undefined =>
  fields.find((field): field is RevisionList => field.type === 'list' && field.revisions !== undefined);

export interface Client {
  readonly code: string;
  readonly name: string;
  readonly retired?: boolean | undefined;
}

export interface Person {
  readonly initials: string;
  readonly name: string;
  readonly retired?: boolean | undefined;
}

export interface Family {
  readonly name: string;
  readonly extensions: readonly string[];
  readonly companions?: readonly string[] | undefined;
  /** A document of it is a folder of its ending, or all files that share its name with words in front or behind. */
  readonly document?: { readonly folder?: true | undefined; readonly stem?: true | undefined } | undefined;
}

export interface Abbreviation {
  readonly short: string;
  readonly long: string;
}

/** A whole path, as one system writes it. */
export interface Library {
  readonly path: string;
  readonly name: string;
}

/** The house-wide lists that names are made and judged by. */
export interface Registers {
  readonly clients: readonly Client[];
  readonly people: readonly Person[];
  readonly families: readonly Family[];
  readonly abbreviations: readonly Abbreviation[];
  readonly banned: readonly string[];
  /** Places outside of every project that references may lead to. */
  readonly libraries?: readonly Library[] | undefined;
}

export const NO_REGISTERS: Registers = { clients: [], people: [], families: [], abbreviations: [], banned: [] };

/**
 * A template carries what it relies on; the studio's registers add to it. The studio's entry wins where both name one
 * thing.
 */
export function mergeRegisters(own: Registers, studio: Registers): Registers {
  const by = <T>(key: (entry: T) => string, first: readonly T[], second: readonly T[]): T[] => [
    ...new Map([...first, ...second].map((entry) => [key(entry), entry])).values(),
  ];
  return {
    clients: by((c) => c.code, own.clients, studio.clients),
    people: by((p) => p.initials, own.people, studio.people),
    families: by((f) => f.name, own.families, studio.families),
    abbreviations: by((a) => a.long.toLowerCase(), own.abbreviations, studio.abbreviations),
    banned: [...new Set([...own.banned, ...studio.banned])],
    libraries: by((l) => l.path, own.libraries ?? [], studio.libraries ?? []),
  };
}

/**
 * A value as given: a text or number, a register entry's code or the whole entry, a list (texts, ranges), or a list by
 * the outer list's entries.
 */
export type Value = string | number | boolean | null | readonly Value[] | { readonly [key: string]: Value };
export type Values = Readonly<Record<string, Value>>;

/** Given by keys: a register entry with its properties, or a list by the entries of the outer one. */
export const isKeyed = (value: Value | undefined): value is Values =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

/**
 * A value as read from a name: whole numbers for counts, versions and frames, text for all else (dates in ISO 8601).
 */
export type ReadValue = string | number;
export type Reading = Readonly<Record<string, ReadValue>>;

const TYPES_BY_NAME = ['client', 'person', 'date', 'version', 'frame', 'ext'] as const;

/** The rule a field follows: declared ones first, then types by name; every other undeclared field is text. */
export function ruleFor(key: string, fields: readonly Field[]): ScalarRule {
  const declared = fields.find((field) => field.key === key);
  if (declared) return declared.type === 'list' ? declared.of : declared;
  return { type: TYPES_BY_NAME.find((type) => type === key) ?? 'text' };
}
