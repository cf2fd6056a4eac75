/** What the house means by its marks, for everything that draws one. */
import { MARKS, type Mark, type Meanings } from '@nesting/core/template';
import { createContext, useContext } from 'react';

export const MeaningsContext = createContext<Meanings>({});

/** What a mark is called: by its meaning; a free one by its place among the eight, never by its tint. */
export function useMarkWords(): (mark: Mark) => string {
  const meanings = useContext(MeaningsContext);
  return (mark) => meanings[mark] ?? `free mark ${MARKS.indexOf(mark) + 1}`;
}
