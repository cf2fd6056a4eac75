/**
 * Everything that changed a rule, a list, a right or a disk: who, when, what, from where. It comes page by page,
 * however much there is.
 */

import type { ActivityQuery, ActivityRow, Me } from '@nesting/contract';
import { ACTIVITY_WORDS, activityWords } from '@nesting/core/words';
import { useCallback, useMemo } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { addressFor } from '../../app/endpoints';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { ago, count, moment } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, Choose, Empty, Heading, Labelled, TextInput, Trouble } from '../../ui';
import { DateField } from '../../ui/date-field';
import { peopleApi } from '../access/people-api';
import { Pair } from '../templates/folder-facts';
import { houseApi } from './house-api';

const ANY = 'any';
const plain = (code: string): string => code.replaceAll('-', ' ');

const COLUMNS: readonly GridColumn<ActivityRow>[] = [
  { id: 'at', header: 'When', width: '9rem', cell: (r) => <span title={r.at}>{ago(r.at)}</span> },
  { id: 'by', header: 'Who', width: '9rem', cell: (r) => r.by ?? <span className="text-ink2">Nesting itself</span> },
  {
    id: 'what',
    header: 'What',
    width: 'minmax(14rem,1fr)',
    cell: (r) => <span title={activityWords(r.what, r.params)}>{activityWords(r.what, r.params)}</span>,
  },
  {
    id: 'from',
    header: 'From',
    width: '8rem',
    cell: (r) => <span className="font-mono text-xs text-note">{r.from}</span>,
    hidden: true,
  },
];

export function ActivityPage() {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const asked = useMemo(
    (): ActivityQuery =>
      Object.fromEntries(
        ['person', 'what', 'subject', 'text', 'since', 'until'].flatMap((k) =>
          isUsable(k, params.get(k)) ? [[k, params.get(k)]] : [],
        ),
      ),
    [params],
  );
  const query = useDebounced(asked, 60);
  const { data, isError, error, refetch, hasNextPage, isFetching, fetchNextPage } = houseApi.useActivityInfiniteQuery(
    query,
    { skip: me.role === 'artist', refetchOnMountOrArgChange: true },
  );
  const rows = useMemo(() => (data?.pages ?? []).flatMap((p) => p.rows), [data]);
  const more = useCallback(() => {
    if (hasNextPage && !isFetching) void fetchNextPage();
  }, [hasNextPage, isFetching, fetchNextPage]);
  if (me.role === 'artist')
    return <Empty title="Coordinators and leads read what was done">Your own projects tell their own story.</Empty>;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  const row = rows.find((r) => String(r.id) === params.get('entry'));
  return (
    <Columns
      id="activity"
      labels={['What is looked for', 'Activity', 'The selected act']}
      given={<ActivityFilters isNarrowed={Object.keys(asked).length > 0} mayName={me.role === 'coordinator'} />}
      plan={
        <Grid
          id="activity"
          label="Activity"
          columns={COLUMNS}
          rows={rows}
          keyOf={(r) => String(r.id)}
          chosen={row === undefined ? [] : [String(row.id)]}
          onChoose={(keys) => put({ entry: keys.at(-1) ?? null })}
          onEnd={more}
          empty={isFetching ? 'Looking…' : 'Nothing of that sort was done.'}
        />
      }
      consequence={
        row === undefined ? <p className="text-sm text-ink2">Choose an act to see all of it.</p> : <Act row={row} />
      }
      ledger={
        <>
          <p role="status" className="flex-1">
            <strong className="font-semibold">
              {count(rows.length)}
              {hasNextPage ? ' so far' : ''}
            </strong>{' '}
            <span className="text-ink2">{hasNextPage ? 'more come as one scrolls.' : 'and that is all of it.'}</span>
          </p>
          <Button
            onClick={() => {
              location.href = addressFor('activityTable', { query });
            }}
          >
            Save as CSV
          </Button>
        </>
      }
    />
  );
}

/** What is being typed and means no day yet narrows nothing. */
const isUsable = (key: string, value: string | null): boolean =>
  value !== null && value !== '' && ((key !== 'since' && key !== 'until') || isDay(value));

const isDay = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text);

function DayFilter(props: { id: string; value: string; onGive: (day: string) => void }) {
  return <DateField {...props} fault={props.value !== '' && !isDay(props.value)} />;
}

function Act({ row }: { row: ActivityRow }) {
  return (
    <div className="flex flex-col gap-3">
      <Heading>{plain(row.what)}</Heading>
      <p className="break-words">
        {row.by ?? 'Nesting itself'}: {activityWords(row.what, row.params)}
      </p>
      <dl className="grid grid-cols-[5rem_1fr] gap-x-3 gap-y-1.5 text-sm">
        <Pair what="When" words={moment(row.at)} />
        {row.from && <Pair what="From" words={<span className="font-mono">{row.from}</span>} />}
        {row.project && (
          <Pair
            what="Project"
            words={
              <Link to={`/projects/${row.project.id}`} className="font-mono text-bottle underline">
                {row.project.folder || 'its page'}
              </Link>
            }
          />
        )}
        {Object.entries(row.params).map(([key, value]) => (
          <Pair
            key={key}
            what={plain(key)}
            words={
              <span className="font-mono text-xs break-all">
                {typeof value === 'object' ? JSON.stringify(value) : String(value)}
              </span>
            }
          />
        ))}
      </dl>
      {row.subject && (
        <Link to={`/activity?subject=${encodeURIComponent(row.subject)}`} className="text-sm text-bottle underline">
          All that was done to it
        </Link>
      )}
    </div>
  );
}

interface FiltersProps {
  readonly isNarrowed: boolean;
  /** Whether one may look for what a person did. */
  readonly mayName: boolean;
}

function ActivityFilters({ isNarrowed, mayName }: FiltersProps) {
  const [params, put] = useAddress();
  const { data: people = [] } = peopleApi.usePeopleQuery(undefined, { skip: !mayName });
  return (
    <div className="flex flex-col gap-3">
      <h1 className="text-xl font-semibold">Activity</h1>
      <p className="text-sm text-ink2">
        Everything that changed a rule, a list, a right or a disk. Nothing is ever taken out of it.
      </p>
      <Labelled id="a-text" label="Words">
        <TextInput
          id="a-text"
          value={params.get('text') ?? ''}
          placeholder="a name, a number, a code"
          onChange={(e) => put({ text: e.target.value })}
        />
      </Labelled>
      {people.length > 0 && (
        <Labelled id="a-who" label="Who">
          <Choose
            id="a-who"
            label="Who"
            value={params.get('person') ?? ANY}
            options={[{ value: ANY, label: 'anybody' }, ...people.map((p) => ({ value: p.id, label: p.name }))]}
            onChange={(v) => put({ person: v === ANY ? null : v })}
          />
        </Labelled>
      )}
      <Labelled id="a-what" label="What">
        <Choose
          id="a-what"
          label="What"
          value={params.get('what') ?? ANY}
          options={[
            { value: ANY, label: 'anything' },
            ...ACTIVITY_WORDS.map((code) => ({ value: code, label: plain(code) })),
          ]}
          onChange={(v) => put({ what: v === ANY ? null : v })}
        />
      </Labelled>
      <div className="flex flex-col gap-3">
        <Labelled id="a-since" label="From">
          <DayFilter id="a-since" value={params.get('since') ?? ''} onGive={(since) => put({ since })} />
        </Labelled>
        <Labelled id="a-until" label="To">
          <DayFilter id="a-until" value={params.get('until') ?? ''} onGive={(until) => put({ until })} />
        </Labelled>
      </div>
      {isNarrowed && (
        <Button
          variant="quiet"
          className="self-start"
          onClick={() => put({ person: null, what: null, subject: null, text: null, since: null, until: null })}
        >
          Show everything
        </Button>
      )}
    </div>
  );
}
