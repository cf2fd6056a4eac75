/** One entry of a list, written in place; kept when one leaves a field. */

import type { EditableList, ListEntryRow } from '@nesting/contract';
import { type Cells, COLUMNS, keyColumn, tidyCells } from '@nesting/core/lists';
import { MARKS } from '@nesting/core/template';
import { useId, useState } from 'react';
import { type Resolver, type UseFormReturn, useForm, useWatch } from 'react-hook-form';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Button, Choose, Confirm, Heading, Labelled, Lines, Refused, TextInput, Tick } from '../../ui';
import { MarkChoice } from '../../ui/mark-choice';
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

/** The rules of the list, as the form asks for them. */
const judging =
  (list: EditableList): Resolver<Cells> =>
  (cells) => {
    const faults = Object.entries(faultsByColumn(list, cells));
    return faults.length === 0
      ? { values: cells, errors: {} }
      : { values: {}, errors: Object.fromEntries(faults.map(([key, message]) => [key, { type: 'rule', message }])) };
  };

/** Writes an entry: a new one when it is asked for, one that is there at every field that is left. */
function useKeepEntry({ list, entry, onDone }: Pick<Props, 'list' | 'entry' | 'onDone'>) {
  const [add, adding] = houseApi.useAddEntryMutation();
  const [change, changing] = houseApi.useSaveEntryMutation();
  const isSame = (cells: Cells) => COLUMNS[list].every((c) => (entry?.cells[c.key] ?? '') === (cells[c.key] ?? ''));
  const keep = async (given: Cells) => {
    const cells = tidyCells(list, given);
    if (Object.keys(faultsByColumn(list, cells)).length > 0) return;
    if (entry === null) {
      const made = await add({ list, cells });
      if (made.data) onDone(made.data.key, `${made.data.key} added.`);
    } else if (!isSame(cells)) {
      const saved = await change({ list, key: entry.key, cells, version: entry.version });
      if (saved.data) onDone(saved.data.key, 'Kept.');
    }
  };
  return { keep, trouble: adding.error ?? changing.error, isAdding: adding.isLoading };
}

export function EntryForm(props: Props) {
  const { list, entry, entries, mayWrite, onDone } = props;
  const { keep, trouble, isAdding } = useKeepEntry(props);
  const form = useForm<Cells>({
    defaultValues: entry?.cells ?? {},
    resolver: judging(list),
    mode: entry === null ? 'onTouched' : 'onChange',
  });
  const { isDirty, isValid } = form.formState;
  const keepNow = () => {
    if (entry !== null) void keep(form.getValues());
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void keep(form.getValues());
      }}
    >
      <Heading>{entry === null ? 'To be added' : entry.key}</Heading>
      {COLUMNS[list].map((column) => (
        <Cell
          key={column.key}
          form={form}
          column={column}
          isNew={entry === null}
          isFixed={column === keyColumn(list) && (entry?.used ?? 0) > 0}
          mayWrite={mayWrite}
          onLeave={keepNow}
        />
      ))}
      <Refused words={trouble && troubleOf(trouble)} />
      {mayWrite && (entry === null || isDirty) && (
        <Button
          variant={entry === null ? 'main' : 'plain'}
          type="submit"
          className="self-start"
          disabled={!isValid || isAdding}
        >
          {entry === null ? 'Add it' : 'Keep it'}
        </Button>
      )}
      {entry !== null && (
        <>
          {list === 'clients' && <UsedBy entry={entry} />}
          {mayWrite && <EntryActs list={list} entry={entry} entries={entries} onDone={onDone} />}
          <EntryHistory
            list={list}
            entry={entry}
            onPutBack={
              mayWrite
                ? (was) => {
                    form.reset({ ...form.getValues(), ...was }, { keepDefaultValues: true });
                    keepNow();
                  }
                : null
            }
          />
        </>
      )}
    </form>
  );
}

interface HistoryProps {
  readonly list: EditableList;
  readonly entry: ListEntryRow;
  readonly onPutBack: ((was: Cells) => void) | null;
}

function EntryHistory({ list, entry, onPutBack }: HistoryProps) {
  const { data: history = [] } = houseApi.useEntryHistoryQuery({ list, key: entry.key });
  return <History rows={history} {...(onPutBack && { onPutBack })} />;
}

interface CellProps {
  readonly form: UseFormReturn<Cells>;
  readonly column: (typeof COLUMNS)[EditableList][number];
  readonly isNew: boolean;
  /** It stands in the names of projects. */
  readonly isFixed: boolean;
  readonly mayWrite: boolean;
  /** After a field was left, or something chosen. */
  readonly onLeave: () => void;
}

function Cell(props: CellProps) {
  const { form, column, isNew, mayWrite, onLeave } = props;
  const value = useWatch({ control: form.control, name: column.key }) ?? '';
  const set = (next: string) => {
    form.setValue(column.key, next, { shouldDirty: true, shouldValidate: true });
    onLeave();
  };
  if (column.flag)
    return (
      !isNew && (
        <Tick
          label={column.label}
          checked={value === 'yes'}
          disabled={!mayWrite}
          onChange={(on) => set(on ? 'yes' : '')}
        />
      )
    );
  if (column.key === 'colour')
    return (
      <MarkChoice
        label="Mark"
        value={MARKS.find((mark) => mark === value) ?? null}
        none="no mark"
        disabled={!mayWrite}
        onChoose={(mark) => set(mark ?? '')}
      />
    );
  return <WrittenCell {...props} />;
}

function helpOf({ column, isFixed }: CellProps): string | undefined {
  if (isFixed) return 'It stands in the names of projects, and stays.';
  return column.several ? 'parted by blanks' : undefined;
}

function WrittenCell(props: CellProps) {
  const { form, column, isFixed, mayWrite, onLeave } = props;
  const id = useId();
  const fault = form.formState.errors[column.key]?.message;
  const field = { id, ...form.register(column.key, { onBlur: onLeave }) };
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
}: Pick<Props, 'list' | 'entries' | 'onDone'> & { entry: ListEntryRow }) {
  const [remove, { error }] = houseApi.useRemoveEntryMutation();
  const drop = async () => {
    const gone = await remove({ list, key: entry.key });
    if (!('error' in gone)) onDone(null, `${entry.key} deleted.`);
  };
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
          run={() => void drop()}
        >
          Nothing uses it. Its history is kept.
        </Confirm>
      )}
      <Refused words={error && troubleOf(error)} />
    </div>
  );
}

interface MergeProps {
  readonly list: EditableList;
  readonly entry: ListEntryRow;
  readonly entries: readonly ListEntryRow[];
  readonly onDone: Props['onDone'];
}

/** Two entries that mean the same become one. */
function Merge({ list, entry, entries, onDone }: MergeProps) {
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
      <Refused words={error && troubleOf(error)} />
    </>
  );
}

function alike(a: ListEntryRow, b: ListEntryRow): number {
  const [x, y] = [(a.cells.name ?? a.key).toLowerCase(), (b.cells.name ?? b.key).toLowerCase()];
  let n = 0;
  while (n < x.length && n < y.length && x[n] === y[n]) n++;
  return n;
}
