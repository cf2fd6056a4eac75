/** Two projects side by side, in words. */
import type { Compared, ComparedRow, Evidence } from '../compare/index';

type Row = Pick<ComparedRow, 'state' | 'isUnread'> & {
  readonly left: { readonly path: string } | null;
  readonly right: { readonly path: string } | null;
};

/** One line, for a text. */
export function comparedWords({ state, isUnread, left, right }: Row): string {
  const [here, there] = [left?.path ?? '', right?.path ?? ''];
  switch (state) {
    case 'same':
      return `same: ${here}`;
    case 'renamed':
      return `renamed: ${here} → ${there}`;
    case 'changed':
      return `${isUnread ? 'not read' : 'changed'}: ${here}${here === there ? '' : ` → ${there}`}`;
    case 'only-left':
      return `only left: ${here}`;
    case 'only-right':
      return `only right: ${there}`;
  }
}

export const COMPARED_WORDS: Readonly<Record<Compared, string>> = {
  same: 'The same',
  renamed: 'Renamed',
  changed: 'Changed',
  'only-left': 'Only on the left',
  'only-right': 'Only on the right',
};

export const EVIDENCE_WORDS: Readonly<Record<Evidence, string>> = {
  path: 'Both have the same path.',
  meaning: 'Both names mean the same: only number, client or title differ.',
  content: 'Both have the same content, and nothing else has it.',
  version: 'Both are the newest version of the same work.',
};
