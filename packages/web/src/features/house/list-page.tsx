/**
 * One of the house's lists: entries are found, sorted, added, changed in place, retired, merged; taken in and out as a
 * table.
 */

import type { ListEntryRow, Me } from '@nesting/contract';
import { COLUMNS, keyColumn, tableOf } from '@nesting/core/lists';
import { csv } from '@nesting/core/text';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Navigate, useOutletContext, useParams } from 'react-router';
import { type EditableList, troubleOf } from '../../app/api';
import { save } from '../../app/save';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { found, sorted } from '../../grid/sort';
import { Button, TextInput, Trouble } from '../../ui';
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
  const [params, put] = useAddress();
  const head = houseApi.useListHeadQuery(list);
  const all = houseApi.useListQuery(list, { skip: head.data === undefined });
  const { isError, error, refetch } = head.isError ? head : all;
  const data = all.data ?? head.data;
  const [taking, setTaking] = useState(false);
  const [said, setSaid] = useState('');
  const words = params.get('find') ?? '';
  const sorting = { by: params.get('by') ?? keyColumn(list).key, down: params.get('order') === 'down' };
  const columns = useMemo(() => columnsOf(list), [list]);
  const rows = useMemo(() => {
    const some = found(data ?? [], words, (r) => Object.values(r.cells).join(' '));
    const column = columns.find((c) => c.id === sorting.by);
    return column?.sort ? sorted(some, column.sort, sorting.down) : some;
  }, [data, words, columns, sorting.by, sorting.down]);
  const [several, setSeveral] = useState<readonly string[]>([]);
  const chosen = useMemo(
    () => (several.length > 1 ? several : params.get('entry') === null ? [] : [params.get('entry') as string]),
    [several, params],
  );
  const choose = useCallback(
    (keys: readonly string[]) => {
      setSeveral(keys);
      setSaid('');
      put({ entry: keys.at(-1) ?? null });
    },
    [put],
  );
  useEffect(() => () => setSaid(''), []);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  const { title, one, what } = TITLES[list];
  const entry = (data ?? []).find((e) => e.key === params.get('entry')) ?? null;
  const fresh = params.get('entry') === FRESH;
  const copied = (data ?? []).filter((e) => chosen.includes(e.key));
  const copy = async () => {
    await navigator.clipboard.writeText(
      tableOf(list, copied)
        .slice(1)
        .map((l) => l.join('\t'))
        .join('\n'),
    );
    setSaid(`${many(copied.length, one)} copied.`);
  };
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
          <>
            <div className="flex flex-wrap items-center gap-3 pb-2">
              <h1 className="mr-auto text-xl font-semibold">{title}</h1>
              <TextInput
                aria-label={`Find in ${title}`}
                placeholder="Find"
                value={words}
                onChange={(e) => put({ find: e.target.value })}
                className="w-44"
              />
              {mayWrite && <Button onClick={() => choose([FRESH])}>Add…</Button>}
            </div>
            <Grid
              id={`house-${list}`}
              label={title}
              columns={columns}
              rows={rows}
              keyOf={(r) => r.key}
              chosen={chosen}
              onChoose={choose}
              sorting={sorting}
              onSort={(s) => put({ by: s.by, order: s.down ? 'down' : null })}
              empty={words === '' ? `No ${one} yet.` : `No ${one} has these letters.`}
            />
          </>
        )
      }
      consequence={
        entry !== null || fresh ? (
          <EntryForm
            key={fresh ? FRESH : entry?.key}
            list={list}
            entry={fresh ? null : entry}
            entries={data ?? []}
            mayWrite={mayWrite}
            onDone={(key, words) => {
              choose(key === null ? [] : [key]);
              setSaid(words);
            }}
          />
        ) : (
          <p className="text-sm text-ink2">Choose an entry to see what it is, who uses it, and what was done to it.</p>
        )
      }
      ledger={
        <>
          <p role="status" className="flex-1">
            <strong className="font-semibold">
              {said ||
                (all.data === undefined ? 'Reading the list…' : '') ||
                many(data?.length ?? 0, one, list === 'families' ? 'families' : undefined)}
            </strong>
            {said === '' && words !== '' && <span className="text-ink2">, {rows.length} shown</span>}
            {said === '' && chosen.length > 1 && <span className="text-ink2">, {chosen.length} selected</span>}
          </p>
          {chosen.length > 0 && !fresh && (
            <Button
              onClick={() => void copy().catch(() => setSaid('This page may not copy: it is not opened over HTTPS.'))}
            >
              Copy as text
            </Button>
          )}
          <Button onClick={() => save(`${list}.csv`, `\ufeff${csv(tableOf(list, rows))}`, 'text/csv')}>
            Save as CSV
          </Button>
          {mayWrite && (
            <Button onClick={() => setTaking(!taking)}>{taking ? 'Back to the list' : 'Take in a table…'}</Button>
          )}
        </>
      }
    />
  );
}

const mono = new Set(['code', 'short', 'extensions', 'companions', 'word', 'long']);

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

function MarkCell({ mark }: { mark: string | undefined }) {
  if (!mark) return null;
  return (
    <span title={mark}>
      <TraySign mark={mark as 'clay'} state="there" />
    </span>
  );
}
