/** What changes of all projects keep so that they can be undone: how much, until when; and the act that frees its space. */
import type { Me, SetAsideRow } from '@nesting/contract';
import { batchWords } from '@nesting/core/words';
import { type FormEvent, useEffect, useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, day, many, size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { FoundGrid } from '../../grid/found-grid';
import type { GridColumn } from '../../grid/grid';
import { useFound } from '../../grid/use-found';
import { Button, Heading, Labelled, Refused, TextInput, Trouble } from '../../ui';
import { changesApi } from '../batches/changes-api';
import { ChecksNav } from './checks-nav';

const COLUMNS: readonly GridColumn<SetAsideRow>[] = [
  {
    id: 'project',
    header: 'Project',
    width: '5.5rem',
    sort: (r) => r.project.number,
    cell: (r) => <span className="font-mono text-plum">{r.project.number}</span>,
  },
  { id: 'by', header: 'Whose', width: 'minmax(8rem,1fr)', sort: (r) => r.by, cell: (r) => r.by },
  { id: 'at', header: 'When', width: '6.5rem', sort: (r) => r.at, cell: (r) => ago(r.at) },
  { id: 'files', header: 'Files', width: '4rem', sort: (r) => r.files, cell: (r) => r.files },
  { id: 'bytes', header: 'Size', width: '5.5rem', sort: (r) => r.bytes, cell: (r) => size(r.bytes) },
  {
    id: 'until',
    header: 'Kept until',
    width: '8rem',
    sort: (r) => r.until ?? '9',
    cell: (r) => (r.until === null ? 'it is freed' : day(r.until)),
  },
];

const keyOf = (row: SetAsideRow): string => row.batch;
const textOf = ({ project, what, by }: SetAsideRow): string =>
  `${project.number} ${project.title} ${batchWords(what)} ${by}`;

export function SetAsidePage() {
  const me = useOutletContext<Me>();
  const { data, isError, error, refetch } = changesApi.useSetAsideQuery();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const shown = useFound(data, COLUMNS, textOf, 'bytes');
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const row = shown.rows.find((r) => r.batch === chosen.at(-1)) ?? null;
  return (
    <Columns
      id="checks"
      labels={['Checks', 'Set aside', 'The selected one']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <p className="text-sm text-ink2">
            Whatever a change takes away is kept in its project’s own folder, and comes back when the change is undone.
            Nothing is deleted but here.
          </p>
        </div>
      }
      plan={
        <FoundGrid
          id="set-aside"
          title="Set aside"
          findWords="Find what is set aside"
          columns={COLUMNS}
          found={shown}
          keyOf={keyOf}
          chosen={chosen}
          onChoose={setChosen}
          empty="No change keeps anything."
        />
      }
      consequence={row && <Kept row={row} mayFree={me.role === 'coordinator'} onDone={() => setChosen([])} />}
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">{sumWords(data)}</strong>
        </p>
      }
    />
  );
}

function sumWords(rows: readonly SetAsideRow[]): string {
  if (rows.length === 0) return 'Nothing is set aside.';
  const files = rows.reduce((n, r) => n + r.files, 0);
  return `${many(files, 'file')} of ${size(rows.reduce((n, r) => n + r.bytes, 0))}, by ${many(rows.length, 'change')}.`;
}

interface KeptProps {
  readonly row: SetAsideRow;
  readonly mayFree: boolean;
  readonly onDone: () => void;
}

function Kept({ row, mayFree, onDone }: KeptProps) {
  const { project, batch, files, bytes, until } = row;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{project.title}</Heading>
        <p>
          {batchWords(row.what)}: {many(files, 'file')} of {size(bytes)}, kept in{' '}
          <span className="font-mono wrap-anywhere">.nesting/batches/{batch}/kept</span> in the project’s folder
          {until === null ? '.' : `, until ${day(until)} at the longest.`}
        </p>
        <Link to={`/projects/${project.id}/batches?batch=${batch}`} className="text-bottle hover:underline">
          Its lines, and undoing it
        </Link>
      </div>
      {mayFree && <Free key={batch} row={row} onDone={onDone} />}
    </div>
  );
}

/** What it deletes is said, and the project's number asked for: nothing brings it back. */
function Free({ row: { project, batch, files, bytes }, onDone }: Omit<KeptProps, 'mayFree'>) {
  const [free, freeing] = changesApi.useFreeSetAsideMutation();
  const [number, setNumber] = useState('');
  useEffect(() => setNumber(''), [batch]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const done = await free({ project: project.id, batch, number });
    if (done.error === undefined) onDone();
  };
  return (
    <form className="flex flex-col gap-2 border-t border-line pt-4" onSubmit={(e) => void submit(e)}>
      <Heading>Free its space</Heading>
      <p className="text-ink2">
        Deletes {many(files, 'file')} of {size(bytes)} for good. The change cannot be undone any more.
      </p>
      <Labelled id="free-number" label={`Write ${project.number} to say that you mean it`}>
        <TextInput
          id="free-number"
          value={number}
          autoComplete="off"
          className="font-mono"
          onChange={(e) => setNumber(e.target.value)}
        />
      </Labelled>
      <Button type="submit" className="self-start" disabled={number.trim() !== project.number || freeing.isLoading}>
        {freeing.isLoading ? 'Freeing…' : `Free ${size(bytes)}`}
      </Button>
      <Refused words={freeing.isError ? troubleOf(freeing.error) : null} />
    </form>
  );
}
