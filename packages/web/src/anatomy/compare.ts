import { elementAt } from '@nesting/core';
/** Two names side by side: the longest common run of words, numbers and separators is what stayed. */

export interface Compared {
  readonly text: string;
  readonly same: boolean;
  readonly at: number;
}

export function compareNames(found: string, meant: string): { before: Compared[]; after: Compared[] } {
  const a = tokensOf(found);
  const b = tokensOf(meant);
  const width = b.length + 1;
  const common = new Uint16Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--) {
    for (let j = b.length - 1; j >= 0; j--) {
      const here = i * width + j;
      common[here] =
        a[i] === b[j]
          ? elementAt(common, here + width + 1) + 1
          : Math.max(elementAt(common, here + width), elementAt(common, here + 1));
    }
  }
  const before: Compared[] = [];
  const after: Compared[] = [];
  for (let i = 0, j = 0; i < a.length || j < b.length; ) {
    const here = i * width + j;
    if (i < a.length && j < b.length && a[i] === b[j]) {
      add(before, elementAt(a, i++), true);
      add(after, elementAt(b, j++), true);
    } else if (j >= b.length || (i < a.length && elementAt(common, here + width) >= elementAt(common, here + 1)))
      add(before, elementAt(a, i++), false);
    else add(after, elementAt(b, j++), false);
  }
  return { before, after };
}

const tokensOf = (name: string): string[] => name.match(/\p{Lu}?[\p{Ll}\p{M}]+|\p{Lu}+|[0-9]+|[\s\S]/gu) ?? [];

function add(pieces: Compared[], text: string, same: boolean): void {
  const last = pieces[pieces.length - 1];
  if (last?.same === same) pieces[pieces.length - 1] = { ...last, text: last.text + text };
  else pieces.push({ text, same, at: (last?.at ?? 0) + (last?.text.length ?? 0) });
}
