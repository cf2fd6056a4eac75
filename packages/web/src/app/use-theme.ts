/** The look (light, night bench, or the system's) and whether single keys are on: kept on this computer. */
import { useSyncExternalStore } from 'react';

export type LookChoice = 'light' | 'night' | 'system';

const listeners = new Set<() => void>();
const dark = matchMedia('(prefers-color-scheme: dark)');

const read = (): LookChoice => (localStorage.getItem('nesting-look') as LookChoice | null) ?? 'system';

function paint(): void {
  const choice = read();
  const night = choice === 'night' || (choice === 'system' && dark.matches);
  document.documentElement.dataset.look = night ? 'night' : 'light';
}

paint();
dark.addEventListener('change', paint);

export function chooseLook(choice: LookChoice): void {
  localStorage.setItem('nesting-look', choice);
  paint();
  for (const tell of listeners) tell();
}

const subscribe = (tell: () => void) => {
  listeners.add(tell);
  return () => listeners.delete(tell);
};

export const useTheme = (): LookChoice => useSyncExternalStore(subscribe, read);

export const useSingleKeys = (): boolean =>
  useSyncExternalStore(subscribe, () => localStorage.getItem('nesting-keys') !== 'off');

export function setSingleKeys(on: boolean): void {
  localStorage.setItem('nesting-keys', on ? 'on' : 'off');
  for (const tell of listeners) tell();
}
