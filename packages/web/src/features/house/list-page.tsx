/**
 * One of the house's lists: entries are found, sorted, added, changed in place, retired, merged; taken in and out as a
 * table.
 */

import type { EditableList, ListEntryRow, Me } from '@nesting/contract';
import { COLUMNS, keyColumn, tableOf } from '@nesting/core/lists';
import { MARKS } from '@nesting/core/template';
import { csv } from '@nesting/core/text';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import { Navigate, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { save } from '../../app/save';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { useFound } from '../../grid/use-found';
import { Button, TextInput, Trouble } from '../../ui';
import { useMarkWords } from '../../ui/meanings';
import { TraySign } from '../../ui/signs';
import { EntryForm } from './entry-form';
import { houseApi } from './house-api';
import { HouseNav, listWords } from './house-nav';
import { ImportPanel } from './import-panel';

const TITLES: Readonly<Record<EditableList, { title: string; one: string; what: string }>> = {
  clients: {
    title: 'Clients',
    one: 'client',
    what: 'Names carry their codes. A code that stands in names stays: a client is retired, never deleted.',
  },
  families: {
    title: 'Families of files',
    one: 'family',
    what: 'Which files belong together by their extension, and what travels beside them.',
  },
  abbreviations: {
    title: 'Abbreviations',
    one: 'abbreviation',
    what: 'The house’s own short forms; names with the long word are put right by them.',
  },
  banned: { title: 'Banned words', one: 'word', what: 'Words that say nothing in a name, such as final.' },
  libraries: {
    title: 'Libraries',
    one: 'library',
    what: 'Places outside of every project that files may refer to, as each system writes their path.',
  },
};

const isList = (name: string | undefined): name is EditableList => name !== undefined && name in TITLES;
/** Stands in the address where an entry's key would. */
const FRESH = ':new';

export function HouseListPage() {
  const { list } = useParams();
  return isList(list) ? <HouseList key={list} list={list} /> : <Navigate to="/registers/clients" replace />;
}

function HouseList({ list }: { list: EditableList }) {
  usePageTitle(listWords(list));
  const me = useOutletContext<Me>();
  const mayWrite = me.role === 'coordinator';
  const { data, isWhole, trouble, again } = useEntries(list);
  const [taking, setTaking] = useState(false);
  const [said, setSaid] = useState('');
  const columns = useMemo(() => columnsOf(list), [list]);
  const listed = useFound(data, columns, textOfEntry, keyColumn(list).key);
  const { key, chosen, choose } = useChosen(() => setSaid(''));
  if (trouble !== null) return <Trouble message={trouble} again={again} />;
  const { title, what } = TITLES[list];
  return (
    <Columns
      id="house"
      labels={['The house’s lists', title, 'The selected entry']}
      given={
        <div className="flex flex-col gap-4">
          <HouseNav />
          <p className="text-sm text-ink2">{what}</p>
        </div>
      }
      plan={
        taking ? (
          <ImportPanel
            list={list}
            entries={data ?? []}
            onDone={(words) => {
              setTaking(false);
              setSaid(words);
            }}
          />
        ) : (
          <Entries
            list={list}
            listed={listed}
            columns={columns}
            chosen={chosen}
            mayWrite={mayWrite}
            onChoose={choose}
          />
        )
      }
      consequence={
        <SelectedEntry
          list={list}
          entryKey={key}
          entries={data ?? []}
          mayWrite={mayWrite}
          onDone={(done, words) => {
            choose(done === null ? [] : [done]);
            setSaid(words);
          }}
        />
      }
      ledger={
        <ListLedger
          list={list}
          all={isWhole ? (data ?? []) : null}
          listed={listed}
          chosen={chosen}
          said={said}
          onSaid={setSaid}
        >
          {mayWrite && (
            <Button onClick={() => setTaking(!taking)}>{taking ? 'Back to the list' : 'Take in a table…'}</Button>
          )}
        </ListLedger>
      }
    />
  );
}

const mono = new Set(['code', 'short', 'extensions', 'companions', 'word', 'long', 'path']);

function columnsOf(list: EditableList): GridColumn<ListEntryRow>[] {
  const widths: Readonly<Record<string, string>> = {
    code: '5.5rem',
    short: '8rem',
    colour: '3.5rem',
    retired: '4.5rem',
    notes: 'minmax(6rem,1fr)',
    extensions: 'minmax(8rem,2fr)',
  };
  return [
    ...COLUMNS[list].map(
      (c): GridColumn<ListEntryRow> => ({
        id: c.key,
        header: c.label,
        width: widths[c.key] ?? 'minmax(8rem,1fr)',
        ...(c.key === 'notes' && { hidden: true as const }),
        sort: (r) => r.cells[c.key] ?? '',
        cell: (r) =>
          c.key === 'colour' ? (
            <MarkCell mark={r.cells.colour} />
          ) : (
            <span
              title={r.cells[c.key]}
              className={`${mono.has(c.key) ? 'font-mono' : ''} ${r.cells.retired === 'yes' ? 'text-ink2' : ''}`}
            >
              {c.key === 'retired' ? (r.cells.retired === 'yes' ? 'retired' : '') : r.cells[c.key]}
            </span>
          ),
      }),
    ),
    ...(list === 'clients'
      ? [
          {
            id: 'used',
            header: 'Projects',
            width: '5rem',
            sort: (r: ListEntryRow) => r.used,
            cell: (r: ListEntryRow) => (r.used === 0 ? '' : String(r.used)),
          },
        ]
      : []),
  ];
}

function MarkCell({ mark: written }: { mark: string | undefined }) {
  const words = useMarkWords();
  const mark = MARKS.find((known) => known === written);
  if (mark === undefined) return null;
  return (
    <span title={words(mark)} role="img" aria-label={words(mark)}>
      <span aria-hidden>
        <TraySign mark={mark} state="there" />
      </span>
    </span>
  );
}

/** The entries of a list: its first ones at once, all of them a moment later. */
function useEntries(list: EditableList) {
  const head = houseApi.useListHeadQuery(list);
  const all = houseApi.useListQuery(list, { skip: head.data === undefined });
  const { isError, error, refetch } = head.isError ? head : all;
  return {
    data: all.data ?? head.data,
    isWhole: all.data !== undefined,
    trouble: isError ? troubleOf(error) : null,
    again: () => void refetch(),
  };
}

/** Which entries are chosen: the last one stands in the address, several of them in this window. */
function useChosen(onChoose: () => void) {
  const [params, put] = useAddress();
  const key = params.get('entry');
  const [several, setSeveral] = useState<readonly string[]>([]);
  const chosen = useMemo(() => (several.length > 1 ? several : key === null ? [] : [key]), [several, key]);
  const choose = useCallback(
    (keys: readonly string[]) => {
      setSeveral(keys);
      onChoose();
      put({ entry: keys.at(-1) ?? null });
    },
    [put],
  );
  return { key, chosen, choose };
}

interface SelectedProps {
  readonly list: EditableList;
  readonly entryKey: string | null;
  readonly entries: readonly ListEntryRow[];
  readonly mayWrite: boolean;
  readonly onDone: (key: string | null, words: string) => void;
}

function SelectedEntry({ entryKey, ...form }: SelectedProps) {
  const entry = form.entries.find((e) => e.key === entryKey) ?? null;
  if (entry === null && entryKey !== FRESH)
    return (
      <p className="text-sm text-ink2">Choose an entry to see what it is, who uses it, and what was done to it.</p>
    );
  return <EntryForm key={entryKey} entry={entry} {...form} />;
}

interface EntriesProps {
  readonly list: EditableList;
  readonly listed: ReturnType<typeof useFound<ListEntryRow>>;
  readonly columns: readonly GridColumn<ListEntryRow>[];
  readonly chosen: readonly string[];
  readonly mayWrite: boolean;
  readonly onChoose: (keys: readonly string[]) => void;
}

function Entries({ list, listed, columns, chosen, mayWrite, onChoose }: EntriesProps) {
  const { title, one } = TITLES[list];
  const { rows, words, find, sorting, sort } = listed;
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 pb-2">
        <h1 className="mr-auto text-xl font-semibold">{title}</h1>
        <TextInput
          aria-label={`Find in ${title}`}
          placeholder="Find"
          value={words}
          onChange={(e) => find(e.target.value)}
          className="w-44"
        />
        {mayWrite && <Button onClick={() => onChoose([FRESH])}>Add…</Button>}
      </div>
      <Grid
        id={`house-${list}`}
        label={title}
        columns={columns}
        rows={rows}
        keyOf={(r) => r.key}
        chosen={chosen}
        onChoose={onChoose}
        sorting={sorting}
        onSort={sort}
        empty={words === '' ? `No ${one} yet.` : `No ${one} found.`}
      />
    </>
  );
}

interface LedgerProps {
  readonly list: EditableList;
  /** `null` while the list is being read. */
  readonly all: readonly ListEntryRow[] | null;
  readonly listed: ReturnType<typeof useFound<ListEntryRow>>;
  readonly chosen: readonly string[];
  readonly said: string;
  readonly onSaid: (words: string) => void;
  readonly children: ReactNode;
}

function ListLedger({ list, all, listed: { rows, words }, chosen, said, onSaid, children }: LedgerProps) {
  const { one } = TITLES[list];
  const copied = (all ?? []).filter((e) => chosen.includes(e.key));
  const copy = async () => {
    const [, ...lines] = tableOf(list, copied);
    await navigator.clipboard.writeText(lines.map((l) => l.join('\t')).join('\n'));
    onSaid(`${many(copied.length, one)} copied.`);
  };
  return (
    <>
      <p role="status" className="flex-1">
        <strong className="font-semibold">
          {said ||
            (all === null ? 'Reading the list…' : many(all.length, one, list === 'families' ? 'families' : undefined))}
        </strong>
        {said === '' && words !== '' && <span className="text-ink2">, {rows.length} shown</span>}
        {said === '' && chosen.length > 1 && <span className="text-ink2">, {chosen.length} selected</span>}
      </p>
      {copied.length > 0 && (
        <Button onClick={() => void copy().catch(() => onSaid('This page may not copy: it is not opened over HTTPS.'))}>
          Copy as text
        </Button>
      )}
      <Button onClick={() => save(`${list}.csv`, `\ufeff${csv(tableOf(list, rows))}`, 'text/csv')}>Save as CSV</Button>
      {children}
    </>
  );
}

const textOfEntry = (row: ListEntryRow): string => Object.values(row.cells).join(' ');
