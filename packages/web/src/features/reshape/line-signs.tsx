/** What becomes of a line of a plan, as a small drawing with its word. */
import type { ReshapeSign } from '@nesting/core/planners';

export type Sign = ReshapeSign | 'rewritten' | 'taken-back' | 'undone';

export const SIGN_WORDS: Readonly<Record<Sign, string>> = {
  made: 'made',
  renamed: 'renamed',
  there: 'there already',
  'left-over': 'left over',
  taken: 'name is taken',
  elsewhere: 'on another volume',
  rewritten: 'written anew',
  'taken-back': 'taken back',
  undone: 'undone',
};

/** A tray that opens, moves, stands, hangs over, is barred. */
export function LineSign({ sign }: { sign: Sign }) {
  const tray = 'M1 3a2 2 0 0 1 2-2h8a2 2 0 0 1 2 2v6a2 2 0 0 1-2 2H3a2 2 0 0 1-2-2z';
  return (
    <svg width="16" height="12" viewBox="0 0 16 12" role="img" aria-label={SIGN_WORDS[sign]} className="shrink-0">
      {sign === 'made' && (
        <>
          <path d={tray} fill="none" stroke="var(--plum)" strokeWidth="1.400" strokeDasharray="2.500 1.500" />
          <path d="M7 3.500v5M4.500 6h5" stroke="var(--plum)" strokeWidth="1.400" />
        </>
      )}
      {(sign === 'renamed' || sign === 'rewritten') && (
        <>
          <path d="M1 2h5v8H1z" fill="none" stroke="var(--ink2)" strokeWidth="1.200" />
          <path d="M8 6h6M11.500 3.500L14 6l-2.500 2.500" fill="none" stroke="var(--plum)" strokeWidth="1.500" />
        </>
      )}
      {sign === 'there' && <path d={tray} fill="var(--bottle)" />}
      {sign === 'elsewhere' && <path d={tray} fill="none" stroke="var(--slate)" strokeWidth="1.400" />}
      {sign === 'left-over' && (
        <>
          <path d={tray} fill="none" stroke="var(--ochre)" strokeWidth="1.400" />
          <path d="M3 10l7-9M7 11l6-8" stroke="var(--ochre)" strokeWidth="1.200" />
        </>
      )}
      {sign === 'taken' && <path d="M1 1h8l4 4v6H1z" fill="var(--brick)" />}
      {(sign === 'taken-back' || sign === 'undone') && (
        <path d="M14 6H4M6.500 3.500L4 6l2.500 2.500M1 1v10" fill="none" stroke="var(--ink2)" strokeWidth="1.500" />
      )}
    </svg>
  );
}
