/** Ctrl Enter carries out what a page plans. */
import { useMemo, useRef } from 'react';
import { type Command, usePageCommands } from '../app/commands';

/** Named once; whether it can be done now, and what it does, is always by the newest state. */
export function useCarryOut(words: string, isReady: boolean, carryOut: () => Promise<void>): void {
  const now = useRef({ isReady, carryOut });
  now.current = { isReady, carryOut };
  usePageCommands(
    useMemo(
      (): readonly Command[] => [
        {
          id: 'carry-out',
          words,
          keys: 'Ctrl+ENTER',
          run: () => {
            if (now.current.isReady) void now.current.carryOut();
          },
        },
      ],
      [words],
    ),
  );
}
