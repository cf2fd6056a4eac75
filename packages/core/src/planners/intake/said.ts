/** What a path says, word by word: numbers, versions, entries of the project's lists, codes, people. */
import { fold } from '../../text/fold';

/** A word of a path, by its place in one folder's or the file's name. */
export interface Token {
  readonly text: string;
  /** Compared by: small letters without accents; of digits without leading noughts. */
  readonly key: string;
  readonly isDigits: boolean;
  /** Stands alone between separators: no letters or digits touch it. */
  readonly isWhole: boolean;
}

const PIECE = /[A-Z]+(?![a-z])|[A-Z]?[a-z]+|[0-9]+/g;

/** Words as people run them together: `WestFront`, `crane7`, `s03`. */
export function tokensOf(text: string): Token[] {
  const out: Token[] = [];
  for (const word of fold(text).text.split(/[^A-Za-z0-9]+/)) {
    const pieces = word.match(PIECE) ?? [];
    for (const piece of pieces) {
      const isDigits = piece.charCodeAt(0) < 58;
      const key = isDigits ? piece.replace(/^0+(?=.)/, '') : piece.toLowerCase();
      out.push({ text: piece, key, isDigits, isWhole: pieces.length === 1 });
    }
  }
  return out;
}

/** Without the ending that makes several of one. */
export const singular = (word: string): string =>
  word.length > 3 && word.endsWith('s') && !word.endsWith('ss') ? word.slice(0, -1) : word;
