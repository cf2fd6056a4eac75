/**
 * Several projects from one table: each row judged as it would be alone; the good ones are made one after another, each
 * whole or not at all.
 */

import type { Hold, ProjectRow, TemplateRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { compileTemplate } from '@nesting/core/template';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useDebounced } from '../../app/use-debounced';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, Choose, Empty, Labelled, Lines, Trouble } from '../../ui';
import { readTable } from '../../workers/table';
import { houseApi } from '../house/house-api';
import { numbersApi } from '../house/numbers-api';
import { volumesApi } from '../house/volumes-api';
import { templatesApi } from '../templates/templates-api';
import { type StartRow, startRows } from './rows';
import { startsApi } from './starts-api';

export function SeveralPage() {
  const { data: templates } = templatesApi.useTemplatesQuery();
  const { data: registers } = houseApi.useRegistersQuery();
  const [params] = useSearchParams();
  if (templates === undefined || registers === undefined) return null;
  const row =
    templates.find((t) => t.id === params.get('template') && t.edition > 0) ?? templates.find((t) => t.edition > 0);
  return row === undefined ? (
    <Empty title="No template to start from">A coordinator writes one first.</Empty>
  ) : (
    <Several key={row.id} row={row} registers={registers} />
  );
}

type RowResult = { readonly made: ProjectRow } | { readonly trouble: string } | 'making';

function Several({ row, registers }: { row: TemplateRow; registers: Registers }) {
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const [text, setText] = useState('');
  const [volume, setVolume] = useState('');
  const [results, setResults] = useState<Readonly<Record<number, RowResult>>>({});
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [going, setGoing] = useState(false);
  const [hold] = numbersApi.useHoldNumberMutation();
  const [giveBack] = numbersApi.useGiveBackNumberMutation();
  const [start] = startsApi.useStartProjectMutation();
  const to = volume || volumes[0]?.name || '';
  const expander = useMemo(() => compileTemplate(row.template, registers), [row.template, registers]);
  const late = useDebounced(text, 150);
  const table = useMemo(() => (late.trim() === '' ? null : readTable(new TextEncoder().encode(late))), [late]);
  const { rows, unknown, fault } = useMemo(
    () => (table === null ? { rows: [], unknown: [], fault: null } : startRows(expander, row.template, table.cells)),
    [expander, row.template, table],
  );
  const good = rows.filter(
    (r) =>
      r.faults.length === 0 &&
      !(results[r.line] && typeof results[r.line] === 'object' && 'made' in (results[r.line] as object)),
  );
  const columns = useMemo(() => columnsOf(results), [results]);
  const line = rows.find((r) => String(r.line) === chosen.at(-1));
  const note = (of: StartRow, result: RowResult) => setResults((before) => ({ ...before, [of.line]: result }));
  const go = async () => {
    setGoing(true);
    for (const one of good) {
      note(one, 'making');
      const by =
        typeof one.values.number === 'string'
          ? null
          : await hold({
              year: new Date().getFullYear(),
              month: new Date().getMonth() + 1,
              client: typeof one.values.client === 'string' ? one.values.client : null,
              template: row.id,
            });
      if (by?.error) {
        note(one, { trouble: troubleOf(by.error) });
        continue;
      }
      const number = by === null ? String(one.values.number) : (by.data as Hold).number;
      const made = await start({
        template: row.id,
        edition: row.edition,
        volume: to,
        values: { ...one.values, number },
      });
      if (made.data) note(one, { made: made.data });
      else {
        note(one, { trouble: troubleOf(made.error) });
        if (by !== null) await giveBack(number);
      }
    }
    setGoing(false);
  };
  const done = Object.values(results).filter((r) => typeof r === 'object' && 'made' in r).length;
  const labels = [...row.template.fields.map((f) => f.label ?? f.key)];
  return (
    <Columns
      id="several"
      labels={['The table', 'What becomes of each line', 'The selected line']}
      given={
        <div className="flex flex-col gap-3">
          <Link to={`/start?template=${row.id}`} className="text-sm text-bottle hover:underline">
            One at a time
          </Link>
          <h1 className="text-xl font-semibold">Several at once</h1>
          <Labelled
            id="s-table"
            label={`A table for ${row.name}`}
            help={`The first line names the columns: ${labels.join(', ')}; Number, where it is written by hand.`}
          >
            <Lines
              id="s-table"
              rows={14}
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                setResults({});
              }}
              placeholder={labels.slice(0, 3).join(';')}
            />
          </Labelled>
          <Labelled id="s-volume" label="On volume">
            <Choose
              id="s-volume"
              label="On volume"
              value={to}
              options={volumes.map((v) => ({ value: v.name, label: v.name }))}
              onChange={setVolume}
            />
          </Labelled>
          {unknown.length > 0 && <p className="text-sm text-ink2">Left out: {unknown.join(', ')}.</p>}
        </div>
      }
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-2">
          {(fault !== null || (late.trim() !== '' && table === null)) && (
            <Trouble message={fault ?? 'This is no table that can be read.'} />
          )}
          <Grid
            id="several"
            label="Lines of the table"
            columns={columns}
            rows={rows}
            keyOf={(r) => String(r.line)}
            chosen={chosen}
            onChoose={setChosen}
            empty="Paste a table at the left: a line for each project."
          />
        </div>
      }
      consequence={
        line === undefined ? (
          <p className="text-sm text-ink2">Choose a line to see all of it.</p>
        ) : (
          <div className="flex flex-col gap-3 text-sm">
            <ul>
              {Object.entries(line.values).map(([k, v]) => (
                <li key={k} className="flex justify-between gap-3 border-b border-line py-1">
                  <span className="font-semibold">{k}</span>
                  <span className="min-w-0 text-right break-words">{String(v)}</span>
                </li>
              ))}
            </ul>
            {line.faults.map((f) => (
              <p key={f} className="text-brick">
                {f}
              </p>
            ))}
          </div>
        )
      }
      ledger={
        <>
          <p role="status" className="flex-1">
            <strong className="font-semibold">
              {done > 0 ? `${many(done, 'project')} made.` : `Makes ${many(good.length, 'project')} on ${to}.`}
            </strong>{' '}
            <span className="text-ink2">
              {many(rows.filter((r) => r.faults.length > 0).length, 'line')} cannot go on. Each project is made whole,
              or not at all.
            </span>
          </p>
          <Button look="main" disabled={good.length === 0 || to === '' || going} onClick={() => void go()}>
            {going ? 'Making them…' : `Make ${many(good.length, 'project')}`}
          </Button>
        </>
      }
    />
  );
}

function columnsOf(results: Readonly<Record<number, RowResult>>): GridColumn<StartRow>[] {
  const said = (r: StartRow): string => {
    const result = results[r.line];
    if (result === 'making') return 'being made…';
    if (result !== undefined) return 'made' in result ? result.made.folder : result.trouble;
    return r.faults[0] ?? `${many(r.folders, 'folder')} to be made`;
  };
  const bad = (r: StartRow): boolean => {
    const result = results[r.line];
    return result === undefined ? r.faults.length > 0 : typeof result === 'object' && 'trouble' in result;
  };
  return [
    { id: 'line', header: 'Line', width: '3.5rem', cell: (r) => <span className="font-mono text-note">{r.line}</span> },
    {
      id: 'title',
      header: 'Title',
      width: 'minmax(8rem,1fr)',
      cell: (r) => <span className="font-semibold">{r.title}</span>,
    },
    {
      id: 'said',
      header: 'What becomes of it',
      width: 'minmax(12rem,2fr)',
      cell: (r) => {
        const result = results[r.line];
        return typeof result === 'object' && 'made' in result ? (
          <Link to={`/projects/${result.made.id}`} className="font-mono text-bottle hover:underline">
            {result.made.folder}
          </Link>
        ) : (
          <span title={said(r)} className={bad(r) ? 'text-brick' : 'text-ink2'}>
            {said(r)}
          </span>
        );
      },
    },
  ];
}
