/**
 * Whether a name and a path do on the systems that will open them. The same answer for a name written, previewed and
 * found.
 */
import type { Params } from '../result';
import { FORBIDDEN_WINDOWS, isControl, isInvisible, isSurrogate } from './characters';
import { isReservedName, PROFILES, type Profile, type ProfileName } from './profiles';

export type NameFaultCode =
  | 'name-empty'
  | 'name-dots'
  | 'name-separator'
  | 'name-forbidden'
  | 'name-control'
  | 'name-invisible'
  | 'name-surrogate'
  | 'name-reserved'
  | 'name-edge'
  | 'name-too-long'
  | 'name-not-nfc'
  | 'name-leading'
  | 'name-own';

export interface NameFault {
  readonly code: NameFaultCode;
  /** Place in the name, UTF-16 units. */
  readonly at: number;
  readonly length: number;
  /** `refused`: some system cannot hold it. `awkward`: legal, yet it trips people or programs. */
  readonly weight: 'refused' | 'awkward';
  readonly params: Params;
}

/** Names nothing can stand against but a device's: most of all names, so they are answered at once. */
const PLAIN = /^[A-Za-z0-9_](?:[A-Za-z0-9_.-]{0,120}[A-Za-z0-9_-])?$/;

/** The program's own folder, and whatever it lays beside what people own. No name of theirs is one of these. */
const OWN = /^\.nesting(?:-|$)/;

/** Longer than any system's names. */
const LONGEST = 8192;

/** All that stands against a name on these systems; an empty list means it is legal on all of them. */
export function nameFaults(name: string, profiles: readonly ProfileName[]): NameFault[] {
  if (PLAIN.test(name) && !isReservedName(name)) return [];
  if (name === '') return [refused('name-empty', 0, 0)];
  if (name === '.' || name === '..') return [refused('name-dots', 0, name.length)];
  const chosen = profiles.map((p) => PROFILES[p]);
  // What no system can hold is not looked at letter by letter.
  if (name.length > LONGEST) {
    const long = lengthFaults(name.slice(0, LONGEST), chosen).map((fault) => ({ ...fault, length: name.length }));
    if (long.length > 0) return long;
  }
  const faults = characterFaults(name, profiles);
  const labels = (test: (p: Profile) => boolean) => chosen.filter(test).map((p) => p.label);
  const edge = labels((p) => p.trailingDotOrBlank);
  if (/[. ]$/.test(name) && edge.length > 0) faults.push(refused('name-edge', name.length - 1, 1, { systems: edge }));
  else if (/^ | $/.test(name)) faults.push(awkward('name-edge', name.startsWith(' ') ? 0 : name.length - 1, 1));
  if (OWN.test(clashKey(name))) faults.push(refused('name-own', 0, name.length, { name }));
  const reserved = labels((p) => p.reservedNames);
  if (reserved.length > 0 && isReservedName(name))
    faults.push(refused('name-reserved', 0, name.length, { name, systems: reserved }));
  faults.push(...lengthFaults(name, chosen));
  if (name.normalize('NFC') !== name) faults.push(awkward('name-not-nfc', 0, name.length));
  if (/^[.-]/.test(name)) faults.push(awkward('name-leading', 0, 1, { character: name.slice(0, 1) }));
  return faults;
}

/** True where no system of the profiles refuses the name. */
export const isLegalName = (name: string, profiles: readonly ProfileName[]): boolean =>
  nameFaults(name, profiles).every((f) => f.weight !== 'refused');

function characterFaults(name: string, profiles: readonly ProfileName[]): NameFault[] {
  const faults: NameFault[] = [];
  let at = 0;
  for (const ch of name) {
    const code = ch.codePointAt(0) ?? 0;
    if (ch === '/' || code === 0) faults.push(refused('name-separator', at, 1, { character: code === 0 ? 'NUL' : ch }));
    else if (isSurrogate(code)) faults.push(refused('name-surrogate', at, 1));
    else if (isControl(code)) faults.push(refused('name-control', at, 1, { code: code.toString(16).padStart(4, '0') }));
    else if (isInvisible(ch))
      faults.push(refused('name-invisible', at, ch.length, { code: code.toString(16).padStart(4, '0') }));
    else {
      const systems = profiles.filter((p) => PROFILES[p].forbidden.includes(ch)).map((p) => PROFILES[p].label);
      if (systems.length > 0)
        faults.push(refused('name-forbidden', at, 1, { character: ch, systems, known: FORBIDDEN_WINDOWS }));
    }
    at += ch.length;
  }
  return faults;
}

function lengthFaults(name: string, profiles: readonly Profile[]): NameFault[] {
  const bytes = utf8Length(name);
  const over = profiles.find(
    (p) => (p.nameBytes > 0 && bytes > p.nameBytes) || (p.nameUnits > 0 && name.length > p.nameUnits),
  );
  if (over === undefined) return [];
  const byBytes = over.nameBytes > 0 && bytes > over.nameBytes;
  const limit = byBytes ? over.nameBytes : over.nameUnits;
  return [
    refused('name-too-long', 0, name.length, {
      found: byBytes ? bytes : name.length,
      limit,
      unit: byBytes ? 'bytes' : 'characters',
      systems: [over.label],
    }),
  ];
}

/** Length in UTF-8 bytes; a lone surrogate counts as the three bytes it is replaced by. */
export function utf8Length(text: string): number {
  let bytes = 0;
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    if (unit < 0x80) bytes += 1;
    else if (unit < 0x800) bytes += 2;
    else if (unit >= 0xd800 && unit <= 0xdbff && isLow(text.charCodeAt(i + 1))) {
      bytes += 4;
      i++;
    } else bytes += 3;
  }
  return bytes;
}

const isLow = (unit: number) => unit >= 0xdc00 && unit <= 0xdfff;

/** Two names with one key cannot stand in one folder on some system (case or Unicode form differs only). */
export const clashKey = (name: string): string => (ASCII.test(name) ? name : name.normalize('NFC')).toLowerCase();

// biome-ignore lint/suspicious/noControlCharactersInRegex: the whole ASCII range is meant
const ASCII = /^[\x00-\x7f]*$/;

function refused(code: NameFaultCode, at: number, length: number, params: Params = {}): NameFault {
  return { code, at, length, weight: 'refused', params };
}

function awkward(code: NameFaultCode, at: number, length: number, params: Params = {}): NameFault {
  return { code, at, length, weight: 'awkward', params };
}
