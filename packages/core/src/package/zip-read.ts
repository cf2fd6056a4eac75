/**
 * Reads any zip from its end: the list of entries, and where the content of each lies. What could deceive is a fault:
 * entries within others, one path twice, paths that lead out, headers that contradict the list.
 */
import { relPathOf } from '../listing/path';
import type { PackageFault, PackageFaultCode } from './verdict';
import {
  centralHeader,
  endRecords,
  FULL16,
  FULL32,
  joined,
  LENGTHS,
  localHeader,
  ZIP,
  type ZipEntry,
} from './zip-form';

/** A file, or a blob: bytes from one place on, fewer only at its end. */
export interface ByteSource {
  readonly size: number;
  read(at: number, length: number): Promise<Uint8Array>;
}

/** An entry whose content can be read. */
export interface FoundEntry extends ZipEntry {
  /** Where its content begins. */
  readonly dataAt: number;
}

export interface ZipRead {
  /** In the order in which they lie; folders are not among them. */
  readonly entries: readonly FoundEntry[];
  readonly faults: readonly PackageFault[];
  /** Whether each byte outside of the entries' contents is as this program writes it. */
  readonly isExact: boolean;
}

/** Entries that are read at all, and bytes of their list. */
const MOST_ENTRIES = 5_000_000;
const MOST_LIST = 2 ** 30;

const decoder = new TextDecoder('utf-8', { fatal: true });
/** Names of before UTF-8 was agreed on: each byte stands for something, whatever it was meant to be. */
const latin = new TextDecoder('latin1');

export async function readZip(source: ByteSource): Promise<ZipRead> {
  const faults: PackageFault[] = [];
  const list = await centralList(source);
  if (list === null) return { entries: [], faults: [{ code: 'not-a-zip', path: '' }], isExact: false };
  const listed = entriesIn(list.bytes, list.count);
  if (listed === null) return { entries: [], faults: [{ code: 'not-a-zip', path: '' }], isExact: false };
  const inOrder = [...listed].sort((a, b) => a.at - b.at);
  const fault = (code: PackageFaultCode, path: string) => void faults.push({ code, path });
  sayTwice(inOrder, fault);
  const entries: FoundEntry[] = [];
  let isExact = true;
  let end = 0;
  for (const entry of inOrder) {
    const found = await locate(source, entry);
    if (found === null) {
      fault('header-differs', entry.path);
      isExact = false;
      continue;
    }
    if (entry.at < end || found.dataAt + entry.packed > list.at) fault('entries-overlap', entry.path);
    isExact &&= entry.at === end && found.isExact;
    end = found.dataAt + entry.packed;
    const isFolder = entry.path.endsWith('/');
    if (!isSafe(entry.path)) fault('path-unsafe', entry.path);
    else if (entry.isEncrypted) fault('encrypted', entry.path);
    else if (entry.method !== ZIP.stored && entry.method !== ZIP.deflated) fault('method-unknown', entry.path);
    else if (!isFolder) entries.push({ ...plainEntry(entry), dataAt: found.dataAt });
    isExact &&= !isFolder;
  }
  return { entries, faults, isExact: isExact && end === list.at && isExactList(listed, list) };
}

/** Where a backslash parts folders it must not lead out either. */
const isSafe = (path: string): boolean => relPathOf(path.replace(/\/$/, '')).ok && !path.split(/[\\/]/).includes('..');

interface ListedEntry extends Omit<ZipEntry, 'isDeflated'> {
  readonly method: number;
  readonly isEncrypted: boolean;
  readonly nameLength: number;
}

const plainEntry = ({ path, modified, method, crc, size, packed, at }: ListedEntry): ZipEntry => ({
  ...{ path, modified, crc, size, packed, at },
  isDeflated: method === ZIP.deflated,
});

function sayTwice(entries: readonly ListedEntry[], fault: (code: PackageFaultCode, path: string) => void): void {
  const paths = new Set<string>();
  for (const { path } of entries) {
    if (paths.has(path)) fault('entry-twice', path);
    paths.add(path);
  }
}

interface CentralList {
  readonly at: number;
  readonly bytes: Uint8Array;
  readonly count: number;
  /** What stands behind it, to the end of the file. */
  readonly tail: Uint8Array;
}

async function centralList(source: ByteSource): Promise<CentralList | null> {
  const longest = LENGTHS.end + FULL16 + LENGTHS.locator64 + LENGTHS.end64;
  const from = Math.max(0, source.size - longest);
  const tail = await source.read(from, source.size - from);
  const view = viewOf(tail);
  let at = tail.length - LENGTHS.end;
  while (at >= 0 && !(view.getUint32(at, true) === ZIP.end && view.getUint16(at + 20, true) === tail.length - at - 22))
    at--;
  if (at < 0) return null;
  const plain = {
    count: view.getUint16(at + 10, true),
    length: view.getUint32(at + 12, true),
    at: view.getUint32(at + 16, true),
  };
  const isWide = plain.count === FULL16 || plain.length === FULL32 || plain.at === FULL32;
  const said = isWide ? (wideEnd(view, at, from) ?? plain) : plain;
  const { count, length } = said;
  if (count > MOST_ENTRIES || length > MOST_LIST || said.at + length > source.size) return null;
  const bytes = await source.read(said.at, length);
  if (bytes.length !== length) return null;
  return { at: said.at, bytes, count, tail: await source.read(said.at + length, source.size - said.at - length) };
}

function wideEnd(view: DataView, at: number, from: number): { count: number; length: number; at: number } | null {
  const locator = at - LENGTHS.locator64;
  if (locator < 0 || view.getUint32(locator, true) !== ZIP.locator64) return null;
  const end64 = Number(view.getBigUint64(locator + 8, true)) - from;
  if (!(end64 >= 0 && end64 + LENGTHS.end64 <= locator) || view.getUint32(end64, true) !== ZIP.end64) return null;
  const wide = (offset: number) => Number(view.getBigUint64(end64 + offset, true));
  return { count: wide(32), length: wide(40), at: wide(48) };
}

/** `null` where it is cut off, or no such list. */
function entriesIn(bytes: Uint8Array, count: number): readonly ListedEntry[] | null {
  const view = viewOf(bytes);
  const out: ListedEntry[] = [];
  let at = 0;
  while (out.length < count) {
    if (at + LENGTHS.central > bytes.length || view.getUint32(at, true) !== ZIP.central) return null;
    const [nameLength, extraLength, commentLength] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true));
    const nameAt = at + LENGTHS.central;
    const extraAt = nameAt + (nameLength ?? 0);
    const end = extraAt + (extraLength ?? 0) + (commentLength ?? 0);
    if (end > bytes.length) return null;
    const extra = bytes.subarray(extraAt, extraAt + (extraLength ?? 0));
    out.push(entryAt(view, at, bytes.subarray(nameAt, extraAt), extra));
    at = end;
  }
  return at === bytes.length ? out : null;
}

function entryAt(view: DataView, at: number, name: Uint8Array, extra: Uint8Array): ListedEntry {
  const flags = view.getUint16(at + 8, true);
  const plain = {
    size: view.getUint32(at + 24, true),
    packed: view.getUint32(at + 20, true),
    at: view.getUint32(at + 42, true),
  };
  const fields = fieldsOf(extra);
  return {
    path: nameOfEntry(name, (flags & ZIP.utf8) !== 0),
    modified: modifiedOf(fields.get(ZIP.modified), view.getUint16(at + 14, true), view.getUint16(at + 12, true)),
    method: view.getUint16(at + 10, true),
    isEncrypted: (flags & ZIP.encrypted) !== 0,
    crc: view.getUint32(at + 16, true),
    ...widened(plain, fields.get(ZIP.sizes64)),
    nameLength: name.length,
  };
}

function nameOfEntry(bytes: Uint8Array, isUtf8: boolean): string {
  try {
    return decoder.decode(bytes);
  } catch {
    return isUtf8 ? '' : latin.decode(bytes);
  }
}

/** Those numbers that did not fit stand in a field of their own, one behind another. */
function widened<T extends { size: number; packed: number; at: number }>(plain: T, field: Uint8Array | undefined): T {
  if (field === undefined) return plain;
  const view = viewOf(field);
  const out = { ...plain };
  let offset = 0;
  for (const key of ['size', 'packed', 'at'] as const) {
    if (plain[key] !== FULL32 || offset + 8 > field.length) continue;
    out[key] = Number(view.getBigUint64(offset, true));
    offset += 8;
  }
  return out;
}

function fieldsOf(extra: Uint8Array): ReadonlyMap<number, Uint8Array> {
  const out = new Map<number, Uint8Array>();
  const view = viewOf(extra);
  for (let at = 0; at + 4 <= extra.length; ) {
    const length = view.getUint16(at + 2, true);
    out.set(view.getUint16(at, true), extra.subarray(at + 4, at + 4 + length));
    at += 4 + length;
  }
  return out;
}

function modifiedOf(field: Uint8Array | undefined, date: number, time: number): number {
  if (field !== undefined && field.length >= 5 && ((field[0] ?? 0) & 1) === 1)
    return viewOf(field).getInt32(1, true) * 1000;
  const [year, month, day] = [1980 + (date >> 9), (date >> 5) & 15, date & 31];
  return Date.UTC(year, month - 1, day, time >> 11, (time >> 5) & 63, (time & 31) * 2);
}

/** Where its content begins; `null` where its own header names another file or is none. */
async function locate(
  source: ByteSource,
  entry: ListedEntry,
): Promise<{ readonly dataAt: number; readonly isExact: boolean } | null> {
  const expected = localHeader(plainEntry(entry));
  const head = await source.read(entry.at, Math.max(expected.length, LENGTHS.local + entry.nameLength));
  if (head.length < LENGTHS.local + entry.nameLength) return null;
  const view = viewOf(head);
  if (view.getUint32(0, true) !== ZIP.local || view.getUint16(26, true) !== entry.nameLength) return null;
  if (view.getUint16(8, true) !== entry.method) return null;
  const name = head.subarray(LENGTHS.local, LENGTHS.local + entry.nameLength);
  if (nameOfEntry(name, (view.getUint16(6, true) & ZIP.utf8) !== 0) !== entry.path) return null;
  const dataAt = entry.at + LENGTHS.local + entry.nameLength + view.getUint16(28, true);
  return {
    dataAt,
    isExact: isSame(head.subarray(0, expected.length), expected) && dataAt === entry.at + expected.length,
  };
}

/** Whether the list of entries, and what stands behind it, would be written so. */
function isExactList(listed: readonly ListedEntry[], { at, bytes, tail }: CentralList): boolean {
  const list = joined(...listed.map((entry) => centralHeader(plainEntry(entry))));
  return isSame(list, bytes) && isSame(endRecords(listed.length, at, bytes.length), tail);
}

function isSame(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
