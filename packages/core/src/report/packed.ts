/** What lies in a package beside the project's files: for people without this program, and for this program. */
import type { Reading, Registers, Values } from '../name/pattern/field';
import { ownValue } from '../own-value';
import { type Layout, PACKAGE_JSON, type PackageKind, type Sum, sumLine } from '../package';
import type { ProjectRules } from '../project/rules';
import { csv } from '../text/csv';

export interface PackedFile extends Sum {
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly family: string | null;
  readonly reading: Reading | null;
  /** In the package, from its folder. */
  readonly place: string;
}

/** Every file with what its name says: a column for each field that some name has, told apart from ours. */
function contentsCsv(files: readonly PackedFile[]): string {
  const fields = [...new Set(files.flatMap(({ reading }) => Object.keys(reading ?? {})))].sort();
  return csv([
    ['path', 'in the package', 'bytes', 'modified', 'family', 'sha256', ...fields.map((field) => `name: ${field}`)],
    ...files.map(({ path, place, size, modified, family, hash, reading }) => [
      ...[path, place, size, new Date(modified).toISOString(), family, hash],
      ...fields.map((field) => {
        const value = reading !== null && Object.hasOwn(reading, field) ? reading[field] : undefined;
        return value === undefined ? '' : String(value);
      }),
    ]),
  ]);
}

export const sumsText = (files: readonly Sum[]): string => files.map(sumLine).join('');

/** What is said of a package by whoever makes it. */
export interface AboutPackage {
  readonly number: string;
  readonly title: string;
  readonly client: string;
  /** The project's folder, by its name. */
  readonly folder: string;
  /** For whom, and what the sender says. */
  readonly recipient: string;
  readonly note: string;
  /** ISO 8601. */
  readonly at: string;
  readonly by: string;
}

/** What a package knows of itself: another installation takes the project in by it. */
export interface PackageRecord extends AboutPackage {
  readonly format: 'nesting/package';
  readonly formatVersion: 1;
  readonly kind: PackageKind;
  /** Of the project, in any installation. */
  readonly project: string;
  readonly values: Values;
  readonly files: number;
  readonly bytes: number;
  /** Folders that hold nothing: neither a zip nor a bag has any. */
  readonly emptyFolders: readonly string[];
  /** Files that were to go and could not be read. */
  readonly leftOut: readonly string[];
}

/** What may become of licensed material, as its note says. */
interface LicensedLine {
  readonly path: string;
  readonly note: string | null;
  readonly use: string;
  readonly until: string;
  readonly givenTo: string;
}

interface ToRecord {
  readonly kind: PackageKind;
  readonly layout: Layout;
  readonly about: AboutPackage;
  readonly project: string;
  readonly rules: ProjectRules;
  readonly values: Values;
  /** What the project chose otherwise than its template, by the setting's label. */
  readonly settings: Readonly<Record<string, string>>;
  readonly accepted: readonly AcceptedFinding[];
  readonly licensed: readonly LicensedLine[];
  readonly files: readonly PackedFile[];
  readonly emptyFolders: readonly string[];
  readonly leftOut: readonly string[];
}

export const CONTENTS = 'contents.csv';
const READ_ME = 'read-me.txt';
export const TEMPLATE_IN_PACKAGE = 'template.nest.json';
export const REGISTERS_IN_PACKAGE = 'registers.json';

/** The files that describe a package, but for the lists that prove it. Nothing of the house is told beyond this project. */
export function packageRecord(given: ToRecord): readonly { readonly path: string; readonly text: string }[] {
  const { kind, layout, about, project, rules, values, settings, accepted, licensed, files, emptyFolders, leftOut } =
    given;
  const bytes = files.reduce((sum, { size }) => sum + size, 0);
  const record: PackageRecord = {
    ...{ format: 'nesting/package', formatVersion: 1, kind, project, ...about, values },
    ...{ files: files.length, bytes, emptyFolders, leftOut },
  };
  const sheet = sheetText(rules, settings);
  const going = new Set(files.map(({ path }) => path));
  const ofThese = accepted.filter(({ path }) => going.has(path));
  const texts: readonly (readonly [name: string, text: string])[] = [
    [READ_ME, readMe(given, bytes)],
    [CONTENTS, contentsCsv(files)],
    ...(sheet === '' ? [] : ([['sheet.txt', sheet]] as const)),
    ...(ofThese.length === 0 ? [] : ([['accepted.csv', acceptedCsv(ofThese)]] as const)),
    ...(licensed.length === 0 ? [] : ([['licences.csv', licensedCsv(licensed)]] as const)),
    [TEMPLATE_IN_PACKAGE, jsonText(rules.template)],
    [REGISTERS_IN_PACKAGE, jsonText(registersFor(rules, files))],
    [PACKAGE_JSON, jsonText(record)],
  ];
  return texts.map(([name, text]) => ({ path: layout.record(name), text }));
}

const jsonText = (value: object): string => `${JSON.stringify(value, null, 2)}\n`;

/** Of clients the project's own, of people those whose initials stand in names. */
function registersFor({ registers, client }: ProjectRules, files: readonly PackedFile[]): Registers {
  const said = new Set(files.flatMap(({ reading }) => Object.values(reading ?? {}).map(String)));
  return {
    ...registers,
    clients: registers.clients.filter(({ code }) => code === client),
    people: registers.people.filter(({ initials }) => said.has(initials)),
  };
}

/** For whoever opens the package and has never heard of this program. */
function readMe({ about, kind, layout, files }: ToRecord, bytes: number): string {
  const { number, title, client, recipient, note, at, by } = about;
  const told = (label: string, value: string) => (value === '' ? [] : [`${label}: ${value}`]);
  const { sums } = layout;
  return [
    `${number} ${title}`.trim(),
    '',
    ...told('Client', client),
    ...told('For', recipient),
    `Packed: ${at.slice(0, 16).replace('T', ' ')} UTC${by === '' ? '' : ` by ${by}`}`,
    `Holds: ${files.length} ${files.length === 1 ? 'file' : 'files'}, ${bytes.toLocaleString('en')} bytes`,
    ...(note === '' ? [] : ['', note]),
    '',
    sums === null
      ? 'The folders of the project lie in "data", as they lay in the studio. This is a bag (BagIt, RFC 8493).'
      : 'The folders of the project lie beside the one of this file, as they lay in the studio.',
    `"${CONTENTS}" lists every file with what its name says.`,
    sums === null
      ? '"manifest-sha256.txt" has a checksum of every file. To see whether all arrived whole, in this folder:'
      : `"${sums}" has a checksum of every file. To see whether all arrived whole, in the folder that holds it:`,
    `  sha256sum -c ${sums ?? 'manifest-sha256.txt'}`,
    ...(kind === 'bag-zip' ? ['after the zip was unpacked.'] : []),
    '',
  ].join('\n');
}

/** What to set in every program, as it was agreed for the project. */
function sheetText({ template }: ProjectRules, chosen: ToRecord['settings']): string {
  const lines = (template.setup?.settings ?? []).map(
    ({ label, value, why }) => `${label}: ${ownValue(chosen, label) ?? value}${why ? ` (${why})` : ''}`,
  );
  return lines.length === 0 ? '' : `${lines.join('\n')}\n`;
}

export interface AcceptedFinding {
  readonly rule: string;
  readonly path: string;
  readonly reason: string;
  readonly by: string;
  /** ISO 8601; empty where it is accepted for good. */
  readonly until: string;
}

const acceptedCsv = (accepted: readonly AcceptedFinding[]): string =>
  csv([
    ['rule', 'path', 'accepted because', 'by', 'until'],
    ...accepted.map(({ rule, path, reason, by, until }) => [rule, path, reason, by, until]),
  ]);

const licensedCsv = (licensed: readonly LicensedLine[]): string =>
  csv([
    ['path', 'may be used for', 'may be used until', 'may be given to', 'note'],
    ...licensed.map(({ path, use, until, givenTo, note }) => [path, use, until, givenTo, note ?? '']),
  ]);
