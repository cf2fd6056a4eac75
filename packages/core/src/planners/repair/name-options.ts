/** Ways to a name that is in order. */
import { distance } from 'fastest-levenshtein';
import { faultOfFile } from '../../check/file-fault';
import { chainKey } from '../../check/items';
import { ownOf, readForeign } from '../../check/rules/foreign-project';
import { join, nameOf, parentOf } from '../../listing/entry';
import { type Confidence, explainName } from '../../name/mend/suggest';
import type { Reading } from '../../name/pattern/field';
import { readName } from '../../name/read/read';
import { ordinal, versionAt, withFirstState } from '../../name/versions';
import { writeName } from '../../name/write';
import { nameFaults } from '../../portable/name';
import type { FolderConvention } from '../../project/folder-convention';
import { placeAmongOlder } from '../give-way';
import { freeName, movedItem, namesOfItem, ownName, takenIn } from './item';
import { type Act, factsOf, type Option, type RepairCase, textOf, textsOf, type Way } from './option';

/** Names that are offered of one finding. */
const MOST_NAMES = 6;

interface Named {
  readonly way: Way;
  readonly name: string;
  readonly confidence: Confidence;
  readonly value?: string | undefined;
}

/** The item under another name where it is; none where that is its name, or nothing can be called so here. */
function renaming(c: RepairCase, { way, name, confidence, value }: Named): Option[] {
  const folder = parentOf(c.finding.path);
  if (nameFaults(name, c.rules.profiles).some((f) => f.weight === 'refused')) return [];
  const acts = movedItem(c, folder, name);
  const discriminator = value ?? (way === 'rename' ? '' : name);
  return acts === null
    ? []
    : [{ key: `${way}:${discriminator}`, way, confidence, to: join(folder, name), value: value ?? null, acts }];
}

/** In order there: what is sure is only sure where nothing is wrong with it any more. */
const isInOrder = (c: RepairCase, name: string): boolean =>
  c.line !== null && c.file !== null && faultOfFile(c.rules, c.line, { ...c.file, name }) === null;

const less = (confidence: Confidence, isSure: boolean): Confidence =>
  confidence === 'sure' && !isSure ? 'likely' : confidence;

/** Names that read by the folder's conventions, nearest first. */
function suggested(c: RepairCase): readonly { readonly name: string; readonly confidence: Confidence }[] {
  const { line, file, finding, rules } = c;
  if (line === null || file === null) return [];
  // What the check found surely needs no second look: there may be fifty thousand of them.
  if (finding.suggestion?.confidence === 'sure') return [finding.suggestion];
  return rules
    .conventionsFor(line, file.name)
    .flatMap(({ strict, context }) => explainName(strict, file.name, context).suggestions)
    .slice(0, MOST_NAMES);
}

/** Names that are proposed; in a folder of lasting names also in place of the file that has it; else one of a person's own. */
export function properNames(c: RepairCase): Option[] {
  const named = suggestedNames(c);
  const lasting = c.line?.rules.stable === true ? named.flatMap((o) => inPlaceOf(c, o.to)) : [];
  return [...named, ...lasting, ...(named.length === 0 ? ownNameOf(c) : [])];
}

/** It takes the place of a file that is there. */
export function inPlaceOf({ finding, file, line, listing, view }: RepairCase, to: string | null): Option[] {
  const there = listing?.files.find((f) => f.name === nameOf(to ?? '') && f.name !== nameOf(finding.path));
  if (to === null || file === null || line === null || there === undefined) return [];
  const namesIn = (folder: string) => view.list(folder)?.files.map((f) => f.name) ?? [];
  const place = placeAmongOlder(line, there, namesIn);
  const kept: Act = place === null ? { do: 'set-aside', from: to } : { do: 'move', entry: 'file', from: to, to: place };
  const move: Act = { do: 'move', entry: 'file', from: finding.path, to };
  const confidence = file.modified > there.modified ? 'likely' : 'guess';
  return [{ key: 'replace:', way: 'replace', confidence, to, value: null, acts: [kept, move] }];
}

/** A name that only a person knows: nothing moves until it is given. */
function ownNameOf(c: RepairCase): Option[] {
  const { path } = c.finding;
  const acts = namesOfItem(c).map((name): Act => {
    const from = join(parentOf(path), name);
    return { do: 'move', entry: 'file', from, to: from };
  });
  return acts.length === 0
    ? []
    : [{ key: OWN_NAME, way: 'another-name', confidence: 'guess', to: path, value: 'own', acts }];
}

export const OWN_NAME = 'another-name:own';

function suggestedNames(c: RepairCase): Option[] {
  return suggested(c).flatMap(({ name, confidence }, i) =>
    renaming(c, {
      way: 'rename',
      name,
      confidence: less(confidence, isInOrder(c, name)),
      ...(i > 0 && { value: name }),
    }),
  );
}

/** Where no convention helps: what some system refuses is taken out. */
export function portableName(c: RepairCase): Option[] {
  if (c.file === null) return portableFolder(c);
  const byRule = suggestedNames(c);
  const clean = cleanName(ownName(c));
  const isPlain =
    clean.replace(/-/g, '') ===
    ownName(c)
      .replace(/[\s.]+$/, '')
      .replace(/-/g, '');
  const isFree = c.line?.rules.free === true || c.line === null || isInOrder(c, clean);
  return [
    ...byRule,
    ...renaming(c, { way: 'rename', name: clean, confidence: isPlain && isFree ? 'sure' : 'likely', value: clean }),
  ];
}

function portableFolder({ finding, listing }: RepairCase): Option[] {
  const name = cleanName(nameOf(finding.path));
  if (listing?.folders.includes(nameOf(finding.path)) !== true) return [];
  const to = join(parentOf(finding.path), name);
  const acts = [{ do: 'move', entry: 'folder', from: finding.path, to } as const];
  return [{ key: 'rename:', way: 'rename', confidence: 'likely', to, value: null, acts }];
}

// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is taken out
const REFUSED = /[<>:"/\\|?*\u0000-\u001f\u007f\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff]+/g;
const DEVICES = /^(?:con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/i;

/** A name that every system takes. */
function cleanName(name: string): string {
  const plain = name
    .normalize('NFC')
    .replace(REFUSED, '-')
    .replace(/^\s+|[\s.]+$/g, '');
  const dot = plain.lastIndexOf('.') > 0 ? plain.lastIndexOf('.') : plain.length;
  const stem = plain.slice(0, dot).replace(/-+$/, '').slice(0, 120);
  return `${DEVICES.test(plain) ? `_${stem}` : stem || '_'}${plain.slice(dot)}`;
}

/** With this project's number and client in place of the other's. */
export function ownNumber(c: RepairCase): Option[] {
  const { line, file, rules } = c;
  if (line === null || file === null) return [];
  for (const by of rules.conventionsFor(line, file.name)) {
    const reading = readForeign(by, file.name);
    const written = reading === null ? null : writeName(by.strict, ownOf(by, reading));
    if (written?.ok)
      return renaming(c, { way: 'take-number', name: written.value, confidence: 'likely', value: rules.number ?? '' });
  }
  return [];
}

/** Codes that the slot knows, nearest first, in place of the one that nobody knows. */
export function knownCodes(c: RepairCase): Option[] {
  const { line, file, finding, rules } = c;
  if (line === null || file === null) return [];
  const [code = '', field = ''] = [textsOf(finding, 'codes')[0], textsOf(finding, 'fields')[0]];
  const named = suggested(c);
  const spelt = named.flatMap(({ name, confidence }) => {
    const reading = readIn(rules.conventionsFor(line, file.name), name);
    return renaming(c, {
      way: 'known-code',
      name,
      confidence: less(confidence, false),
      value: String(reading?.[field] ?? name),
    });
  });
  const others = rules.conventionsFor(line, file.name).flatMap(({ strict }) => {
    const domain = strict.slots.find((s) => s.field === field)?.domain;
    if (domain?.kind !== 'fixed' || code === '') return [];
    const known = domain.entries.filter((e) => !e.retired);
    return known
      .map((e) => ({ text: e.text, far: distance(e.text.toLowerCase(), code.toLowerCase()) }))
      .sort((a, b) => a.far - b.far || (a.text < b.text ? -1 : 1))
      .slice(0, MOST_NAMES)
      .flatMap(({ text }) => {
        const name = withWord(file.name, code, text);
        return name !== null && isInOrder(c, name)
          ? renaming(c, { way: 'known-code', name, confidence: 'guess', value: text })
          : [];
      });
  });
  return [...spelt, ...others];
}

const readIn = (conventions: readonly FolderConvention[], name: string): Reading | null => {
  for (const { strict, bound } of conventions) {
    const reading = readName(strict, name, bound);
    if (reading !== null) return reading;
  }
  return null;
};

/** One whole word of a name in place of another; `null` where it stands there twice, or not. */
function withWord(name: string, word: string, other: string): string | null {
  const parts = name.split(/([^\p{L}\p{N}]+)/u);
  const places = parts.flatMap((part, i) => (part === word ? [i] : []));
  if (places.length !== 1) return null;
  return parts.map((part, i) => (i === places[0] ? other : part)).join('');
}

/** Of some files that claim one version, or one name: each under the next version that is free. */
export function nextVersions(c: RepairCase): Option[] {
  const { line, listing, finding, rules, view } = c;
  if (line === null || listing === null) return [];
  const older = line.folder?.older === undefined ? null : view.list(join(line.path, line.folder.older.folder));
  const names = [...listing.files, ...(older?.files ?? [])].map((f) => f.name);
  const claiming = new Set([finding.path, ...finding.related]);
  return listing.files
    .filter((f) => claiming.has(join(listing.path, f.name)))
    .sort((a, b) => b.modified - a.modified)
    .flatMap((file): Option[] => {
      const name = versionAfter(rules.conventionsFor(line, file.name), file.name, names);
      if (name === null) return [];
      const [from, to] = [join(listing.path, file.name), join(listing.path, name)];
      const acts = [{ do: 'move', entry: 'file', from, to } as const];
      return [
        {
          key: `next-version:${file.name}`,
          way: 'next-version',
          confidence: 'guess',
          to,
          value: file.name,
          facts: factsOf(c, from),
          acts,
        },
      ];
    });
}

/** The same name with the version after all of its chain, whoever saved them; `null` where it has none. */
export function versionAfter(
  conventions: readonly FolderConvention[],
  name: string,
  names: readonly string[],
): string | null {
  for (const by of conventions) {
    const reading = readName(by.strict, name, by.bound);
    if (reading?.version === undefined) continue;
    const chain = chainKey(by, reading);
    let last = ordinal(reading.version);
    for (const other of names) {
      const read = readName(by.strict, other, by.bound);
      if (read?.version !== undefined && chainKey(by, read) === chain) last = Math.max(last, ordinal(read.version));
    }
    const next = { ...withFirstState(by.strict, reading), version: versionAt(last + 1, reading.version) };
    const written = writeName(by.strict, next);
    if (written.ok) return written.value;
  }
  return null;
}

/** A name of a person's own, with a free one to begin with. */
export function anotherName(c: RepairCase): Option[] {
  const name = freeName(ownName(c), takenIn(c));
  return renaming(c, { way: 'another-name', name, confidence: 'guess', value: 'free' });
}

/** Of names that some system takes for one, each but the first under another: what is in order keeps its name. */
export function apartNames(c: RepairCase): Option[] {
  const { listing, finding, line, rules } = c;
  if (listing === null) return [];
  const alike = [ownName(c), ...textsOf(finding, 'others')];
  const right = alike.filter((name) => {
    const file = listing.files.find((f) => f.name === name);
    return line !== null && file !== undefined && faultOfFile(rules, line, file) === null;
  });
  return alike
    .filter((name) => right.length !== 1 || !right.includes(name))
    .flatMap((name): Option[] => {
      const from = join(listing.path, name);
      const to = join(listing.path, freeName(name.toLowerCase(), takenIn(c)));
      const entry = listing.folders.includes(name) ? 'folder' : 'file';
      const acts = [{ do: 'move', entry, from, to } as const];
      return [{ key: `another-name:${name}`, way: 'another-name', confidence: 'guess', to, value: name, acts }];
    });
}

/** The lasting name of a delivery: without the version that stands in it. */
export function lastingName(c: RepairCase): string | null {
  const version = textOf(c.finding, 'version');
  const own = ownName(c);
  const bare = own.replace(new RegExp(`[_\\s.-]${escaped(version)}(?=[_\\s.-]|$)`, 'i'), '');
  if (bare !== own && isInOrder(c, bare)) return bare;
  const { line, rules } = c;
  if (line === null) return null;
  for (const { strict, context } of rules.conventionsFor(line, bare)) {
    const [first] = explainName(strict, bare, context).suggestions;
    if (first?.confidence === 'sure' && isInOrder(c, first.name)) return first.name;
  }
  return null;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
