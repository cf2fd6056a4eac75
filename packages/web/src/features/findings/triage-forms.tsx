/** The answers that accepting, giving and noting need. Enter in a field of words never accepts anything by itself. */
import type { Person } from '@nesting/core/name';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { Button, Labelled, Lines, TextInput } from '../../ui';
import { DateField } from '../../ui/date-field';
import { Finder } from '../../ui/finder';
import type { Triage } from './use-triage';

const NOBODY = '-';

/** A form that was opened by a key is where one writes on; Escape leaves it. */
function useForm(close: () => void) {
  const box = useRef<HTMLFormElement>(null);
  useEffect(() => box.current?.querySelector<HTMLElement>('input, textarea')?.focus(), []);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && !event.defaultPrevented) close();
  };
  return { ref: box, onKeyDown, className: 'flex flex-col gap-3' };
}

export function AcceptForm({ triage }: { triage: Triage }) {
  const id = useId();
  const form = useForm(triage.close);
  const [reason, setReason] = useState('');
  const [until, setUntil] = useState('');
  const fault = until !== '' && !/^\d{4}-\d{2}-\d{2}$/.test(until);
  const ready = reason.trim() !== '' && !fault && !triage.isBusy;
  const { length } = triage.findings;
  return (
    <form
      {...form}
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) void triage.accept(reason, until === '' ? null : until);
      }}
    >
      <Labelled id={`${id}r`} label="Why it may stay">
        <TextInput id={`${id}r`} value={reason} onChange={(e) => setReason(e.target.value)} autoComplete="off" />
      </Labelled>
      <Labelled id={`${id}u`} label="Until" help="Without a day it stays accepted. After the day it counts again.">
        <DateField id={`${id}u`} value={until} onGive={setUntil} fault={fault} />
      </Labelled>
      <div className="flex gap-2">
        <Button type="submit" variant="main" disabled={!ready}>
          {length === 1 ? 'Accept it' : `Accept ${length}`}
        </Button>
        <Button onClick={triage.close}>Cancel</Button>
      </div>
    </form>
  );
}

/** Somebody is found by writing some of the name; nothing is given before one of them is chosen. */
export function GiveForm({ triage, people }: { triage: Triage; people: readonly Person[] }) {
  const form = useForm(triage.close);
  const first = triage.findings[0];
  return (
    <form {...form} onSubmit={(e) => e.preventDefault()}>
      <Finder
        label="Who puts it right"
        value={first?.given ? first.to : null}
        options={[
          ...people.filter((p) => !p.retired).map((p) => ({ value: p.initials, label: `${p.name} (${p.initials})` })),
          { value: NOBODY, label: 'Nobody in particular' },
        ]}
        onChoose={(to) => void triage.give(to === NOBODY ? null : to)}
      />
      <Button className="self-start" onClick={triage.close}>
        Cancel
      </Button>
    </form>
  );
}

export function NoteForm({ triage }: { triage: Triage }) {
  const id = useId();
  const form = useForm(triage.close);
  const [note, setNote] = useState(triage.findings[0]?.note ?? '');
  return (
    <form
      {...form}
      onSubmit={(e) => {
        e.preventDefault();
        void triage.note(note);
      }}
    >
      <Labelled id={id} label="Note, for whoever looks at it">
        <Lines id={id} rows={3} value={note} maxLength={2000} onChange={(e) => setNote(e.target.value)} />
      </Labelled>
      <div className="flex gap-2">
        <Button type="submit" variant="main" disabled={triage.isBusy}>
          Save the note
        </Button>
        <Button onClick={triage.close}>Cancel</Button>
      </div>
    </form>
  );
}
