/** The look (light, night bench, or the system's) and whether single keys are on: kept on this computer. */
import { useSyncExternalStore } from 'react';

const LOOKS = ['light', 'night', 'system'] as const;
export type LookChoice = (typeof LOOKS)[number];

const listeners = new Set<() => void>();
const dark = matchMedia('(prefers-color-scheme: dark)');

const read = (): LookChoice => LOOKS.find((look) => look === localStorage.getItem('nesting-look')) ?? 'system';

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
