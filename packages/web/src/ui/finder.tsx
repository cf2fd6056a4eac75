/** One of many, found by writing some of it: a field with the matches beneath, by mouse, keyboard and thumb. */
import { type RefObject, useId, useMemo, useRef, useState } from 'react';
import { TextInput } from '.';

interface Option {
  readonly value: string;
  readonly label: string;
}

const SHOWN = 60;

interface Props {
  readonly label: string;
  readonly options: readonly Option[];
  readonly value: string | null;
  /** For paths. */
  readonly mono?: boolean;
  /** Where nothing is chosen. */
  readonly placeholder?: string;
  readonly onChoose: (value: string) => void;
  /** What is sought, where there are more than can be handed over at once. */
  readonly onSeek?: (words: string) => void;
}

export function Finder({ label, options, value, mono = false, placeholder, onChoose, onSeek }: Props) {
  const id = useId();
  const box = useRef<HTMLDivElement>(null);
  const [sought, setSought] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const chosen = options.find((o) => o.value === value);
  const found = useMemo(() => optionsWith(options, sought ?? ''), [options, sought]);
  const open = sought !== null;
  const take = (option: Option | undefined) => {
    if (option === undefined) return;
    onChoose(option.value);
    setSought(null);
  };
  const move = (to: number) => {
    const next = Math.max(0, Math.min(found.length - 1, to));
    setAt(next);
    box.current?.querySelector(`[data-at="${next}"]`)?.scrollIntoView({ block: 'nearest' });
  };
  return (
    <div className="relative flex flex-col gap-1">
      <label htmlFor={id} className="text-xs font-semibold text-ink2">
        {label}
      </label>
      <TextInput
        id={id}
        role="combobox"
        aria-expanded={open}
        aria-controls={`${id}l`}
        aria-activedescendant={open && found[at] ? `${id}o${at}` : undefined}
        autoComplete="off"
        value={sought ?? chosen?.label ?? ''}
        placeholder={placeholder ?? `Choose: ${label.toLowerCase()}`}
        onFocus={(e) => e.target.select()}
        onClick={() => setSought((before) => before ?? '')}
        onChange={(e) => {
          setSought(e.target.value);
          onSeek?.(e.target.value);
          setAt(0);
        }}
        onBlur={() => setSought(null)}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown' && !open) setSought('');
          else if (e.key === 'ArrowDown') move(at + 1);
          else if (e.key === 'ArrowUp') move(at - 1);
          else if (e.key === 'Escape' && open) setSought(null);
          else if (e.key === 'Enter' && open) take(found[at]);
          else return;
          e.preventDefault();
        }}
        className={mono ? 'font-mono' : ''}
      />
      {open && (
        <Found
          box={box}
          listId={`${id}l`}
          idOf={(i) => `${id}o${i}`}
          label={label}
          found={found}
          value={value}
          at={at}
          mono={mono}
          onTake={take}
        />
      )}
    </div>
  );
}

interface FoundProps {
  readonly box: RefObject<HTMLDivElement | null>;
  readonly listId: string;
  readonly idOf: (index: number) => string;
  readonly label: string;
  readonly found: readonly Option[];
  readonly value: string | null;
  /** Which one Enter would take. */
  readonly at: number;
  readonly mono: boolean;
  readonly onTake: (option: Option) => void;
}

function Found({ box, listId, idOf, label, found, value, at, mono, onTake }: FoundProps) {
  return (
    <div
      ref={box}
      id={listId}
      role="listbox"
      aria-label={label}
      className="absolute inset-x-0 top-full z-30 mt-1 max-h-72 overflow-auto rounded-tray border border-rule bg-sheet p-1 shadow-xl"
    >
      {found.length === 0 && <p className="px-2 py-1.5 text-sm text-ink2">Nothing is called that.</p>}
      {found.map((o, i) => (
        // biome-ignore lint/a11y/useFocusableInteractive: the field keeps the focus; the active one is told by aria-activedescendant
        <div
          key={o.value}
          id={idOf(i)}
          data-at={i}
          role="option"
          aria-selected={o.value === value}
          onPointerDown={(e) => {
            e.preventDefault();
            onTake(o);
          }}
          className={`cursor-pointer rounded px-2 py-1.5 text-sm break-all ${mono ? 'font-mono' : ''} ${i === at ? 'bg-chosen' : ''} ${o.value === value ? 'font-semibold' : ''}`}
        >
          {o.label}
        </div>
      ))}
    </div>
  );
}

function optionsWith(options: readonly Option[], text: string): readonly Option[] {
  const words = text
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '');
  return options.filter((o) => words.every((w) => o.label.toLowerCase().includes(w))).slice(0, SHOWN);
}
