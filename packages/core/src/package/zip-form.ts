/**
 * Zips as this program writes them (APPNOTE 6.3): entries one behind another without gaps, sizes in front of the data,
 * names in UTF-8, times in UTC to the second. There is one way to write an entry, so that each byte can be proved.
 */

export interface ZipEntry {
  readonly path: string;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly isDeflated: boolean;
  /** Of the content as it is when it is unpacked. */
  readonly crc: number;
  readonly size: number;
  /** Bytes that its content takes in the zip. */
  readonly packed: number;
  /** Where its header begins. */
  readonly at: number;
}

export const ZIP = {
  local: 0x04034b50,
  central: 0x02014b50,
  end: 0x06054b50,
  end64: 0x06064b50,
  locator64: 0x07064b50,
  /** Extra fields: sizes that need eight bytes; when it was written, in seconds since 1970. */
  sizes64: 0x0001,
  modified: 0x5455,
  /** Flags: what is encrypted, what has its sizes behind it, names in UTF-8. */
  encrypted: 0x0001,
  utf8: 0x0800,
  stored: 0,
  deflated: 8,
} as const;

/** Bytes of each record without what varies. */
export const LENGTHS = { local: 30, central: 46, end: 22, end64: 56, locator64: 20 } as const;

/** What stands for a number that does not fit. */
export const FULL32 = 0xffffffff;
export const FULL16 = 0xffff;

const PLAIN_VERSION = 20;
const WIDE_VERSION = 45;
/** Made on UNIX, whose rights readers give to what they unpack: read by all, written by its owner. */
const MADE_BY = 3 << 8;
const FILE_MODE = 0o100644;

/** Numbers as bytes, the lowest first. */
function bytesOf(...numbers: readonly (readonly [bytes: 2 | 4 | 8, value: number])[]): Uint8Array {
  const out = new Uint8Array(numbers.reduce((sum, [bytes]) => sum + bytes, 0));
  const view = new DataView(out.buffer);
  let at = 0;
  for (const [bytes, value] of numbers) {
    if (bytes === 2) view.setUint16(at, value, true);
    else if (bytes === 4) view.setUint32(at, value, true);
    else view.setBigUint64(at, BigInt(value), true);
    at += bytes;
  }
  return out;
}

export function joined(...parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

const encoder = new TextEncoder();

/** Whether sizes need eight bytes. A header's length hangs on the size alone, so that it is known before the data. */
const isWide = ({ size, packed }: Pick<ZipEntry, 'size' | 'packed'>): boolean => size >= FULL32 || packed >= FULL32;

/** Date and time as MS-DOS has them, which begin in 1980 and have even seconds. */
function dosTime(modified: number): { readonly date: number; readonly time: number } {
  const at = new Date(Math.min(Math.max(modified, Date.UTC(1980, 0, 1)), Date.UTC(2107, 11, 31, 23, 59, 58)));
  return {
    date: ((at.getUTCFullYear() - 1980) << 9) | ((at.getUTCMonth() + 1) << 5) | at.getUTCDate(),
    time: (at.getUTCHours() << 11) | (at.getUTCMinutes() << 5) | (at.getUTCSeconds() >> 1),
  };
}

/** Seconds that fit in four bytes with a sign. */
const secondsOf = (modified: number): number => Math.min(Math.max(Math.floor(modified / 1000), 0), 0x7fffffff);

const modifiedField = (modified: number): Uint8Array =>
  joined(bytesOf([2, ZIP.modified], [2, 5]), Uint8Array.of(1), bytesOf([4, secondsOf(modified)]));

export function localHeader(entry: Omit<ZipEntry, 'at'>): Uint8Array {
  const name = encoder.encode(entry.path);
  const wide = isWide(entry);
  const { date, time } = dosTime(entry.modified);
  const sizes = wide ? bytesOf([2, ZIP.sizes64], [2, 16], [8, entry.size], [8, entry.packed]) : new Uint8Array();
  const extra = joined(modifiedField(entry.modified), sizes);
  const head = bytesOf(
    [4, ZIP.local],
    [2, wide ? WIDE_VERSION : PLAIN_VERSION],
    [2, ZIP.utf8],
    [2, entry.isDeflated ? ZIP.deflated : ZIP.stored],
    [2, time],
    [2, date],
    [4, entry.crc],
    [4, wide ? FULL32 : entry.packed],
    [4, wide ? FULL32 : entry.size],
    [2, name.length],
    [2, extra.length],
  );
  return joined(head, name, extra);
}

/** Where the checksum stands in a header: it is known once the data was read. */
export const CRC_AT = 14;

export const crcBytes = (crc: number): Uint8Array => bytesOf([4, crc]);

export function centralHeader(entry: ZipEntry): Uint8Array {
  const name = encoder.encode(entry.path);
  const wide = isWide(entry);
  const far = entry.at >= FULL32;
  const { date, time } = dosTime(entry.modified);
  const numbers = [
    ...(wide
      ? ([
          [8, entry.size],
          [8, entry.packed],
        ] as const)
      : []),
    ...(far ? ([[8, entry.at]] as const) : []),
  ];
  const sizes =
    numbers.length === 0 ? new Uint8Array() : bytesOf([2, ZIP.sizes64], [2, numbers.length * 8], ...numbers);
  const extra = joined(modifiedField(entry.modified), sizes);
  const head = bytesOf(
    [4, ZIP.central],
    [2, MADE_BY | (wide || far ? WIDE_VERSION : PLAIN_VERSION)],
    [2, wide || far ? WIDE_VERSION : PLAIN_VERSION],
    [2, ZIP.utf8],
    [2, entry.isDeflated ? ZIP.deflated : ZIP.stored],
    [2, time],
    [2, date],
    [4, entry.crc],
    [4, wide ? FULL32 : entry.packed],
    [4, wide ? FULL32 : entry.size],
    [2, name.length],
    [2, extra.length],
    // No comment, the first disk, no text.
    ...([
      [2, 0],
      [2, 0],
      [2, 0],
    ] as const),
    [4, FILE_MODE * 2 ** 16],
    [4, far ? FULL32 : entry.at],
  );
  return joined(head, name, extra);
}

/** What stands at the end; `at` is where the list of entries begins. */
export function endRecords(entries: number, at: number, length: number): Uint8Array {
  const end = bytesOf(
    [4, ZIP.end],
    [2, 0],
    [2, 0],
    [2, Math.min(entries, FULL16)],
    [2, Math.min(entries, FULL16)],
    [4, Math.min(length, FULL32)],
    [4, Math.min(at, FULL32)],
    [2, 0],
  );
  if (entries < FULL16 && length < FULL32 && at < FULL32) return end;
  const end64 = bytesOf(
    [4, ZIP.end64],
    [8, LENGTHS.end64 - 12],
    [2, MADE_BY | WIDE_VERSION],
    [2, WIDE_VERSION],
    [4, 0],
    [4, 0],
    [8, entries],
    [8, entries],
    [8, length],
    [8, at],
  );
  return joined(end64, bytesOf([4, ZIP.locator64], [4, 0], [8, at + length], [4, 1]), end);
}
