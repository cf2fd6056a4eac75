/** A broken name cut into atoms, where people's changes begin and end: words, numbers and single separators. */
export interface Atom {
  readonly kind: 'word' | 'digits' | 'separator' | 'other';
  readonly text: string;
  readonly at: number;
  readonly end: number;
}

/** Every mark of a keyboard may stand between two words. */
const SEPARATOR = /^[ -/:-@[-`{-~]$/;
const PIECES = /\p{Lu}+(?=\p{Lu}\p{Ll})|\p{Lu}?[\p{Ll}\p{Lo}\p{M}]+|\p{Lu}+\p{M}*|[0-9]+|[\s\S]/gu;

/**
 * `heads` are words of the pattern in front of a number or a letter (`v`, `s`, `rev`): where one ends a longer word
 * right before its number, it is a word of its own (`Bramv004`, `towers07`, `revb`).
 */
export function atomsOf(name: string, heads: readonly string[] = []): Atom[] {
  const atoms: Atom[] = [];
  const put = (text: string, at: number) => atoms.push({ kind: kindOf(text), text, at, end: at + text.length });
  for (const { 0: text, index } of name.matchAll(PIECES)) {
    const before = atoms.at(-1);
    const cut = cutsIn(text, before?.end === index ? before.text : '', name[index + text.length] ?? '', heads);
    let at = 0;
    for (const end of [...cut, text.length]) {
      put(text.slice(at, end), index + at);
      at = end;
    }
  }
  return atoms;
}

function cutsIn(text: string, before: string, next: string, heads: readonly string[]): number[] {
  if (!/^\p{L}{2}/u.test(text)) return [];
  const lower = text.toLowerCase();
  const cuts = new Set<number>();
  // "QHTharbour": the capital may belong to the code before it.
  if (/^\p{Lu}+$/u.test(before) && /^\p{Lu}\p{Ll}/u.test(text)) cuts.add(1);
  for (const head of heads) {
    if (/[0-9OolI]/.test(next) && lower.endsWith(head) && text.length > head.length)
      cuts.add(text.length - head.length);
    if (lower.length === head.length + 1 && lower.startsWith(head) && !/\p{L}/u.test(next)) cuts.add(head.length);
  }
  return [...cuts].sort((a, b) => a - b);
}

function kindOf(text: string): Atom['kind'] {
  if (SEPARATOR.test(text)) return 'separator';
  if (/^[0-9]/.test(text)) return 'digits';
  return /^\p{L}/u.test(text) ? 'word' : 'other';
}
