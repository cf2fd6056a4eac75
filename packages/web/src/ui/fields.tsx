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
