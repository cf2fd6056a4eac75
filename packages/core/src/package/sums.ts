/** Lists of checksums, as `sha256sum` and its relatives write and check them. */

export const ALGORITHMS = ['sha256', 'sha512', 'sha1', 'md5'] as const;
export type Algorithm = (typeof ALGORITHMS)[number];

/** Letters of each as hexadecimal digits. */
const DIGITS: Readonly<Record<Algorithm, number>> = { sha256: 64, sha512: 128, sha1: 40, md5: 32 };

export const isAlgorithm = (word: string): word is Algorithm => ALGORITHMS.some((one) => one === word);

/** A file, and what is to come of hashing it. */
export interface Sum {
  /** Lower-case hexadecimal digits. */
  readonly hash: string;
  readonly path: string;
}

/** A line that is none, counted from 1. */
export interface BadLine {
  readonly line: number;
}

export interface SumsRead {
  readonly sums: readonly Sum[];
  readonly bad: readonly BadLine[];
}

/** A name with a line break or a backslash is written with these escaped, and the line says so. */
export function sumLine({ hash, path }: Sum): string {
  const escaped = path.replace(/[\\\n\r]/g, (ch) => (ch === '\\' ? '\\\\' : ch === '\n' ? '\\n' : '\\r'));
  return `${escaped === path ? '' : '\\'}${hash}  ${escaped}\n`;
}

/** Lines of `HASH  PATH` or `HASH *PATH`, with any line ends. */
export function readSums(text: string, algorithm: Algorithm): SumsRead {
  return readLines(text, (line) => {
    const found = /^(\\?)([0-9A-Fa-f]+) [ *](.+)$/s.exec(line);
    if (found === null || found[2]?.length !== DIGITS[algorithm]) return null;
    const path = found[1] === '' ? found[3] : unescaped(found[3] ?? '');
    return path === undefined ? null : { hash: found[2].toLowerCase(), path: path.replace(/^(\.\/)+/, '') };
  });
}

/** A manifest of a bag (RFC 8493, 2.1.3): blanks between, and line ends in paths as percent codes. */
export function readManifest(text: string, algorithm: Algorithm): SumsRead {
  return readLines(text, (line) => {
    const found = /^([0-9A-Fa-f]+)[ \t]+\*?(.+)$/s.exec(line);
    if (found === null || found[1]?.length !== DIGITS[algorithm]) return null;
    const path = (found[2] ?? '').replace(/%(0A|0D|25)/gi, (_, code: string) =>
      String.fromCharCode(Number(`0x${code}`)),
    );
    return { hash: found[1].toLowerCase(), path: path.replace(/^(\.\/)+/, '') };
  });
}

export const manifestLine = ({ hash, path }: Sum): string =>
  `${hash}  ${path.replace(/[%\n\r]/g, (ch) => (ch === '%' ? '%25' : ch === '\n' ? '%0A' : '%0D'))}\n`;

function readLines(text: string, read: (line: string) => Sum | null): SumsRead {
  const sums: Sum[] = [];
  const bad: BadLine[] = [];
  const plain = text.startsWith('\ufeff') ? text.slice(1) : text;
  for (const [at, line] of plain.split(/\r\n|\n|\r/).entries()) {
    if (line === '') continue;
    const sum = read(line);
    if (sum === null) bad.push({ line: at + 1 });
    else sums.push(sum);
  }
  return { sums, bad };
}

/** `undefined` where a backslash stands before anything else than what is escaped. */
function unescaped(path: string): string | undefined {
  let isWrong = false;
  const plain = path.replace(/\\(.?)/gs, (_, ch: string) => {
    if (ch === '\\') return '\\';
    if (ch === 'n') return '\n';
    if (ch === 'r') return '\r';
    isWrong = true;
    return '';
  });
  return isWrong ? undefined : plain;
}
