/**
 * How projects are numbered: the pattern and its count, what comes next, what is reserved, and what became of every
 * number.
 */

import type { Me, NumberLine } from '@nesting/contract';
import { present } from '@nesting/core';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Choose, Trouble } from '../../ui';
import { HouseNav } from './house-nav';
import { NumberSeriesForm } from './number-series';
import { numbersApi } from './numbers-api';
import { ReservedNumbers } from './reserved-numbers';

/** What became of a number, in words. */
export function lineWords(l: NumberLine): string {
  const by = l.by ? ` by ${l.by}` : '';
  switch (l.state) {
    case 'project':
      return l.project?.folder ?? '';
    case 'reserved':
      return `reserved: ${l.why}`;
    case 'held':
      return `held for ${l.by ?? 'somebody'} just now`;
    case 'unexplained':
      return 'never given out here: older than this list, or of a project that is kept elsewhere';
    case 'free':
      switch (l.what) {
        case 'given-back':
          return `given back${by}: offered again`;
        case 'expired':
          return `was held${by} and left: offered again`;
        case 'freed':
          return `${l.why}: offered again`;
        case 'released':
          return `no longer reserved: offered again`;
        case 'passed-over':
          return `passed over by ${l.why}${by.replace('by', 'of')}`;
        default:
          return 'free';
      }
  }
}

const COLUMNS: readonly GridColumn<NumberLine>[] = [
  {
    id: 'number',
    header: 'Number',
    width: '6rem',
    cell: (l) => <span className="font-mono text-plum">{l.number}</span>,
  },
  {
    id: 'state',
    header: 'It is',
    width: '5rem',
    cell: (l) => (l.state === 'project' ? 'a project' : l.state === 'unexplained' ? 'a gap' : l.state),
  },
  {
    id: 'what',
    header: 'What became of it',
    width: 'minmax(12rem,1fr)',
    cell: (l) =>
      l.project ? (
        <Link to={`/projects/${l.project.id}`} className="font-mono hover:underline">
          {l.project.folder}
        </Link>
      ) : (
        <span title={lineWords(l)}>{lineWords(l)}</span>
      ),
  },
  { id: 'at', header: 'When', width: '7.5rem', cell: (l) => (l.at ? ago(l.at) : '') },
];

export function NumbersPage() {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const { data, isError, error, refetch } = numbersApi.useNumbersQuery(params.get('scope'), {
    pollingInterval: 30_000,
  });
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const chosen = params.get('number') === null ? [] : [present(params.get('number'))];
  const gaps = data.lines.filter((l) => l.state !== 'project').length;
  return (
    <Columns
      id="house"
      labels={['The house’s lists', 'Project numbers', 'How they are made']}
      given={
        <div className="flex flex-col gap-4">
          <HouseNav />
          <p className="text-sm text-ink2">
            The next number is held while somebody fills in a start, and given back when they leave. No number is given
            twice.
          </p>
        </div>
      }
      plan={
        <>
          <div className="flex flex-wrap items-center gap-3 pb-2">
            <h1 className="mr-auto text-xl font-semibold">Project numbers</h1>
            {data.scopes.length > 1 && (
              <div className="w-40">
                <Choose
                  label="Counted together"
                  value={data.scope}
                  options={data.scopes.map((s) => ({ value: s, label: s === '' ? 'all' : s }))}
                  onChange={(scope) => put({ scope })}
                />
              </div>
            )}
          </div>
          <Grid
            id="numbers"
            label="Numbers"
            columns={COLUMNS}
            rows={data.lines}
            keyOf={(l) => l.number}
            chosen={chosen}
            onChoose={(keys) => put({ number: keys.at(-1) ?? null })}
            empty="No number was given out yet."
          />
        </>
      }
      consequence={
        <div className="flex flex-col gap-6">
          <NumberSeriesForm key={data.version} page={data} mayWrite={me.role === 'coordinator'} />
          <ReservedNumbers page={data} mayWrite={me.role === 'coordinator'} />
        </div>
      }
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">
            {data.next === null ? (
              'The next number needs more to be known.'
            ) : (
              <>
                Next: <span className="font-mono">{data.next}</span>
              </>
            )}
          </strong>{' '}
          <span className="text-ink2">
            {many(data.lines.length, 'number')} counted,{' '}
            {gaps === 0 ? 'none without a project' : `${gaps} without a project`}.
          </span>
        </p>
      }
    />
  );
}
