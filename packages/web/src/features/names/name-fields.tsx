/** The fields of a name that is asked for: the project, what is saved, and each value it needs. */
import type { ProjectRow } from '@nesting/contract';
import { elementAt } from '@nesting/core';
import type { SlotDomain } from '@nesting/core/name';
import { useId } from 'react';
import { Choose, Labelled, Radios, TextInput } from '../../ui';
import { DateField } from '../../ui/date-field';
import { Finder } from '../../ui/finder';
import type { ProjectNames, Savable } from './project-names';

interface ProjectChoiceProps {
  readonly running: readonly ProjectRow[];
  readonly row: ProjectRow | null;
  readonly onChoose: (number: string) => void;
}

export function ProjectChoice({ running, row, onChoose }: ProjectChoiceProps) {
  return (
    <Finder
      label="Project"
      options={running.map((p) => ({ value: p.number, label: `${p.number} ${p.title}` }))}
      value={row?.number ?? null}
      onChoose={onChoose}
    />
  );
}

interface WhatChoiceProps {
  readonly names: ProjectNames;
  readonly savable: Savable | null;
  readonly onChoose: (id: string) => void;
}

export function WhatChoice({ names, savable, onChoose }: WhatChoiceProps) {
  if (names.savable.length === 0)
    return <p className="text-ink2">No folder of this project prescribes how files are named.</p>;
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="pb-1 text-xs font-semibold text-ink2">What is being saved</legend>
      <div className="flex flex-wrap gap-2">
        {names.savable.map(({ convention }) => (
          <button
            key={convention.id}
            type="button"
            aria-pressed={savable?.convention.id === convention.id}
            onClick={() => onChoose(convention.id)}
            className={`min-h-9 rounded-tray border px-3 text-sm ${savable?.convention.id === convention.id ? 'border-plum bg-chosen font-semibold' : 'border-rule bg-sheet hover:border-ink'}`}
          >
            {convention.name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  ext: 'Extension',
  person: 'Who',
  date: 'Date',
  client: 'Client',
};

interface SlotFieldProps {
  readonly field: string;
  readonly domain: SlotDomain;
  readonly value: string;
  readonly optional: boolean;
  readonly onGive: (value: string) => void;
}

export function SlotField({ field, domain, value, optional, onGive }: SlotFieldProps) {
  const id = useId();
  const words = FIELD_WORDS[field] ?? field.slice(0, 1).toUpperCase() + field.slice(1).replace(/[-_]/g, ' ');
  const label = optional ? `${words}, may be left out` : words;
  if (domain.kind === 'fixed')
    return <FixedField label={label} entries={domain.entries} value={value} optional={optional} onGive={onGive} />;
  if (domain.kind === 'date')
    return (
      <Labelled id={id} label={label}>
        <DateField id={id} value={value} onGive={onGive} fault={false} />
      </Labelled>
    );
  const type = domain.kind === 'digits' ? 'number' : 'text';
  return (
    <Labelled id={id} label={label}>
      <TextInput id={id} type={type} value={value} onChange={(e) => onGive(e.target.value)} autoComplete="off" />
    </Labelled>
  );
}

type FixedProps = Omit<SlotFieldProps, 'field' | 'domain'> & {
  readonly label: string;
  readonly entries: Extract<SlotDomain, { kind: 'fixed' }>['entries'];
};

/** One of the texts that may stand there: a few side by side, more of them in a list. */
function FixedField({ label, entries, value, optional, onGive }: FixedProps) {
  const id = useId();
  const options = [
    ...(optional ? [{ value: '-', label: 'left out' }] : []),
    ...entries
      .filter((e) => !e.retired)
      .map((e) => ({
        value: String(e.value),
        label: e.also[0] && e.also[0] !== e.text ? `${e.text}, ${e.also[0]}` : e.text,
      })),
  ];
  const chosen = value === '' && optional ? '-' : value;
  const choose = (next: string) => onGive(next === '-' ? '' : next);
  return (
    <Labelled id={id} label={label}>
      {options.length <= 5 ? (
        <Radios
          label={label}
          value={chosen}
          options={options.map((o) => ({ ...o, label: elementAt(o.label.split(','), 0) }))}
          onChange={choose}
        />
      ) : (
        <Choose id={id} label={label} value={chosen} options={options} onChange={choose} />
      )}
    </Labelled>
  );
}
