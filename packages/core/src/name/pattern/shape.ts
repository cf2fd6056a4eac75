/** Shapes of text: how a slot writes words, and which characters it may hold when read. */
import { fold } from '../../text/fold';

export const TEXT_SHAPES = ['as-is', 'lower', 'upper', 'title', 'kebab', 'snake', 'camel', 'pascal'] as const;
export type TextShape = (typeof TEXT_SHAPES)[number];

export function isTextShape(shape: string): shape is TextShape {
  return TEXT_SHAPES.some((s) => s === shape);
}

/** What stands between two words in a shape; camel and pascal show it by case alone. */
export const JOINER: Readonly<Record<Exclude<TextShape, 'as-is'>, string>> = {
  lower: ' ',
  upper: ' ',
  title: ' ',
  kebab: '-',
  snake: '_',
  camel: '',
  pascal: '',
};

export type Shaped =
  | { readonly ok: true; readonly text: string }
  | { readonly ok: false; readonly code: 'unfoldable'; readonly letters: readonly string[] };

/** Writes text in a shape. `as-is` only trims and composes (NFC); all others fold to ASCII words. */
export function shapeText(text: string, shape: TextShape): Shaped {
  if (shape === 'as-is') return { ok: true, text: text.normalize('NFC').trim() };
  const folded = fold(text);
  if (folded.unfoldable.length > 0) return { ok: false, code: 'unfoldable', letters: folded.unfoldable };
  const words = wordsOf(folded.text);
  return { ok: true, text: words.map((word, i) => shapeWord(word, shape, i, words.length)).join(JOINER[shape]) };
}

/** An apostrophe joins ("the ship's bell" is three words); every other non-alphanumeric parts words. */
function wordsOf(text: string): string[] {
  return text
    .replace(/['`]/g, '')
    .split(/[^A-Za-z0-9]+/)
    .filter((word) => word !== '');
}

function shapeWord(word: string, shape: Exclude<TextShape, 'as-is'>, index: number, count: number): string {
  switch (shape) {
    case 'upper':
      return word.toUpperCase();
    case 'title':
      return word.slice(0, 1).toUpperCase() + word.slice(1).toLowerCase();
    case 'pascal':
    case 'camel': {
      // Capitals inside a word stay, so that what is written once is written alike again; a word of capitals among
      // others gives way.
      const rest = count > 1 && word === word.toUpperCase() ? word.slice(1).toLowerCase() : word.slice(1);
      const first = word.slice(0, 1);
      return (shape === 'camel' && index === 0 ? first.toLowerCase() : first.toUpperCase()) + rest;
    }
    default:
      return word.toLowerCase();
  }
}
