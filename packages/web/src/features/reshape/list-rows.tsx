/**
 * Entries of a list by typing or one click; one row for the list, or one for each entry of the list it stands within.
 */
import { elementAt } from '@nesting/core';
import { nextEntry } from '@nesting/core/lists';
import type { ListField, Value, Values } from '@nesting/core/name';
import { isKeyed } from '@nesting/core/name';
import type { Expansion } from '@nesting/core/template';
import { useId, useState } from 'react';
import { Button, Choose, TextInput } from '../../ui';
import { Row } from '../start/fields';
import { entriesIn, withEntries } from './reshape-slice';

interface Props {
  readonly field: ListField;
  readonly values: Values;
  readonly expansion: Expansion;
  /** `what` names the list written in; `null` for an act of its own. */
  readonly onValues: (values: Values, what: string | null) => void;
  /** Absent where entries are not renamed. */
  readonly onRename?: (from: string, to: string, values: Values) => void;
}

export function ListRows(props: Props) {
  const { field, values, expansion } = props;
  const value = values[field.key];
  const by = isKeyed(value);
  const outers = by && field.within !== undefined ? (expansion.values.lists.get(field.within)?.all ?? []) : [null];
  return (
    <>
      {outers.map((outer) => (
        <EntriesRow key={outer ?? ''} {...props} outer={outer} />
      ))}
    </>
  );
}

function EntriesRow({ field, outer, values, onValues, onRename }: Props & { outer: string | null }) {
  const id = useId();
  const [renaming, setRenaming] = useState(false);
  const label = `${field.label ?? field.key}${outer === null ? '' : ` of ${outer}`}`;
  const entries = entriesIn(values[field.key], outer);
  const value = values[field.key];
  const raw = outer === null || !isKeyed(value) ? value : value[outer];
  const next = nextEntry(field.of, entries, new Date().toISOString().slice(0, 10));
  const put = (given: Value, what: string | null) => onValues(withEntries(values, field.key, outer, given), what);
  const rename = (entry: string, name: string) => {
    const renamed = entries.map((e) => (e === entry ? name : e));
    onRename?.(entry, name, withEntries(values, field.key, outer, renamed));
  };
  return (
    <Row id={id} label={label} faults={[]}>
      <textarea
        id={id}
        rows={Math.min(5, Math.max(1, Math.ceil(entries.join(', ').length / 24)))}
        value={typeof raw === 'string' ? raw : entries.join(', ')}
        onChange={(e) => put(e.target.value, `${field.key} ${outer ?? ''}`)}
        spellCheck={false}
        className="block w-full resize-none rounded-tray border border-line bg-sheet px-2 py-1.25 font-mono text-sm outline-none focus:border-bottle focus:ring-2 focus:ring-bottle/30"
      />
      <span className="flex flex-wrap gap-x-3">
        {next !== null && (
          <Button
            variant="quiet"
            className="h-6! font-mono"
            aria-label={`Add ${next} to ${label}`}
            onClick={() => put([...entries, next], null)}
          >
            + {next}
          </Button>
        )}
        {onRename && entries.length > 0 && !renaming && (
          <Button
            variant="quiet"
            className="h-6!"
            aria-label={`Rename an entry of ${label}`}
            onClick={() => setRenaming(true)}
          >
            Rename one…
          </Button>
        )}
      </span>
      {renaming && <RenameEntry label={label} entries={entries} onRename={rename} onClose={() => setRenaming(false)} />}
    </Row>
  );
}

interface RenameProps {
  readonly label: string;
  readonly entries: readonly string[];
  readonly onRename: (entry: string, name: string) => void;
  readonly onClose: () => void;
}

function RenameEntry({ label, entries, onRename, onClose }: RenameProps) {
  const [given, setGiven] = useState({ entry: elementAt(entries, 0), name: elementAt(entries, 0) });
  const { entry } = given;
  const name = given.name.trim();
  return (
    <form
      className="flex flex-col gap-1 pt-1"
      onSubmit={(e) => {
        e.preventDefault();
        if (name !== '' && name !== entry) onRename(entry, name);
        onClose();
      }}
    >
      <Choose
        label={`Entry of ${label}`}
        value={entry}
        options={entries.map((e) => ({ value: e, label: e }))}
        onChange={(next) => setGiven({ entry: next, name: next })}
      />
      <TextInput
        aria-label="Is called from now on"
        value={given.name}
        onChange={(e) => setGiven({ ...given, name: e.target.value })}
        className="font-mono"
        spellCheck={false}
      />
      <span className="flex gap-3">
        <Button type="submit" variant="quiet" className="h-6!">
          Rename it
        </Button>
        <Button variant="quiet" className="h-6!" onClick={onClose}>
          Cancel
        </Button>
      </span>
    </form>
  );
}
