/**
 * Several projects from one table: each row judged as it would be alone; the good ones are made one after another, each
 * whole or not at all.
 */

import type { TemplateRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, Choose, Empty, Labelled, Lines, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { volumesApi } from '../house/volumes-api';
import { templatesApi } from '../templates/templates-api';
import { inStartOrder } from './field-order';
import type { StartRow } from './rows';
import { madeOf, type Results, type Several, useSeveral } from './use-several';

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
    <Table key={row.id} row={row} registers={registers} />
  );
}

function Table({ row, registers }: { row: TemplateRow; registers: Registers }) {
  const { data: all = [] } = volumesApi.useVolumesQuery();
  const volumes = all.filter((v) => !v.isInbox);
  const [volume, setVolume] = useState('');
  const to = volume || volumes[0]?.name || '';
  const several = useSeveral(row, registers, to);
  const { rows, results } = several;
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const columns = useMemo(() => columnsOf(results), [results]);
  const line = rows.find((r) => String(r.line) === chosen.at(-1));
  return (
    <Columns
      id="several"
      labels={['The table', 'What becomes of each line', 'The selected line']}
      given={
        <GivenTable row={row} several={several} volumes={volumes.map((v) => v.name)} volume={to} onVolume={setVolume} />
      }
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-2">
          {several.trouble !== null && <Trouble message={several.trouble} />}
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
      consequence={<SelectedRow row={line} />}
      ledger={<SeveralLedger several={several} volume={to} />}
    />
  );
}

interface GivenProps {
  readonly row: TemplateRow;
  readonly several: Several;
  readonly volumes: readonly string[];
  readonly volume: string;
  readonly onVolume: (volume: string) => void;
}

function GivenTable({ row, several: { text, type, unknown }, volumes, volume, onVolume }: GivenProps) {
  const labels = inStartOrder(row.template.fields).map((f) => f.label ?? f.key);
  return (
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
          onChange={(e) => type(e.target.value)}
          placeholder={labels.slice(0, 3).join(';')}
        />
      </Labelled>
      <Labelled id="s-volume" label="On volume">
        <Choose
          id="s-volume"
          label="On volume"
          value={volume}
          options={volumes.map((v) => ({ value: v, label: v }))}
          onChange={onVolume}
        />
      </Labelled>
      {unknown.length > 0 && <p className="text-sm text-ink2">Left out: {unknown.join(', ')}.</p>}
    </div>
  );
}

function SelectedRow({ row }: { row: StartRow | undefined }) {
  return row === undefined ? (
    <p className="text-sm text-ink2">Choose a line to see all of it.</p>
  ) : (
    <div className="flex flex-col gap-3 text-sm">
      <ul>
        {Object.entries(row.values).map(([k, v]) => (
          <li key={k} className="flex justify-between gap-3 border-b border-line py-1">
            <span className="font-semibold">{k}</span>
            <span className="min-w-0 text-right break-words">{String(v)}</span>
          </li>
        ))}
      </ul>
      {row.faults.map((f) => (
        <p key={f} className="text-brick">
          {f}
        </p>
      ))}
    </div>
  );
}

function SeveralLedger({ several: { rows, results, good, going, go }, volume }: { several: Several; volume: string }) {
  const done = Object.values(results).filter((r) => madeOf(r) !== null).length;
  return (
    <>
      <p role="status" className="flex-1">
        <strong className="font-semibold">
          {done > 0 ? `${many(done, 'project')} made.` : `Makes ${many(good.length, 'project')} on ${volume}.`}
        </strong>{' '}
        <span className="text-ink2">
          {many(rows.filter((r) => r.faults.length > 0).length, 'line')} cannot go on. Each project is made whole, or
          not at all.
        </span>
      </p>
      <Button variant="main" disabled={good.length === 0 || volume === '' || going} onClick={() => void go()}>
        {going ? 'Making them…' : `Make ${many(good.length, 'project')}`}
      </Button>
    </>
  );
}

function columnsOf(results: Results): GridColumn<StartRow>[] {
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
        const made = madeOf(results[r.line]);
        return made ? (
          <Link to={`/projects/${made.id}`} className="font-mono text-bottle hover:underline">
            {made.folder}
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
