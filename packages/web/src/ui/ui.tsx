/** Radix wrapped once, with the looks. Features take their controls from here. */
import { Check, ChevronDown, Copy } from 'lucide-react';
import {
  Dialog,
  DropdownMenu,
  RadioGroup,
  Popover as RadixPopover,
  Select as RadixSelect,
  Tooltip as RadixTooltip,
} from 'radix-ui';
import {
  type ButtonHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  type RefObject,
  type TextareaHTMLAttributes,
  useEffect,
  useRef,
  useState,
} from 'react';

type ButtonLook = 'main' | 'plain' | 'quiet';

const BUTTON: Readonly<Record<ButtonLook, string>> = {
  main: 'bg-bottle text-on-bottle border-bottle hover:opacity-90 disabled:bg-line disabled:border-line disabled:text-ink2',
  plain: 'bg-sheet text-ink border-rule hover:border-ink disabled:text-ink2',
  quiet: 'border-clear text-bottle hover:underline underline-offset-4 px-0!',
};

export function Button({
  look = 'plain',
  className = '',
  ref,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: ButtonLook; ref?: Ref<HTMLButtonElement> }) {
  return (
    <button
      type="button"
      ref={ref}
      className={`h-9 rounded-tray border px-3.5 text-sm font-semibold whitespace-nowrap ${BUTTON[look]} ${className}`}
      {...rest}
    />
  );
}

/** A line to write in, with what becomes of it at its right end. */
export function TextInput({
  becomes,
  fault,
  className = '',
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { becomes?: ReactNode; fault?: boolean }) {
  // What is long stands beneath, so that neither is cut.
  const beneath = typeof becomes === 'string' && becomes.length + String(rest.value ?? '').length > 18;
  return (
    <span
      className={`flex items-center rounded-tray border bg-sheet px-2 focus-within:border-bottle focus-within:ring-2 focus-within:ring-bottle/30 ${beneath ? 'flex-wrap justify-end pb-1' : 'h-8 gap-2'} ${fault ? 'border-brick' : 'border-line'} ${className}`}
    >
      <input
        className={`h-7.5 min-w-0 bg-clear outline-none placeholder:text-ink2 ${beneath ? 'w-full' : 'flex-1'}`}
        {...rest}
      />
      {becomes !== undefined && (
        <span className="max-w-full shrink-0 truncate font-mono text-xs text-plum">{becomes}</span>
      )}
    </span>
  );
}

export function Radios({
  value,
  options,
  onChange,
  label,
}: {
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  label: string;
}) {
  return (
    <RadioGroup.Root
      value={value}
      onValueChange={onChange}
      aria-label={label}
      className="flex min-h-8 flex-wrap items-center gap-4 rounded-tray border border-line bg-sheet px-2"
    >
      {options.map((o) => (
        <span key={o.value} className="flex items-center gap-1.5">
          <RadioGroup.Item
            id={`${label}-${o.value}`}
            value={o.value}
            className="size-3.5 rounded-full border border-ink2 data-[state=checked]:border-4 data-[state=checked]:border-ink"
          />
          <label htmlFor={`${label}-${o.value}`}>{o.label}</label>
        </span>
      ))}
    </RadioGroup.Root>
  );
}

/** One of a few, with its words. */
export function Choose({
  id,
  label,
  value,
  options,
  onChange,
  disabled = false,
}: {
  id?: string;
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  disabled?: boolean;
}) {
  return (
    <RadixSelect.Root value={value} onValueChange={onChange} disabled={disabled}>
      <RadixSelect.Trigger
        id={id}
        aria-label={label}
        className="flex h-8 w-full min-w-0 items-center justify-between gap-2 rounded-tray border border-line bg-sheet px-2 text-left data-disabled:text-ink2"
      >
        <span className="truncate">
          <RadixSelect.Value placeholder="Choose…" />
        </span>
        <RadixSelect.Icon className="shrink-0 text-ink2">
          <ChevronDown size={14} aria-hidden />
        </RadixSelect.Icon>
      </RadixSelect.Trigger>
      <RadixSelect.Portal>
        <RadixSelect.Content
          position="popper"
          sideOffset={4}
          className="z-50 max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) overflow-hidden rounded-tray border border-rule bg-sheet p-1 shadow-xl"
        >
          <RadixSelect.Viewport>
            {options.map((o) => (
              <RadixSelect.Item
                key={o.value}
                value={o.value}
                className="flex items-center justify-between gap-3 rounded px-2 py-1.5 text-sm outline-none data-highlighted:bg-chosen"
              >
                <RadixSelect.ItemText>{o.label}</RadixSelect.ItemText>
                <RadixSelect.ItemIndicator>
                  <Check size={14} aria-hidden />
                </RadixSelect.ItemIndicator>
              </RadixSelect.Item>
            ))}
          </RadixSelect.Viewport>
        </RadixSelect.Content>
      </RadixSelect.Portal>
    </RadixSelect.Root>
  );
}

/** A label above what it names. */
export function Labelled({
  id,
  label,
  help,
  children,
}: {
  id: string;
  label: string;
  help?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-xs font-semibold text-ink2">
        {label}
      </label>
      {children}
      {help && <span className="text-xs text-ink2">{help}</span>}
    </div>
  );
}

export function Tick({
  label,
  checked,
  onChange,
  disabled = false,
}: {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        checked={checked}
        disabled={disabled}
        onChange={(e) => onChange(e.target.checked)}
        className="size-4 accent-(--bottle)"
      />
      {label}
    </label>
  );
}

/** Several lines to write in. */
export function Lines({ className = '', ...rest }: TextareaHTMLAttributes<HTMLTextAreaElement>) {
  return (
    <textarea
      spellCheck={false}
      className={`resize-y rounded-tray border border-line bg-sheet px-2 py-1.5 font-mono text-sm outline-none placeholder:text-ink2 focus:border-bottle focus:ring-2 focus:ring-bottle/30 ${className}`}
      {...rest}
    />
  );
}

/** Asked before something that others will notice; what it means stands in it. */
function Question({
  title,
  home,
  children,
}: {
  title: string;
  home?: RefObject<HTMLElement | null> | undefined;
  children: ReactNode;
}) {
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

export function Confirm({
  trigger,
  title,
  children,
  act,
  run,
}: {
  trigger: ReactNode;
  title: string;
  children: ReactNode;
  act: string;
  run: () => void;
}) {
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
            <Button look="main" onClick={run}>
              {act}
            </Button>
          </Dialog.Close>
        </div>
      </Question>
    </Dialog.Root>
  );
}

/** A question with a form of its own, opened by something else than a button of its own. */
export function Asking({
  open,
  onOpen,
  title,
  home,
  children,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  title: string;
  /** Where the focus goes when it is closed: a menu that opened it is gone by then. */
  home?: RefObject<HTMLElement | null>;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Question title={title} home={home}>
        {children}
      </Question>
    </Dialog.Root>
  );
}

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

export function Popover({
  trigger,
  children,
  open,
  onOpen,
  width = 'w-80',
}: {
  trigger: ReactNode;
  children: ReactNode;
  open: boolean;
  onOpen: (open: boolean) => void;
  width?: string;
}) {
  return (
    <RadixPopover.Root open={open} onOpenChange={onOpen}>
      <RadixPopover.Trigger asChild>{trigger}</RadixPopover.Trigger>
      <RadixPopover.Portal>
        <RadixPopover.Content
          align="start"
          sideOffset={4}
          className={`z-40 max-h-96 overflow-auto rounded-tray border border-rule bg-sheet p-1 shadow-xl ${width}`}
        >
          {children}
        </RadixPopover.Content>
      </RadixPopover.Portal>
    </RadixPopover.Root>
  );
}

export interface MenuLine {
  readonly words: string;
  readonly run: () => void;
  readonly chosen?: boolean;
}

export function Menu({
  trigger,
  head,
  lines,
  stay = false,
}: {
  trigger: ReactNode;
  head?: ReactNode;
  lines: readonly MenuLine[];
  stay?: boolean;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-40 min-w-56 rounded-tray border border-rule bg-sheet p-1 shadow-xl"
        >
          {head && <div className="border-b border-line px-2 py-1.5 text-sm text-ink2">{head}</div>}
          {lines.map((line) => (
            <DropdownMenu.Item
              key={line.words}
              onSelect={(e) => {
                if (stay) e.preventDefault();
                line.run();
              }}
              className="flex items-center justify-between rounded px-2 py-1.5 text-sm outline-none data-highlighted:bg-chosen"
            >
              {line.words}
              {line.chosen && <Check size={14} aria-hidden />}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

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
        <Button look="quiet" className="h-6!" onClick={again}>
          Try again
        </Button>
      )}
    </div>
  );
}
