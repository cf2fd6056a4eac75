/**
 * How projects are numbered: the pattern and its count, what comes next, what is reserved, and what became of every
 * number.
 */

import type { Me, NumberLine, NumberPage } from '@nesting/contract';
import { compileSeries, type NumberSeries, RESETS, type Reset } from '@nesting/core/numbers';
import { wordsFor } from '@nesting/core/words';
import { useId, useMemo, useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, Choose, Confirm, Heading, Labelled, TextInput, Trouble } from '../../ui';
import { templatesApi } from '../templates/templates-api';
import { houseApi } from './house-api';
import { HouseNav } from './house-nav';
import { numbersApi } from './numbers-api';

const RESET_WORDS: Readonly<Record<Reset, string>> = {
  never: 'never',
  yearly: 'each year',
  monthly: 'each month',
  client: 'for each client',
  'client-yearly': 'for each client, each year',
};

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
  const chosen = params.get('number') === null ? [] : [params.get('number') as string];
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
          <Series key={data.version} page={data} mayWrite={me.role === 'coordinator'} />
          <Reserved page={data} mayWrite={me.role === 'coordinator'} />
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

function Series({ page, mayWrite }: { page: NumberPage; mayWrite: boolean }) {
  const id = useId();
  const { data: templates = [] } = templatesApi.useTemplatesQuery();
  const { data: registers } = houseApi.useRegistersQuery();
  const [series, setSeries] = useState<NumberSeries>(page.series);
  const [save, { error }] = numbersApi.useSaveSeriesMutation();
  const made = useMemo(() => compileSeries(series), [series]);
  const now = new Date();
  const sample = made.ok
    ? made.value.write(
        {
          year: now.getFullYear(),
          month: now.getMonth() + 1,
          client: registers?.clients[0]?.code ?? 'ABC',
          template: Object.keys(series.kinds)[0] ?? templates[0]?.id ?? null,
        },
        series.start,
      )
    : null;
  const dirty = JSON.stringify(series) !== JSON.stringify(page.series);
  return (
    <section aria-label="How numbers are made" className="flex flex-col gap-3">
      <Heading>How they are made</Heading>
      <Labelled id={`${id}p`} label="Pattern" help="{year} {yy} {month} {client} {kind} and the count, {n:000}">
        <TextInput
          id={`${id}p`}
          value={series.pattern}
          readOnly={!mayWrite}
          fault={!made.ok}
          onChange={(e) => setSeries({ ...series, pattern: e.target.value })}
          className="font-mono"
          spellCheck={false}
          becomes={sample?.ok ? sample.value : undefined}
        />
      </Labelled>
      {!made.ok && (
        <ul className="text-sm text-brick">
          {made.faults.map((f) => (
            <li key={JSON.stringify(f)}>{wordsFor(f.code, { ...f } as Record<string, string>)}</li>
          ))}
        </ul>
      )}
      {sample !== null && !sample.ok && (
        <p className="text-sm text-ochre">
          {wordsFor(sample.faults[0]?.code ?? '', { ...sample.faults[0] } as Record<string, string>)}
        </p>
      )}
      <div className="grid grid-cols-2 gap-3">
        <Labelled id={`${id}r`} label="The count begins anew">
          <Choose
            id={`${id}r`}
            label="The count begins anew"
            disabled={!mayWrite}
            value={series.reset}
            options={RESETS.map((value) => ({ value, label: RESET_WORDS[value] }))}
            onChange={(reset) => setSeries({ ...series, reset: reset as Reset })}
          />
        </Labelled>
        <Labelled id={`${id}s`} label="From">
          <TextInput
            id={`${id}s`}
            type="number"
            min={0}
            max={1_000_000}
            readOnly={!mayWrite}
            value={series.start}
            onChange={(e) =>
              setSeries({ ...series, start: Math.max(0, Math.min(1_000_000, Math.floor(Number(e.target.value)))) })
            }
          />
        </Labelled>
      </div>
      {series.pattern.includes('{kind}') &&
        templates.map((t) => (
          <Labelled key={t.id} id={`${id}${t.id}`} label={`Kind: ${t.name}`}>
            <TextInput
              id={`${id}${t.id}`}
              value={series.kinds[t.id] ?? ''}
              readOnly={!mayWrite}
              maxLength={12}
              onChange={(e) =>
                setSeries({
                  ...series,
                  kinds: withKind(series.kinds, t.id, e.target.value.replace(/[^A-Za-z0-9-]/g, '')),
                })
              }
              className="font-mono"
            />
          </Labelled>
        ))}
      {error && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(error)}
        </p>
      )}
      {mayWrite && dirty && (
        <span className="flex gap-3">
          <Confirm
            trigger={
              <Button look="main" disabled={!made.ok}>
                Number so from now on…
              </Button>
            }
            title="Number projects so from now on?"
            act="Number so from now on"
            run={() => void save({ series, version: page.version })}
          >
            Projects keep the numbers they have. The next one would be{' '}
            <span className="font-mono">{sample?.ok ? sample.value : '…'}</span> or the first that is free after it.
          </Confirm>
          <Button onClick={() => setSeries(page.series)}>Leave it as it was</Button>
        </span>
      )}
    </section>
  );
}

function withKind(kinds: NumberSeries['kinds'], template: string, code: string): NumberSeries['kinds'] {
  const { [template]: _old, ...others } = kinds;
  return code === '' ? others : { ...others, [template]: code };
}

function Reserved({ page, mayWrite }: { page: NumberPage; mayWrite: boolean }) {
  const id = useId();
  const [number, setNumber] = useState('');
  const [why, setWhy] = useState('');
  const [reserve, { error }] = numbersApi.useReserveNumberMutation();
  const [release] = numbersApi.useReleaseNumberMutation();
  const keep = async () => {
    const done = await reserve({ number: number.trim(), why: why.trim() });
    if ('error' in done) return;
    setNumber('');
    setWhy('');
  };
  return (
    <section aria-label="Reserved numbers" className="flex flex-col gap-2 text-sm">
      <Heading>Reserved</Heading>
      {page.reserved.length === 0 && (
        <p className="text-ink2">None. A number can be kept for a job that is only talked about.</p>
      )}
      <ul>
        {page.reserved.map((r) => (
          <li key={r.number} className="flex items-baseline gap-2 border-b border-line py-1">
            <span className="font-mono text-plum">{r.number}</span>
            <span className="min-w-0 flex-1 break-words">
              {r.why} <span className="text-xs text-ink2">{r.by}</span>
            </span>
            {mayWrite && (
              <Button
                look="quiet"
                className="h-5!"
                aria-label={`Release ${r.number}`}
                onClick={() => void release(r.number)}
              >
                Release
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayWrite && (
        <form
          className="flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            void keep();
          }}
        >
          <div className="grid grid-cols-[7rem_1fr] gap-2">
            <Labelled id={`${id}n`} label="Number">
              <TextInput
                id={`${id}n`}
                value={number}
                maxLength={60}
                onChange={(e) => setNumber(e.target.value)}
                className="font-mono"
              />
            </Labelled>
            <Labelled id={`${id}w`} label="For what">
              <TextInput id={`${id}w`} value={why} maxLength={200} onChange={(e) => setWhy(e.target.value)} />
            </Labelled>
          </div>
          {error && (
            <p role="alert" className="text-brick">
              {troubleOf(error)}
            </p>
          )}
          <Button type="submit" className="self-start" disabled={number.trim() === '' || why.trim() === ''}>
            Reserve it
          </Button>
        </form>
      )}
    </section>
  );
}
