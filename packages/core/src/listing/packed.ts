/**
 * A folder's listing in few bytes, as it is kept from the last check: names by what they do not share with the one
 * before, sizes and times as differences. Times are whole milliseconds. Frames of a sequence take no byte for a name
 * that is the one before and one more. Not compressed: whoever keeps it does that.
 */
import { ByteReader, ByteWriter } from '../text/byte-stream';
import type { FileEntry, FolderListing } from './entry';

export function packListing({ folders, files, others, changed, ranges }: FolderListing): Uint8Array {
  const out = new ByteWriter();
  out.count(changed === undefined ? 0 : 1);
  if (changed !== undefined) out.signed(Math.floor(changed));
  names(out, [...folders].sort());
  names(out, [...others].sort());
  const inOrder = [...files].sort(byName);
  names(
    out,
    inOrder.map((file) => file.name),
  );
  differences(out, inOrder, (file) => file.size);
  differences(out, inOrder, (file) => Math.floor(file.modified));
  names(
    out,
    inOrder.flatMap((file) => (file.isFolder ? [file.name] : [])),
  );
  const expected = Object.entries(ranges ?? {});
  out.count(expected.length);
  for (const [name, [from, to]] of expected) {
    out.text(name);
    out.count(from);
    out.count(to);
  }
  return out.bytes();
}

/** @throws RangeError where the bytes end too early */
export function unpackListing(path: string, bytes: Uint8Array): FolderListing {
  const from = new ByteReader(bytes);
  const changed = from.count() === 0 ? undefined : from.signed();
  const [folders, others, called] = [readNames(from), readNames(from), readNames(from)];
  const sizes = readDifferences(from, called.length);
  const times = readDifferences(from, called.length);
  const documents = new Set(readNames(from));
  const files = called.map((name, i): FileEntry => {
    const file = { name, size: sizes[i] ?? 0, modified: times[i] ?? 0 };
    return documents.has(name) ? { ...file, isFolder: true } : file;
  });
  const ranges: [string, readonly [number, number]][] = [];
  for (let left = from.count(); left > 0; left--) ranges.push([from.text(), [from.count(), from.count()]]);
  return {
    path,
    folders,
    files,
    others,
    ...(changed !== undefined && { changed }),
    ...(ranges.length > 0 && { ranges: Object.fromEntries(ranges) }),
  };
}

const byName = (a: FileEntry, b: FileEntry): number => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0);

/** Each is nought where it is the one before and one more; else one more than the letters it shares, and the rest. */
function names(out: ByteWriter, all: readonly string[]): void {
  out.count(all.length);
  let before = '';
  for (const name of all) {
    if (name === nextOf(before)) out.count(0);
    else {
      const shared = sharedLength(before, name);
      out.count(shared + 1);
      out.text(name.slice(shared));
    }
    before = name;
  }
}

function readNames(from: ByteReader): string[] {
  const out: string[] = [];
  let before = '';
  for (let left = from.count(); left > 0; left--) {
    const shared = from.count();
    before = shared === 0 ? (nextOf(before) ?? '') : before.slice(0, shared - 1) + from.text();
    out.push(before);
  }
  return out;
}

/** More digits are no frame. */
const MOST_DIGITS = 9;

/** The same name with the number before its extension one higher, as wide as it was; `null` where there is none. */
function nextOf(name: string): string | null {
  const dot = name.lastIndexOf('.');
  const end = dot < 0 ? name.length : dot;
  let start = end;
  while (start > 0 && isDigit(name.charCodeAt(start - 1))) start--;
  const width = end - start;
  if (width === 0 || width > MOST_DIGITS) return null;
  return name.slice(0, start) + String(Number(name.slice(start, end)) + 1).padStart(width, '0') + name.slice(end);
}

const isDigit = (code: number): boolean => code >= 48 && code <= 57;

function sharedLength(a: string, b: string): number {
  const most = Math.min(a.length, b.length);
  let at = 0;
  while (at < most && a.charCodeAt(at) === b.charCodeAt(at)) at++;
  // Half a letter of two code units is none.
  return at > 0 && (a.charCodeAt(at - 1) & 0xfc00) === 0xd800 ? at - 1 : at;
}

function differences(out: ByteWriter, files: readonly FileEntry[], of: (file: FileEntry) => number): void {
  let before = 0;
  for (const file of files) {
    const value = of(file);
    out.signed(value - before);
    before = value;
  }
}

function readDifferences(from: ByteReader, length: number): number[] {
  let value = 0;
  return Array.from({ length }, () => {
    value += from.signed();
    return value;
  });
}
