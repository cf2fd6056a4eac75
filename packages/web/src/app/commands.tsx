/**
 * Commands are rows of data: id, words, keys, what to do. They feed buttons, shortcuts, the sheet behind ? and Ctrl K
 * alike.
 */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react';

export interface Command {
  readonly id: string;
  readonly words: string;
  /** A single key, or `Ctrl+Z`; absent for commands that are only found by name. */
  readonly keys?: string;
  readonly run: () => void;
  readonly enabled?: boolean;
}

interface Registry {
  readonly all: readonly Command[];
  readonly add: (page: readonly Command[]) => () => void;
}

const RegistryContext = createContext<Registry>({ all: [], add: () => () => undefined });

export function Commands({ own, children }: { own: readonly Command[]; children: ReactNode }) {
  const [pages, setPages] = useState<readonly (readonly Command[])[]>([]);
  const add = useMemo(
    () => (page: readonly Command[]) => {
      setPages((before) => [...before, page]);
      return () => setPages((before) => before.filter((p) => p !== page));
    },
    [],
  );
  const all = useMemo(() => withoutClashes(pages.flat(), own), [pages, own]);
  return <RegistryContext value={useMemo(() => ({ all, add }), [all, add])}>{children}</RegistryContext>;
}

/** No key means two things on one page: one that the page uses is not the program's meanwhile, even while it rests. */
function withoutClashes(page: readonly Command[], own: readonly Command[]): readonly Command[] {
  const taken = new Set(page.map((command) => command.keys));
  return [
    ...page,
    ...own.map(({ keys, ...command }) => (keys === undefined || taken.has(keys) ? command : { ...command, keys })),
  ];
}

export const useCommands = (): readonly Command[] => useContext(RegistryContext).all;

/** Commands of the page shown; memoise them. */
export function usePageCommands(commands: readonly Command[]): void {
  const { add } = useContext(RegistryContext);
  useEffect(() => add(commands), [add, commands]);
}

/** Runs the command of a key pressed anywhere but in a field; single keys only where they are switched on. */
export function useShortcuts(commands: readonly Command[], singleKeys: boolean): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const writing = target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);
      // A list whose keys are the page's own says so.
      const inTree =
        target.closest('[role=tree],[role=dialog],[role=menu],[role=listbox],[role=combobox]') !== null &&
        target.closest('[data-page-keys]') === null;
      const held = event.ctrlKey || event.metaKey;
      const keys = held ? `Ctrl+${event.shiftKey ? 'Shift+' : ''}${event.key.toUpperCase()}` : event.key;
      const command = commands.find((c) => c.keys === keys && c.enabled !== false);
      if (command === undefined || event.defaultPrevented || event.altKey) return;
      if (!held && (!singleKeys || writing || (inTree && keys !== '?'))) return;
      // Undo inside a field that is being written in is the field's own.
      if (held && writing && keys !== 'Ctrl+K' && keys !== 'Ctrl+ENTER') return;
      event.preventDefault();
      command.run();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [commands, singleKeys]);
}
