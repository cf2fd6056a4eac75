/** What a page says: headings, tips, that nothing is there, that something failed. */
import { Check, Copy } from 'lucide-react';
import { Tooltip as RadixTooltip } from 'radix-ui';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Button } from './button';

export function Tip({ words, children }: { words: ReactNode; children: ReactNode }) {
  return (
    <RadixTooltip.Root>
      <RadixTooltip.Trigger asChild>{children}</RadixTooltip.Trigger>
      <RadixTooltip.Portal>
        <RadixTooltip.Content
          sideOffset={4}
          className="z-50 max-w-80 rounded-tray bg-ink px-2 py-1 text-xs text-paper shadow-lg"
        >
          {words}
        </RadixTooltip.Content>
      </RadixTooltip.Portal>
    </RadixTooltip.Root>
  );
}

export const Tips = RadixTooltip.Provider;

/**
 * Copies a name or path. Where the browser has no clipboard (no HTTPS), the text is selected instead, and the button
 * says so.
 */
export function CopyButton({ text, what }: { text: string; what: string }) {
  const [said, setSaid] = useState('');
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setSaid('Copied');
    } catch {
      setSaid('This page may not copy: select the text');
    }
    setTimeout(() => setSaid(''), 1600);
  };
  return (
    <Tip words={said || `Copy ${what}`}>
      <button
        type="button"
        onClick={() => void copy()}
        aria-label={`Copy ${what}`}
        className="inline-flex size-6 shrink-0 items-center justify-center rounded text-ink2 hover:text-ink"
      >
        {said === 'Copied' ? <Check size={14} aria-hidden /> : <Copy size={14} aria-hidden />}
        <span role="status" className="sr-only">
          {said}
        </span>
      </button>
    </Tip>
  );
}

export function Heading({ children }: { children: ReactNode }) {
  return <h2 className="text-xs font-semibold text-ink2">{children}</h2>;
}

/** What this place is for, and the first step. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-md flex-col items-start gap-2 px-6 py-16">
      <p className="text-lg font-semibold">{title}</p>
      <div className="text-ink2">{children}</div>
    </div>
  );
}

/** Why something was not done; nothing where it was. */
export function Refused({ words, className = 'text-sm' }: { words: string | null | undefined; className?: string }) {
  if (!words) return null;
  return (
    <p role="alert" className={`text-brick ${className}`}>
      {words}
    </p>
  );
}

/** Milliseconds between two tries while a page cannot be shown. */
const TRY_AGAIN = 4000;

/** What happened, what was not done, what to do. Where it can be tried again it is, until its cause has gone. */
export function Trouble({ message, again }: { message: string; again?: () => void }) {
  const tryAgain = useRef(again);
  tryAgain.current = again;
  useEffect(() => {
    const timer = setInterval(() => document.visibilityState === 'visible' && tryAgain.current?.(), TRY_AGAIN);
    return () => clearInterval(timer);
  }, []);
  return (
    <div role="alert" className="m-4 flex items-start gap-3 rounded-tray border border-brick bg-sheet p-3">
      <span className="mt-1 inline-block size-3 shrink-0 bg-brick" aria-hidden />
      <p className="flex-1">{message}</p>
      {again && (
        <Button variant="quiet" className="h-6!" onClick={again}>
          Try again
        </Button>
      )}
    </div>
  );
}
