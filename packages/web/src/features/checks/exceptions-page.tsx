/**
 * Findings somebody accepted: why, by whom, until when; and those whose day is over, that are gone, or were touched
 * since.
 */

import type { ExceptionRow, Me } from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import { RULE_WORDS } from '@nesting/core/words';
import { useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, day, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { FoundGrid } from '../../grid/found-grid';
import type { GridColumn } from '../../grid/grid';
import { useFound } from '../../grid/use-found';
import { Button, Heading, Refused, Trouble } from '../../ui';
import { findingsApi } from '../findings/findings-api';
import { ChecksNav } from './checks-nav';

const STATES = {
  holds: 'holds',
  ended: 'has ended: counts again',
  gone: 'is not found any more',
  touched: 'was touched: counts again',
} as const;

const COLUMNS: readonly GridColumn<ExceptionRow>[] = [
  {
    id: 'project',
    header: 'Project',
    width: '5.5rem',
    sort: (e) => e.project.number,
    cell: (e) => <span className="font-mono text-plum">{e.project.number}</span>,
  },
  {
    id: 'name',
    header: 'What',
    width: 'minmax(9rem,1.4fr)',
    sort: (e) => e.path ?? '',
    cell: (e) =>
      e.path === null ? <span className="text-ink2">gone</span> : <span className="font-mono">{nameOf(e.path)}</span>,
  },
  {
    id: 'reason',
    header: 'Why it may stay',
    width: 'minmax(9rem,1.4fr)',
    sort: (e) => e.accepted.reason,
    cell: (e) => e.accepted.reason,
  },
  {
    id: 'by',
    header: 'By',
    width: '3.5rem',
    sort: (e) => e.accepted.by,
    cell: (e) => <span className="font-mono">{e.accepted.by}</span>,
  },
  {
    id: 'until',
    header: 'Until',
    width: '8rem',
    sort: (e) => e.accepted.until ?? '9',
    cell: (e) =>
      e.accepted.baseline ? 'it is touched' : e.accepted.until === null ? 'without end' : day(e.accepted.until),
  },
  {
    id: 'state',
    header: 'State',
    width: 'minmax(7rem,1fr)',
    sort: (e) => e.state,
    cell: (e) => <span className={e.state === 'holds' ? '' : 'text-ochre'}>{STATES[e.state]}</span>,
  },
];

export function ExceptionsPage() {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const project = params.get('project');
  const { data, isError, error, refetch } = findingsApi.useExceptionsQuery(project);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const shown = useFound(data, COLUMNS, textOf, 'until');
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const last = shown.rows.find((e) => keyOf(e) === chosen.at(-1)) ?? null;
  const some = shown.rows.filter((e) => chosen.includes(keyOf(e)));
  return (
    <Columns
      id="checks"
      labels={['Checks', 'Accepted findings', 'The selected one']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <p className="text-sm text-ink2">
            What was accepted does not count, until its day is over. What was there when a project was first checked
            counts again once it is touched.
          </p>
          {project !== null && (
            <Button className="self-start" onClick={() => put({ project: null })}>
              Of all projects
            </Button>
          )}
        </div>
      }
      plan={
        <FoundGrid
          id="exceptions"
          title="Accepted findings"
          findWords="Find an accepted finding"
          columns={COLUMNS}
          found={shown}
          keyOf={keyOf}
          chosen={chosen}
          onChoose={setChosen}
          empty="Nothing was accepted."
        />
      }
      consequence={last && <Accepted row={last} />}
      ledger={
        <ExceptionsLedger all={data} chosen={some} mayCount={me.role === 'coordinator'} onDone={() => setChosen([])} />
      }
    />
  );
}

function Accepted({ row }: { row: ExceptionRow }) {
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-col gap-1">
        <Heading>{row.rule === null ? 'Gone' : RULE_WORDS[row.rule].title}</Heading>
        <p>{row.message || 'What was accepted is not found any more.'}</p>
        {row.path !== null && <p className="font-mono text-sm break-all text-ink2">{row.path}</p>}
      </div>
      <p className="text-sm">
        “{row.accepted.reason}”, <span className="font-mono">{row.accepted.by}</span>, {ago(row.accepted.at)}
      </p>
      <Link
        to={`/projects/${row.project.id}?view=findings&findings=accepted&finding=${row.id}`}
        className="text-sm text-bottle hover:underline"
      >
        In its project
      </Link>
    </div>
  );
}

interface LedgerProps {
  readonly all: readonly ExceptionRow[];
  readonly chosen: readonly ExceptionRow[];
  readonly mayCount: boolean;
  readonly onDone: () => void;
}

function ExceptionsLedger({ all, chosen, mayCount, onDone }: LedgerProps) {
  const [again, { error: refused }] = findingsApi.useCountAgainMutation();
  const count = () => {
    for (const id of new Set(chosen.map((e) => e.project.id)))
      void again({ project: id, ids: chosen.filter((e) => e.project.id === id).map((e) => e.id) });
    onDone();
  };
  return (
    <>
      {refused ? (
        <Refused className="flex-1" words={troubleOf(refused)} />
      ) : (
        <p className="flex-1">
          <strong className="font-semibold">
            {many(all.filter((e) => e.state === 'holds').length, 'finding')} accepted.
          </strong>{' '}
          <span className="text-ink2">
            {many(all.filter((e) => e.state === 'ended' || e.state === 'touched').length, 'other')} count again.
          </span>
        </p>
      )}
      {mayCount && (
        <Button disabled={chosen.length === 0} onClick={count}>
          Let {chosen.length > 1 ? `${chosen.length} of them` : 'it'} count again
        </Button>
      )}
    </>
  );
}

const keyOf = (e: ExceptionRow): string => `${e.project.id} ${e.id}`;

const textOf = (e: ExceptionRow): string =>
  [e.project.number, e.project.title, e.path ?? '', e.accepted.reason, e.accepted.by].join(' ');
