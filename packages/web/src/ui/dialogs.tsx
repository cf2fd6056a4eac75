/** Questions before something is done, and a drawer at the side. */
import { Dialog } from 'radix-ui';
import { type ReactNode, type RefObject, useRef } from 'react';
import { Button } from './button';

interface QuestionProps {
  readonly title: string;
  readonly home?: RefObject<HTMLElement | null> | undefined;
  readonly children: ReactNode;
}

/** Asked before something that others will notice; what it means stands in it. */
function Question({ title, home, children }: QuestionProps) {
  const content = useRef<HTMLDivElement>(null);
  // The answer that changes nothing has the focus, where one is marked.
  const onOpenAutoFocus = (event: Event) => {
    const safe = content.current?.querySelector<HTMLElement>('[data-safe]');
    if (safe == null) return;
    event.preventDefault();
    safe.focus();
  };
  const onCloseAutoFocus = (event: Event) => {
    if (home?.current == null) return;
    event.preventDefault();
    home.current.focus();
  };
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
      <Dialog.Content
        ref={content}
        onOpenAutoFocus={onOpenAutoFocus}
        onCloseAutoFocus={onCloseAutoFocus}
        aria-describedby={undefined}
        className="fixed top-1/4 left-1/2 z-40 flex w-md max-w-[92vw] -translate-x-1/2 flex-col gap-4 rounded-tray border border-rule bg-paper p-5 shadow-xl"
      >
        <Dialog.Title className="text-lg font-semibold">{title}</Dialog.Title>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}

interface ConfirmProps {
  readonly trigger: ReactNode;
  readonly title: string;
  readonly children: ReactNode;
  readonly act: string;
  readonly run: () => void;
}

export function Confirm({ trigger, title, children, act, run }: ConfirmProps) {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>
      <Question title={title}>
        <div>{children}</div>
        <div className="flex justify-end gap-3">
          <Dialog.Close asChild>
            <Button data-safe>Cancel</Button>
          </Dialog.Close>
          <Dialog.Close asChild>
            <Button variant="main" onClick={run}>
              {act}
            </Button>
          </Dialog.Close>
        </div>
      </Question>
    </Dialog.Root>
  );
}

interface AskingProps {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly title: string;
  /** Where the focus goes when it is closed: a menu that opened it is gone by then. */
  readonly home?: RefObject<HTMLElement | null>;
  readonly children: ReactNode;
}

/** A question with a form of its own, opened by something else than a button of its own. */
export function Asking({ open, onOpen, title, home, children }: AskingProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Question title={title} home={home}>
        {children}
      </Question>
    </Dialog.Root>
  );
}

interface PanelProps {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly title: string;
  readonly isTitleShown?: boolean;
  readonly className: string;
  readonly children: ReactNode;
}

/** A panel at the top: the field that finds anything, the sheet of keys. */
export function Panel({ open, onOpen, title, isTitleShown = false, className, children }: PanelProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-20 left-1/2 z-50 max-w-[92vw] -translate-x-1/2 rounded-tray border border-rule bg-sheet shadow-xl ${className}`}
        >
          <Dialog.Title className={isTitleShown ? 'pb-3 text-lg font-semibold' : 'sr-only'}>{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What has no room beside the rest, at the right side when it is asked for. */
export function Drawer({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button>{label}</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-y-0 right-0 z-30 w-96 max-w-[90vw] overflow-auto border-l border-rule bg-paper p-5 shadow-xl"
        >
          <Dialog.Title className="sr-only">{label}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
