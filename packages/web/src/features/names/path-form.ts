/** How paths are written on the viewer's own system; remembered in this browser. */
import { useSyncExternalStore } from 'react';

export type PathForm = 'slash' | 'backslash';

const KEPT = 'nesting-paths';
const listeners = new Set<() => void>();

function current(): PathForm {
  const kept = localStorage.getItem(KEPT);
  if (kept === 'slash' || kept === 'backslash') return kept;
  return /windows/i.test(navigator.userAgent) ? 'backslash' : 'slash';
}

export function choosePathForm(form: PathForm): void {
  localStorage.setItem(KEPT, form);
  for (const listener of listeners) listener();
}

export const usePathForm = (): PathForm =>
  useSyncExternalStore((changed) => {
    listeners.add(changed);
    return () => listeners.delete(changed);
  }, current);

/** Pieces with `/` inside them, joined in that form. */
export const pathIn = (form: PathForm, pieces: readonly string[]): string =>
  pieces
    .filter((p) => p !== '')
    .join('/')
    .replaceAll('/', form === 'slash' ? '/' : '\\');
