/** What is written in, chosen from and ticked. */
import { Check, ChevronDown } from 'lucide-react';
import { RadioGroup, Select as RadixSelect } from 'radix-ui';
import type { InputHTMLAttributes, ReactNode, TextareaHTMLAttributes } from 'react';

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

interface Option<V extends string> {
  readonly value: V;
  readonly label: string;
  /** A sign before the words. */
  readonly sign?: ReactNode;
}

/** Radix tells which value was chosen as a text: the option of that text is meant. */
const choosing =
  <V extends string>(options: readonly Option<V>[], onChange: (value: V) => void) =>
  (text: string): void => {
    const chosen = options.find((o) => o.value === text);
    if (chosen) onChange(chosen.value);
  };

interface RadiosProps<V extends string> {
  readonly value: string;
  readonly options: readonly Option<V>[];
  readonly onChange: (value: V) => void;
  readonly label: string;
}

export function Radios<V extends string>({ value, options, onChange, label }: RadiosProps<V>) {
  return (
    <RadioGroup.Root
      value={value}
      onValueChange={choosing(options, onChange)}
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

interface ChooseProps<V extends string> {
  readonly id?: string;
  readonly label: string;
  readonly value: string;
  readonly options: readonly Option<V>[];
  readonly onChange: (value: V) => void;
  readonly disabled?: boolean;
}

/** One of a few, with its words. */
export function Choose<V extends string>({ id, label, value, options, onChange, disabled = false }: ChooseProps<V>) {
  return (
    <RadixSelect.Root value={value} onValueChange={choosing(options, onChange)} disabled={disabled}>
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
                <RadixSelect.ItemText>
                  {o.sign === undefined ? (
                    o.label
                  ) : (
                    <span className="inline-flex items-center gap-2">
                      {o.sign}
                      {o.label}
                    </span>
                  )}
                </RadixSelect.ItemText>
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

interface LabelledProps {
  readonly id: string;
  readonly label: string;
  readonly help?: ReactNode;
  readonly children: ReactNode;
}

/** A label above what it names. */
export function Labelled({ id, label, help, children }: LabelledProps) {
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

interface TickProps {
  readonly label: string;
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
  readonly disabled?: boolean;
}

export function Tick({ label, checked, onChange, disabled = false }: TickProps) {
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
