/** A date by typing as people say it, or from the calendar; what it becomes stands at its end. */
import { dateFromWords } from '@nesting/core/name';
import { Calendar } from 'lucide-react';
import { useRef, useState } from 'react';
import { TextInput } from '.';

const weekday = new Intl.DateTimeFormat(undefined, { weekday: 'short', timeZone: 'UTC' });
const today = (): string => {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
};

interface DateFieldProps {
  readonly id: string;
  readonly value: string;
  readonly onGive: (value: string) => void;
  readonly fault: boolean;
}

/** `value` is ISO 8601; what is typed and means no day is given on as it is, so that it is told and never lost. */
export function DateField({ id, value, onGive, fault }: DateFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const calendar = useRef<HTMLInputElement>(null);
  const iso = /^\d{4}-\d{2}-\d{2}$/.test(value) ? value : '';
  const meant = dateFromWords(typed ?? value, today());
  const give = (text: string) => {
    setTyped(text);
    onGive(dateFromWords(text, today()) ?? text);
  };
  return (
    <span className="relative flex items-center gap-1">
      <TextInput
        id={id}
        value={typed ?? value}
        placeholder="next tue, 27.11., 2026-11-27"
        autoComplete="off"
        fault={fault}
        onChange={(e) => give(e.target.value)}
        onBlur={() => setTyped(null)}
        className="min-w-0 flex-1"
        becomes={
          meant === null
            ? undefined
            : [weekday.format(new Date(`${meant}T00:00:00Z`)), ...(meant === (typed ?? value) ? [] : [meant])].join(' ')
        }
      />
      <button
        type="button"
        aria-label="Choose from a calendar"
        onClick={() => calendar.current?.showPicker()}
        className="flex size-8 shrink-0 items-center justify-center rounded-tray border border-line bg-sheet text-ink2 hover:border-ink"
      >
        <Calendar size={14} aria-hidden />
      </button>
      <input
        ref={calendar}
        type="date"
        tabIndex={-1}
        aria-hidden
        value={iso}
        max="2999-12-31"
        onChange={(e) => {
          setTyped(null);
          onGive(e.target.value);
        }}
        className="pointer-events-none absolute right-0 bottom-0 size-0 opacity-0"
      />
    </span>
  );
}
