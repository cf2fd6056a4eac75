/** A file of the program's own, line by line: it may be longer than any one text. */
import { eachChunk, withPlainFile } from './plain-file';
import type { Root } from './root';

const NEWLINE = 0x0a;
const CHUNK = 1 << 20;

/** Without their ends. @throws as `withPlainFile` does */
export function* eachLine(root: Root, path: string): Generator<string> {
  let rest: Buffer = Buffer.alloc(0);
  for (let from = 0; ; from += CHUNK) {
    const read = chunkAt(root, path, from);
    const bytes = rest.length === 0 ? read : Buffer.concat([rest, read]);
    let begin = 0;
    for (let end = bytes.indexOf(NEWLINE); end >= 0; end = bytes.indexOf(NEWLINE, begin)) {
      yield bytes.toString('utf8', begin, end);
      begin = end + 1;
    }
    rest = bytes.subarray(begin);
    if (read.length < CHUNK) break;
  }
  if (rest.length > 0) yield rest.toString('utf8');
}

/** Opened anew for each, so that who stops reading leaves nothing open. */
function chunkAt(root: Root, path: string, from: number): Buffer {
  return withPlainFile(root, path, (file) => {
    const parts: Buffer[] = [];
    eachChunk(file, [from, from + CHUNK], (bytes) => {
      parts.push(Buffer.from(bytes));
      return true;
    });
    return Buffer.concat(parts);
  });
}
