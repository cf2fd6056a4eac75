import { useEffect } from 'react';

/** The page's name in the browser's tab and history, with the program's behind it. */
export function usePageTitle(words: string | undefined): void {
  useEffect(() => {
    if (words !== undefined) document.title = words === '' ? 'Nesting' : `${words} · Nesting`;
  }, [words]);
}
