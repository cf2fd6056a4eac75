/** One entry of a list, written in place; kept when one leaves a field. */

import type { ListEntryRow } from '@nesting/contract';
import { type Cells, COLUMNS, keyColumn, tidyCells } from '@nesting/core/lists';
import { MARKS } from '@nesting/core/template';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { type EditableList, troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Button, Choose, Confirm, Heading, Labelled, Lines, TextInput, Tick } from '../../ui';
import { markColour, TraySign } from '../../ui/signs';
import { faultsByColumn } from './faults';
import { History } from './history';
import { houseApi } from './house-api';

interface Props {
  readonly list: EditableList;
  /** `null` for one that is being added. */
  readonly entry: ListEntryRow | null;
  readonly entries: readonly ListEntryRow[];
  readonly mayWrite: boolean;
  readonly onDone: (key: string | null, words: string) => void;
}

export function EntryForm({ list, entry, entries, mayWrite, onDone }: Props) {
  const [cells, setCells] = useState<Cells>(entry?.cells ?? {});
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const [add, adding] = houseApi.useAddEntryMutation();
  const [change, changing] = houseApi.useSaveEntryMutation();
  const [remove, removing] = houseApi.useRemoveEntryMutation();
  const { data: history = [] } = houseApi.useEntryHistoryQuery(
    { list, key: entry?.key ?? '' },
    { skip: entry === null },
  );
  const faults = faultsByColumn(list, cells);
  const trouble = adding.error ?? changing.error ?? removing.error;
  const tidy = tidyCells(list, cells);
  const dirty = entry === null || COLUMNS[list].some((c) => (entry.cells[c.key] ?? '') !== (tidy[c.key] ?? ''));
  const keep = async (next: Cells) => {
    const wanted = tidyCells(list, next);
    if (Object.keys(faultsByColumn(list, wanted)).length > 0) return;
    if (entry === null) {
      const made = await add({ list, cells: wanted });
      if (made.data) onDone(made.data.key, `${made.data.key} added.`);
    } else {
      const saved = await change({ list, key: entry.key, cells: wanted, version: entry.version });
      if (saved.data) onDone(saved.data.key, 'Kept.');
    }
  };
  const set = (key: string, value: string) => setCells({ ...cells, [key]: value });
  const setNow = (key: string, value: string) => {
    set(key, value);
    if (entry !== null) void keep({ ...cells, [key]: value });
  };
  const leave = (key: string) => {
    setTouched(new Set([...touched, key]));
    if (entry !== null && dirty) void keep(cells);
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void keep(cells);
      }}
    >
      <Heading>{entry === null ? 'To be added' : entry.key}</Heading>
      {COLUMNS[list].map((column) => (
        <Cell
          key={column.key}
          column={column}
          value={cells[column.key] ?? ''}
          entry={entry}
          isFixed={column === keyColumn(list) && (entry?.used ?? 0) > 0}
          fault={touched.has(column.key) || entry !== null ? faults[column.key] : undefined}
          mayWrite={mayWrite}
          onWrite={set}
          onSet={setNow}
          onLeave={leave}
        />
      ))}
      {trouble && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(trouble)}
        </p>
      )}
      {mayWrite && entry === null && (
        <Button
          look="main"
          type="submit"
          className="self-start"
          disabled={Object.keys(faults).length > 0 || adding.isLoading}
        >
          Add it
        </Button>
      )}
      {mayWrite && entry !== null && dirty && (
        <Button type="submit" className="self-start" disabled={Object.keys(faults).length > 0}>
          Keep it
        </Button>
      )}
      {entry !== null && list === 'clients' && <UsedBy entry={entry} />}
      {mayWrite && entry !== null && (
        <EntryActs
          list={list}
          entry={entry}
          entries={entries}
          onDone={onDone}
          onDelete={async () => {
            const gone = await remove({ list, key: entry.key });
            if (!('error' in gone)) onDone(null, `${entry.key} deleted.`);
          }}
        />
      )}
      {entry !== null && (
        <History
          rows={history}
          {...(mayWrite && {
            onPutBack: (was: Cells) => {
              setCells({ ...cells, ...was });
              void keep({ ...cells, ...was });
            },
          })}
        />
      )}
    </form>
  );
}

interface CellProps {
  readonly column: (typeof COLUMNS)[EditableList][number];
  readonly value: string;
  readonly entry: ListEntryRow | null;
  /** It stands in the names of projects. */
  readonly isFixed: boolean;
  readonly fault: string | undefined;
  readonly mayWrite: boolean;
  readonly onWrite: (key: string, value: string) => void;
  /** Written, and kept at once. */
  readonly onSet: (key: string, value: string) => void;
  readonly onLeave: (key: string) => void;
}

function Cell(props: CellProps) {
  const { column, value, entry, mayWrite, onSet } = props;
  if (column.flag)
    return (
      entry !== null && (
        <Tick
          label={column.label}
          checked={value === 'yes'}
          disabled={!mayWrite}
          onChange={(on) => onSet(column.key, on ? 'yes' : '')}
        />
      )
    );
  if (column.key === 'colour')
    return <MarkChoice value={value} disabled={!mayWrite} onChoose={(mark) => onSet('colour', mark)} />;
  return <WrittenCell {...props} />;
}

function helpOf({ column, isFixed }: CellProps): string | undefined {
  if (isFixed) return 'It stands in the names of projects, and stays.';
  return column.several ? 'parted by blanks' : undefined;
}

function WrittenCell(props: CellProps) {
  const { column, value, isFixed, fault, mayWrite, onWrite, onLeave } = props;
  const id = useId();
  const field = {
    id,
    value,
    onBlur: () => onLeave(column.key),
    onChange: (e: { target: { value: string } }) => onWrite(column.key, e.target.value),
  };
  return (
    <Labelled id={id} label={column.label} help={helpOf(props)}>
      {column.key === 'notes' || column.several ? (
        <Lines
          {...field}
          rows={column.several ? 2 : 3}
          readOnly={!mayWrite}
          className={column.several ? '' : 'font-sans'}
        />
      ) : (
        <TextInput {...field} readOnly={!mayWrite || isFixed} fault={fault !== undefined} autoComplete="off" />
      )}
      {fault && <span className="text-xs text-brick">{fault}</span>}
    </Labelled>
  );
}

function UsedBy({ entry }: { entry: ListEntryRow }) {
  return (
    <p className="text-sm">
      {entry.used === 0 ? (
        'No project is listed with it.'
      ) : (
        <Link to={`/projects?find=${encodeURIComponent(entry.key)}`} className="text-bottle underline">
          {many(entry.used, 'project')}
        </Link>
      )}
    </p>
  );
}

function EntryActs({
  list,
  entry,
  entries,
  onDone,
  onDelete,
}: Pick<Props, 'list' | 'entries' | 'onDone'> & { entry: ListEntryRow; onDelete: () => Promise<void> }) {
  return (
    <div className="flex flex-wrap gap-3">
      {(list === 'clients' || list === 'families') && entries.length > 1 && (
        <Merge list={list} entry={entry} entries={entries} onDone={onDone} />
      )}
      {entry.used === 0 && (
        <Confirm
          trigger={<Button>Delete…</Button>}
          title={`Delete ${entry.key}?`}
          act="Delete it"
          run={() => void onDelete()}
        >
          Nothing uses it. Its history is kept.
        </Confirm>
      )}
    </div>
  );
}

function MarkChoice({
  value,
  disabled,
  onChoose,
}: {
  value: string;
  disabled: boolean;
  onChoose: (mark: string) => void;
}) {
  return (
    <fieldset disabled={disabled} className="flex flex-col gap-1">
      <legend className="text-xs font-semibold text-ink2">Mark</legend>
      <span className="flex flex-wrap gap-1.5">
        {['', ...MARKS].map((mark) => (
          <button
            key={mark || 'none'}
            type="button"
            aria-pressed={value === mark}
            aria-label={mark || 'no mark'}
            title={mark || 'no mark'}
            onClick={() => onChoose(mark)}
            className={`flex size-6 items-center justify-center rounded border ${value === mark ? 'border-plum bg-chosen' : 'border-line'}`}
            style={{ color: markColour(mark === '' ? null : (mark as 'clay')) }}
          >
            <TraySign mark={mark === '' ? null : (mark as 'clay')} state={mark === '' ? 'planned' : 'there'} />
          </button>
        ))}
      </span>
    </fieldset>
  );
}

/** Two entries that mean the same become one. */
function Merge({
  list,
  entry,
  entries,
  onDone,
}: {
  list: EditableList;
  entry: ListEntryRow;
  entries: readonly ListEntryRow[];
  onDone: Props['onDone'];
}) {
  const [into, setInto] = useState('');
  const [merge, { error }] = houseApi.useMergeEntriesMutation();
  const words = (e: ListEntryRow) => (list === 'clients' ? `${e.key} ${e.cells.name}` : e.key);
  // The likeliest first: names that begin alike.
  const others = entries
    .filter((e) => e.key !== entry.key && e.cells.retired !== 'yes')
    .sort((a, b) => alike(b, entry) - alike(a, entry))
    .slice(0, 200);
  return (
    <>
      <Confirm
        trigger={<Button>Merge into another…</Button>}
        title={`${entry.key} is the same as…`}
        act="Merge them"
        run={() =>
          void merge({ list, from: entry.key, into }).then(
            (r) => 'error' in r || onDone(into, `${entry.key} merged into ${into}.`),
          )
        }
      >
        <div className="flex flex-col gap-3">
          <Choose
            label="The entry that stays"
            value={into}
            options={others.map((e) => ({ value: e.key, label: words(e) }))}
            onChange={setInto}
          />
          <p className="text-sm text-ink2">
            {list === 'clients'
              ? `Projects of ${entry.key} are listed with it from now on, and ${entry.key} is retired. What names on disks say stays as it is.`
              : `Its extensions go over, and ${entry.key} is gone.`}
          </p>
        </div>
      </Confirm>
      {error && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(error)}
        </p>
      )}
    </>
  );
}

function alike(a: ListEntryRow, b: ListEntryRow): number {
  const [x, y] = [(a.cells.name ?? a.key).toLowerCase(), (b.cells.name ?? b.key).toLowerCase()];
  let n = 0;
  while (n < x.length && n < y.length && x[n] === y[n]) n++;
  return n;
}
