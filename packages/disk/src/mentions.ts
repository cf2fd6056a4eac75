/** Whole paths of a project in documents that only their programs can read: found byte by byte. */
import path from 'node:path';
import type { FileEntry } from '@nesting/core/listing';

/** Bytes of one file that are read for it, paths that one file tells, and places in it that are looked at. */
const MOST_BYTES = 32 * 2 ** 20;
const MOST_PATHS = 200;
const MOST_PLACES = 10_000;
/** Characters of a path. */
const MOST_LENGTH = 1024;

/** Pictures, sound, moving images, packages: they hold no paths that somebody would have to put right. */
const NO_DOCUMENTS = new Set(
  (
    'png jpg jpeg tif tiff exr dpx hdr gif webp heic raw dng cr2 cr3 nef arw wav bwf aif aiff flac mp3 m4a ogg opus ' +
    'mov mp4 m4v mxf avi mkv webm mpg zip 7z rar gz bz2 xz zst tar iso dmg ttf otf woff woff2 abc vdb cache tmp'
  ).split(' '),
);

export const mayMention = ({ name, size }: FileEntry): boolean =>
  size > 0 && size <= MOST_BYTES && !NO_DOCUMENTS.has(path.extname(name).slice(1).toLowerCase());

/** `roots` are whole paths of the project's root, as each system has it; paths come as they are written. */
export function pathsMentioned(bytes: Buffer, roots: readonly string[]): readonly string[] {
  const out = new Set<string>();
  for (const root of roots.filter((text) => text !== ''))
    for (const encoding of ['utf8', 'utf16le'] as const)
      for (const written of new Set([root, root.replaceAll('\\', '/')]))
        for (const found of pathsFrom(bytes, written, encoding)) if (out.size < MOST_PATHS) out.add(found);
  return [...out];
}

function* pathsFrom(bytes: Buffer, root: string, encoding: 'utf8' | 'utf16le'): Generator<string> {
  const needle = Buffer.from(root, encoding);
  let places = 0;
  for (let at = bytes.indexOf(needle); at >= 0; at = bytes.indexOf(needle, at + needle.length)) {
    // A file may be nothing else but the root, a million times over.
    if (places++ >= MOST_PLACES) return;
    // The path goes on behind the root, in the same encoding, until something that no path holds.
    const text = bytes.toString(encoding, at, Math.min(bytes.length, at + MOST_LENGTH * (encoding === 'utf8' ? 1 : 2)));
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these end a path
    const whole = /^[^\u0000-\u001f"<>|?*\ufffd]+/.exec(text)?.[0] ?? '';
    if (/^[\\/]./.test(whole.slice(root.length))) yield whole.replace(/['),;\]}]+$/, '').trimEnd();
  }
}
