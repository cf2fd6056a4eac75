/**
 * All projects at a glance: how findings went, what they come from, where the bytes are, what could be cleared, what
 * was not looked at.
 */

import type { Me, Overview } from '@nesting/contract';
import { present } from '@nesting/core';
import { RULE_WORDS } from '@nesting/core/words';
import { useCallback, useMemo } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, count, many, size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Empty, Heading, Trouble } from '../../ui';
import { Chart, type Drawn } from './chart';
import { checksApi } from './checks-api';
import { ChecksNav } from './checks-nav';

const FAMILY_DYES = [
  'bottle',
  'plum',
  'slate',
  'mark-clay',
  'mark-straw',
  'mark-teal',
  'mark-rose',
  'mark-moss',
] as const;

export function OverviewPage() {
  const me = useOutletContext<Me>();
  const { data, isError, error, refetch } = checksApi.useOverviewQuery(undefined, { skip: me.role === 'artist' });
  if (me.role === 'artist')
    return <Empty title="This is for who coordinates or leads">What is yours stands under Mine.</Empty>;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const today = data.days.at(-1);
  const bytes = data.sizes.reduce((n, s) => n + s.bytes, 0);
  return (
    <Columns
      id="checks"
      labels={['Checks', 'All projects', 'What needs a hand']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <p className="text-sm text-ink2">The last check of each project counts. What was accepted is left out.</p>
        </div>
      }
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-5 overflow-auto pr-2">
          <h1 className="text-xl font-semibold">All projects</h1>
          <FindingsOverTime days={data.days} />
          <Sizes sizes={data.sizes} />
        </div>
      }
      consequence={<Hands overview={data} />}
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">
            {today ? many(today.must + today.should + today.note, 'finding') : 'No check yet'}.
          </strong>{' '}
          <span className="text-ink2">
            {size(bytes)} in all; {many(data.unchecked.length, 'project')} not checked for a week.
          </span>
        </p>
      }
    />
  );
}

function FindingsOverTime({ days }: { days: Overview['days'] }) {
  const draw = useCallback(
    (colour: (name: string) => string): Drawn => ({
      data: (
        [
          ['note', 'slate', 'note'],
          ['should', 'ochre', 'should'],
          ['must', 'brick', 'must'],
        ] as const
      ).map(([key, dye, name]) => ({
        type: 'scatter',
        mode: 'lines',
        stackgroup: 'all',
        name,
        x: days.map((d) => d.at),
        y: days.map((d) => d[key]),
        line: { width: 1, color: colour(dye), shape: 'hv' },
        fillcolor: `${colour(dye)}55`,
        hovertemplate: `%{y} ${name}<extra></extra>`,
      })),
      layout: {
        hovermode: 'x unified',
        yaxis: { rangemode: 'tozero', gridcolor: colour('line'), automargin: true, fixedrange: true },
        xaxis: { type: 'date', gridcolor: colour('line'), automargin: true, fixedrange: true },
      },
    }),
    [days],
  );
  const [first, last] = [days[0], days.at(-1)];
  const sum = (d: Overview['days'][number] | undefined) => (d === undefined ? 0 : d.must + d.should + d.note);
  return (
    <section className="flex flex-col gap-1">
      <Heading>Findings over time, by weight</Heading>
      <p className="text-sm text-ink2">
        {first && last
          ? `${count(sum(last))} today: ${last.must} must, ${last.should} should, ${last.note} note. ${count(sum(first))} on ${first.at}.`
          : 'Nothing was checked yet.'}
      </p>
      {days.length > 1 && <Chart label="Findings over time by weight, stacked" height={190} draw={draw} />}
    </section>
  );
}

/** The largest projects, each a bar of its families. */
const BARS = 12;

function Sizes({ sizes }: { sizes: Overview['sizes'] }) {
  const { projects, families } = useMemo(() => {
    const by = new Map<string, number>();
    for (const s of sizes) by.set(`${s.number} ${s.title}`, (by.get(`${s.number} ${s.title}`) ?? 0) + s.bytes);
    const kinds = new Map<string, number>();
    for (const s of sizes) kinds.set(s.family, (kinds.get(s.family) ?? 0) + s.bytes);
    return {
      projects: [...by]
        .sort((a, b) => b[1] - a[1])
        .slice(0, BARS)
        .reverse(),
      families: [...kinds].sort((a, b) => b[1] - a[1]).map(([name]) => name),
    };
  }, [sizes]);
  const draw = useCallback(
    (colour: (name: string) => string): Drawn => ({
      data: families.map((family, i) => {
        const of = (label: string) =>
          sizes
            .filter((s) => `${s.number} ${s.title}` === label && s.family === family)
            .reduce((n, s) => n + s.bytes, 0);
        return {
          type: 'bar',
          orientation: 'h',
          name: family || 'other files',
          x: projects.map(([label]) => of(label)),
          y: projects.map(([label]) => label),
          marker: {
            color: colour(present(FAMILY_DYES[i % FAMILY_DYES.length])),
            line: { color: colour('paper'), width: 1 },
          },
          customdata: projects.map(([label]) => size(of(label))),
          hovertemplate: `%{customdata} ${family || 'other files'}<extra></extra>`,
        };
      }),
      layout: {
        barmode: 'stack',
        bargap: 0.35,
        showlegend: true,
        legend: { orientation: 'h', y: -0.18, traceorder: 'normal' },
        xaxis: { showticklabels: false, gridcolor: colour('line'), zerolinecolor: colour('rule'), fixedrange: true },
        yaxis: { automargin: true, fixedrange: true, ticklabelstandoff: 6 },
      },
    }),
    [families, projects, sizes],
  );
  return (
    <section className="flex flex-col gap-1">
      <Heading>Where the bytes are, by family of files</Heading>
      {projects.length === 0 ? (
        <p className="text-sm text-ink2">Nothing was checked yet.</p>
      ) : (
        <>
          <p className="text-sm text-ink2">
            {[...projects]
              .reverse()
              .slice(0, 3)
              .map(([label, bytes]) => `${label}: ${size(bytes)}`)
              .join('; ')}
            .
          </p>
          <Chart label="Bytes by project and family of files" height={90 + projects.length * 26} draw={draw} />
        </>
      )}
    </section>
  );
}

function Hands({ overview }: { overview: Overview }) {
  return (
    <div className="flex flex-col gap-6">
      <section className="flex flex-col gap-1">
        <Heading>What it comes from</Heading>
        <ul className="text-sm">
          {overview.causes.slice(0, 12).map((c) => (
            <li key={c.rule} className="flex gap-3 border-b border-line py-1">
              <Link to={`/checks/repair?rule=${c.rule}`} className="min-w-0 flex-1 hover:underline">
                {RULE_WORDS[c.rule].title}
              </Link>
              <span className="text-ink2">{many(c.projects, 'project')}</span>
              <span className="w-10 text-right tabular-nums">{count(c.count)}</span>
            </li>
          ))}
        </ul>
        {overview.causes.length === 0 && <p className="text-sm text-bottle">All in order.</p>}
      </section>
      <section className="flex flex-col gap-1">
        <Heading>Generated files that could be cleared</Heading>
        <ul className="text-sm">
          {overview.clearable.map((c) => (
            <li key={c.project} className="flex gap-3 border-b border-line py-1">
              <Link to={`/projects/${c.project}?view=folders`} className="min-w-0 flex-1 truncate hover:underline">
                <span className="font-mono text-plum">{c.number}</span> {c.title}
              </Link>
              <span className="tabular-nums">{size(c.bytes)}</span>
            </li>
          ))}
        </ul>
        {overview.clearable.length === 0 && <p className="text-sm text-ink2">None.</p>}
      </section>
      <section className="flex flex-col gap-1">
        <Heading>Not checked for a week</Heading>
        <ul className="text-sm">
          {overview.unchecked.map((u) => (
            <li key={u.project} className="flex gap-3 border-b border-line py-1">
              <Link to={`/projects/${u.project}`} className="min-w-0 flex-1 truncate hover:underline">
                <span className="font-mono text-plum">{u.number}</span> {u.title}
              </Link>
              <span className="text-ink2">{u.at === null ? 'never' : ago(u.at)}</span>
            </li>
          ))}
        </ul>
        {overview.unchecked.length === 0 && <p className="text-sm text-bottle">All were.</p>}
      </section>
    </div>
  );
}
