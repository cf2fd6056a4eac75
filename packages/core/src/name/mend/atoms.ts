/** A broken name cut into atoms, where people's changes begin and end: words, numbers and single separators. */
export interface Atom {
  readonly kind: 'word' | 'digits' | 'separator' | 'other';
  readonly text: string;
  readonly at: number;
  readonly end: number;
}

const SEPARATORS = '_- .,+~';
const PIECES = /\p{Lu}+(?=\p{Lu}\p{Ll})|\p{Lu}?[\p{Ll}\p{Lo}\p{M}]+|\p{Lu}+\p{M}*|[0-9]+|[\s\S]/gu;

export function atomsOf(name: string): Atom[] {
  const atoms: Atom[] = [];
  for (const match of name.matchAll(PIECES)) {
    const text = match[0];
    const kind = SEPARATORS.includes(text)
      ? 'separator'
      : /^[0-9]/.test(text)
        ? 'digits'
        : /^\p{L}/u.test(text)
          ? 'word'
          : 'other';
    atoms.push({ kind, text, at: match.index, end: match.index + text.length });
  }
  return atoms;
}
