/** The form of a start: one row a field, each with what becomes of it and what is wrong with it. */
import { type Field, hasValue, type Registers, shapeText, type Value } from '@nesting/core/name';
import type { Diagnostic, Expansion } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { Command as Cmd } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { type ReactNode, useId, useState } from 'react';
import { found } from '../../grid/sort';
import { Popover, Radios, TextInput } from '../../ui';
import { DateField } from '../../ui/date-field';
import { NewClient } from './client-pick';
import { faultsOf } from './tree';

interface RowProps {
  readonly field: Field;
  readonly value: Value | undefined;
  readonly registers: Registers;
  readonly expansion: Expansion;
  readonly onGive: (value: Value) => void;
}

export function FieldRow({ field, value, registers, expansion, onGive }: RowProps) {
  const id = useId();
  const faults = faultsOf(expansion.diagnostics, field.key);
  // A field not yet filled in is no mistake while one is still writing; the ledger says what is missing.
  const shown = faults
    .filter((d) => hasValue(value) && d.code !== 'list-empty')
    .filter((d, i, all) => all.findIndex((o) => o.code === d.code) === i);
  return (
    <Row id={id} label={field.label ?? field.key} help={helpOf(field, expansion)} faults={shown}>
      <Control
        id={id}
        field={field}
        value={value}
        registers={registers}
        onGive={onGive}
        fault={shown.some((d) => d.weight === 'refused')}
        count={expansion.values.lists.get(field.key)?.all.length ?? 0}
      />
    </Row>
  );
}

export function Row({
  id,
  label,
  help,
  faults,
  children,
}: {
  id: string;
  label: string;
  help?: string | undefined;
  faults: readonly Diagnostic[];
  children: ReactNode;
}) {
  return (
    <div className="grid grid-cols-[5rem_1fr] gap-x-3">
      <label htmlFor={id} id={`${id}-label`} className="pt-1.5 text-sm text-ink2">
        {label}
      </label>
      <div className="min-w-0">
        {children}
        {faults.map((d) => (
          <p key={d.code} className={`pt-0.5 text-xs ${d.weight === 'refused' ? 'text-brick' : 'text-ochre'}`}>
            {wordsFor(d.code, d.params)}
          </p>
        ))}
        {help && <p className="pt-0.5 text-xs text-ink2">{help}</p>}
      </div>
    </div>
  );
}

function helpOf(field: Field, expansion: Expansion): string | undefined {
  if (field.type !== 'list') return field.help;
  return (expansion.values.lists.get(field.key)?.all.length ?? 0) === 0
    ? (field.help ?? 'Write a range or paste a list.')
    : undefined;
}

interface ControlProps {
  readonly count: number;
  readonly id: string;
  readonly field: Field;
  readonly value: Value | undefined;
  readonly registers: Registers;
  readonly onGive: (value: Value) => void;
  readonly fault: boolean;
}

function Control({ id, field, value, registers, onGive, fault, count }: ControlProps) {
  const text = typeof value === 'string' || typeof value === 'number' ? String(value) : '';
  switch (field.type) {
    case 'client': {
      const client = registers.clients.find((c) => c.code === text);
      return (
        <Pick
          id={id}
          shown={client?.name ?? text}
          becomes={client?.code}
          placeholder="Name or code"
          fault={fault}
          onPick={onGive}
          options={registers.clients.filter((c) => !c.retired).map((c) => ({ value: c.code, name: c.name }))}
          fresh={(words, done) => (
            <NewClient key={words} name={words} taken={registers.clients.map((c) => c.code)} onAdded={done} />
          )}
        />
      );
    }
    case 'person': {
      const person = registers.people.find((p) => p.initials === text);
      return (
        <Pick
          id={id}
          shown={person?.name ?? text}
          becomes={person?.initials}
          placeholder="Name or initials"
          fault={fault}
          onPick={onGive}
          options={registers.people.filter((p) => !p.retired).map((p) => ({ value: p.initials, name: p.name }))}
        />
      );
    }
    case 'choice':
      return (
        <Radios
          label={field.label ?? field.key}
          value={text}
          onChange={onGive}
          options={(field.options ?? []).map((o) => ({ value: o.code, label: o.label ?? o.code }))}
        />
      );
    case 'date':
      return <DateField id={id} value={text} onGive={onGive} fault={fault} />;
    case 'list':
      return <ListField id={id} value={value} onGive={onGive} fault={fault} count={count} />;
    default: {
      const kebab = field.type === 'text' && text !== '' ? shapeText(text, 'kebab') : null;
      return (
        <TextInput
          id={id}
          value={text}
          onChange={(e) => onGive(e.target.value)}
          fault={fault}
          becomes={kebab?.ok && kebab.text !== text ? kebab.text : undefined}
          autoComplete="off"
          spellCheck={false}
        />
      );
    }
  }
}

interface ListFieldProps {
  readonly id: string;
  readonly value: Value | undefined;
  readonly onGive: (value: Value) => void;
  readonly fault: boolean;
  readonly count: number;
}

/** Entries by typing, pasting (lines, commas) or ranges; it grows with what is in it. */
function ListField({ id, value, onGive, fault, count }: ListFieldProps) {
  const text = typeof value === 'string' ? value : Array.isArray(value) ? value.join(', ') : '';
  const rows = Math.min(6, Math.max(1, text.split('\n').length, Math.ceil(text.length / 20)));
  return (
    <span
      className={`flex items-start gap-2 rounded-tray border bg-sheet px-2 focus-within:border-bottle focus-within:ring-2 focus-within:ring-bottle/30 ${fault ? 'border-brick' : 'border-line'}`}
    >
      <textarea
        id={id}
        rows={rows}
        value={text}
        onChange={(e) => onGive(e.target.value)}
        spellCheck={false}
        className="block min-w-0 flex-1 resize-none bg-clear py-1.25 font-mono text-sm outline-none"
      />
      {count > 0 && <span className="shrink-0 py-1.5 font-mono text-xs text-plum">{count}</span>}
    </span>
  );
}

interface PickProps {
  readonly id: string;
  readonly shown: string;
  readonly becomes: string | undefined;
  readonly placeholder: string;
  readonly options: readonly { value: string; name: string }[];
  readonly onPick: (value: string) => void;
  readonly fault: boolean;
  readonly fresh?: (words: string, done: (value: string) => void) => ReactNode;
}

function Pick({ id, shown, becomes, placeholder, options, onPick, fault, fresh }: PickProps) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const some = found(options, words, (o) => `${o.name} ${o.value}`).slice(0, 60);
  return (
    <Popover
      label="Choose"
      open={open}
      onOpen={setOpen}
      trigger={
        <button
          id={id}
          type="button"
          aria-labelledby={`${id}-label ${id}`}
          className={`flex h-8 w-full items-center gap-2 rounded-tray border bg-sheet px-2 text-left ${fault ? 'border-brick' : 'border-line'}`}
        >
          <span className={`min-w-0 flex-1 truncate ${shown ? '' : 'text-ink2'}`}>{shown || placeholder}</span>
          {becomes && <span className="font-mono text-xs text-plum">{becomes}</span>}
          <ChevronDown size={14} aria-hidden className="text-ink2" />
        </button>
      }
    >
      <Cmd label={placeholder} shouldFilter={false}>
        <Cmd.Input
          autoFocus
          value={words}
          onValueChange={setWords}
          placeholder={placeholder}
          className="h-8 w-full border-b border-line bg-clear px-2 outline-none placeholder:text-ink2"
        />
        <Cmd.List className="max-h-64 overflow-auto pt-1">
          <Cmd.Empty className="px-2 py-3 text-sm text-ink2">Nobody found.</Cmd.Empty>
          {some.map((o) => (
            <Cmd.Item
              key={o.value}
              value={`${o.name} ${o.value}`}
              onSelect={() => {
                onPick(o.value);
                setOpen(false);
              }}
              className="flex justify-between rounded px-2 py-1.5 data-[selected=true]:bg-chosen"
            >
              {o.name} <span className="font-mono text-xs text-plum">{o.value}</span>
            </Cmd.Item>
          ))}
        </Cmd.List>
      </Cmd>
      {fresh &&
        words.trim().length > 1 &&
        !options.some((o) => o.name.toLowerCase() === words.trim().toLowerCase()) &&
        fresh(words.trim(), (value) => {
          onPick(value);
          setOpen(false);
          setWords('');
        })}
    </Popover>
  );
}
