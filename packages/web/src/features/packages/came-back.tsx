/** What came back of a package, held against what was sent: what was worked on and what is new is brought in. */
import type { PackageRow } from '@nesting/contract';
import type { ReturnedState } from '@nesting/core/package';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { count } from '../../app/words';
import { Button, Choose, Heading, Labelled, TextInput } from '../../ui';
import { volumesApi } from '../house/volumes-api';
import { packagesApi } from './packages-api';

const WORDS: Readonly<Record<ReturnedState, string>> = {
  changed: 'Worked on',
  new: 'New',
  same: 'As it was sent',
  'not-back': 'Did not come back',
};

export function CameBack({ row }: { row: PackageRow }) {
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const [volume, setVolume] = useState(row.volume);
  const [folder, setFolder] = useState('');
  const [compare, { data, error, isLoading, originalArgs }] = packagesApi.useCompareReturnedMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void compare({
      id: row.id,
      volume,
      folder: folder
        .trim()
        .replaceAll('\\', '/')
        .replace(/^\/+|\/+$/g, ''),
    });
  };
  return (
    <details>
      <summary className="cursor-pointer text-xs font-semibold text-ink2">It came back</summary>
      <form onSubmit={submit} className="flex flex-col items-start gap-2 pt-2">
        <Labelled id="back-where" label="Volume">
          <Choose
            id="back-where"
            label="Volume"
            value={volume}
            options={volumes.map(({ name }) => ({ value: name, label: name }))}
            onChange={setVolume}
          />
        </Labelled>
        <Labelled id="back-folder" label="Folder that came back">
          <TextInput id="back-folder" value={folder} onChange={(e) => setFolder(e.target.value)} />
        </Labelled>
        <Button type="submit" disabled={isLoading || folder.trim() === ''}>
          {isLoading ? 'Reading both…' : 'Compare with what was sent'}
        </Button>
        {error !== undefined && <p className="text-brick">{troubleOf(error)}</p>}
      </form>
      {data !== undefined && (
        <div className="flex flex-col gap-3 pt-3" role="status">
          {(['changed', 'new', 'not-back'] as const).map((state) => (
            <Rows key={state} state={state} all={data.counts[state]} rows={data.rows} />
          ))}
          <p className="text-ink2">
            {count(data.counts.same)} {data.counts.same === 1 ? 'is' : 'are'} as{' '}
            {data.counts.same === 1 ? 'it' : 'they'} were sent
            {data.unseen.length > 0 && `; ${count(data.unseen.length)} could not be read`}.
          </p>
          {data.counts.changed + data.counts.new > 0 && originalArgs !== undefined && (
            <Link
              to={`/projects/${row.project}/intake?${new URLSearchParams({ volume: originalArgs.volume, folder: originalArgs.folder })}`}
              className="text-bottle underline"
            >
              Bring in what was worked on and what is new
            </Link>
          )}
        </div>
      )}
    </details>
  );
}

/** Of each list. */
const MOST_SHOWN = 100;

interface RowsProps {
  readonly state: ReturnedState;
  readonly all: number;
  readonly rows: readonly {
    readonly state: ReturnedState;
    readonly sent: string | null;
    readonly back: string | null;
  }[];
}

function Rows({ state, all, rows }: RowsProps) {
  if (all === 0) return null;
  return (
    <section>
      <Heading>
        {WORDS[state]} ({count(all)})
      </Heading>
      <ul className="font-mono">
        {rows
          .filter((row) => row.state === state)
          .slice(0, MOST_SHOWN)
          .map(({ sent, back }) => (
            <li key={`${sent} ${back}`} className="break-all">
              {back ?? sent}
            </li>
          ))}
      </ul>
      {all > MOST_SHOWN && <p className="text-ink2">The first {MOST_SHOWN} are shown.</p>}
    </section>
  );
}
