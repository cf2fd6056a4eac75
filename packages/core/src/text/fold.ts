/** Text → ASCII letters and digits, or the letters for which there is no such form. Without regard to locale. */

/** Letters that do not decompose into an ASCII letter and a mark (Unicode Latin-1 Supplement and Latin Extended-A). */
const WHOLE: Readonly<Record<string, string>> = {
  ß: 'ss',
  ẞ: 'SS',
  æ: 'ae',
  Æ: 'AE',
  œ: 'oe',
  Œ: 'OE',
  ø: 'o',
  Ø: 'O',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  Đ: 'D',
  ð: 'd',
  Ð: 'D',
  þ: 'th',
  Þ: 'Th',
  ħ: 'h',
  Ħ: 'H',
  ı: 'i',
  ŋ: 'ng',
  Ŋ: 'NG',
  ŧ: 't',
  Ŧ: 'T',
  ĳ: 'ij',
  Ĳ: 'IJ',
};

const ASCII_ONLY = /^[\x20-\x7e]*$/;
const MARK = /\p{M}/u;
const LETTER = /[\p{L}\p{N}]/u;

export interface Folded {
  /** Printable ASCII: letters and digits are kept, every other character is a blank or itself where it is ASCII. */
  readonly text: string;
  /** Letters and digits that could not be folded, in their order, each once. */
  readonly unfoldable: readonly string[];
}

export function fold(text: string): Folded {
  if (ASCII_ONLY.test(text)) return { text, unfoldable: [] };
  const unfoldable = new Set<string>();
  let out = '';
  for (const ch of text.normalize('NFC')) {
    const whole = WHOLE[ch];
    if (whole !== undefined) {
      out += whole;
      continue;
    }
    for (const piece of ch.normalize('NFKD')) {
      if (piece <= '~' && piece >= ' ') out += piece;
      else if (WHOLE[piece] !== undefined) out += WHOLE[piece];
      else if (MARK.test(piece)) continue;
      else if (LETTER.test(piece)) unfoldable.add(ch);
      else out += ' ';
    }
  }
  return { text: out, unfoldable: [...unfoldable] };
}
