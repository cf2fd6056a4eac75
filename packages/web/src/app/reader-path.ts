/** Paths as the reader's own system writes them. The system is remembered in this browser. */
import { type Prefixes, SYSTEMS, type System } from '@nesting/contract';
import { pathOn } from '@nesting/core/project';
import { useCallback, useSyncExternalStore } from 'react';

const KEPT = 'nesting-system';
const listeners = new Set<() => void>();

export const SYSTEM_WORDS: Readonly<Record<System, string>> = { windows: 'Windows', macos: 'macOS', linux: 'Linux' };

const isSystem = (text: string | null): text is System => SYSTEMS.some((system) => system === text);

function current(): System {
  const kept = localStorage.getItem(KEPT);
  if (isSystem(kept)) return kept;
  if (/windows/i.test(navigator.userAgent)) return 'windows';
  return /mac/i.test(navigator.userAgent) ? 'macos' : 'linux';
}

export function chooseReaderSystem(system: string): void {
  if (!isSystem(system)) return;
  localStorage.setItem(KEPT, system);
  for (const listener of listeners) listener();
}

const subscribe = (changed: () => void) => {
  listeners.add(changed);
  return () => {
    listeners.delete(changed);
  };
};

export const useReaderSystem = (): System => useSyncExternalStore(subscribe, current);

/** Where a project lies: by the server, and by what each system has its volume under. */
export interface PlacedProject {
  readonly root: string;
  readonly folder: string;
  readonly prefixes: Prefixes;
}

/** A path from the project's root → the whole path. Where nobody said how a system sees the volume, the server's own. */
export function readerPath({ root, folder, prefixes }: PlacedProject, system: System, path: string): string {
  const prefix = prefixes[system];
  if (prefix !== '') return pathOn(system, prefix, folder, path);
  return path === '' ? root : `${root}/${path}`;
}

export function useReaderPath(project: PlacedProject): (path: string) => string {
  const system = useReaderSystem();
  const { root, folder, prefixes } = project;
  return useCallback((path) => readerPath({ root, folder, prefixes }, system, path), [root, folder, prefixes, system]);
}
