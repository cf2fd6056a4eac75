/**
 * Volumes the server's configuration allows: free space, how each system sees them, and projects that lie elsewhere
 * than they should.
 */

import type { FoundProject, Me, VolumeRow } from '@nesting/contract';
import { unreadWords } from '@nesting/core/words';
import { useId, useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { many, size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, Choose, Confirm, Heading, Labelled, Refused, TextInput, Tick, Trouble } from '../../ui';
import { intakeApi } from '../intake/intake-api';
import { HouseNav } from './house-nav';
import { volumesApi } from './volumes-api';

const STATE_WORDS: Readonly<Record<VolumeRow['state'], string>> = {
  ready: 'can be written',
  'read-only': 'read-only',
  missing: 'cannot be reached',
  new: 'not taken up yet',
  other: 'not that volume',
};

const COLUMNS: readonly GridColumn<VolumeRow>[] = [
  {
    id: 'name',
    header: 'Volume',
    width: 'minmax(8rem,1fr)',
    cell: (v) => <span className="font-mono font-semibold">{v.name}</span>,
  },
  {
    id: 'state',
    header: 'State',
    width: '9rem',
    cell: (v) => <span className={v.state === 'ready' ? '' : 'font-semibold text-brick'}>{STATE_WORDS[v.state]}</span>,
  },
  { id: 'free', header: 'Free', width: '6rem', cell: (v) => (v.freeBytes === null ? '' : size(v.freeBytes)) },
  { id: 'projects', header: 'Projects', width: '5rem', cell: (v) => String(v.projects) },
  {
    id: 'root',
    header: 'On the server',
    width: 'minmax(10rem,1fr)',
    cell: (v) => (
      <span className="font-mono text-xs" title={v.root}>
        {v.root}
      </span>
    ),
    hidden: true,
  },
];

export function VolumesPage() {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const { data, isError, error, refetch } = volumesApi.useVolumesQuery(undefined, { pollingInterval: 30_000 });
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const volume = data.find((v) => v.name === params.get('volume')) ?? data[0];
  return (
    <Columns
      id="house"
      labels={['The house’s lists', 'Volumes', 'The selected volume']}
      given={
        <div className="flex flex-col gap-4">
          <HouseNav />
          <p className="text-sm text-ink2">
            Which folders are volumes is said in the server’s configuration alone; nothing outside them is read or
            written.
          </p>
        </div>
      }
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-4">
          <h1 className="text-xl font-semibold">Volumes</h1>
          <div className="flex h-48 shrink-0 flex-col">
            <Grid
              id="volumes"
              label="Volumes"
              columns={COLUMNS}
              rows={data}
              keyOf={(v) => v.name}
              chosen={volume === undefined ? [] : [volume.name]}
              onChoose={(keys) => put({ volume: keys.at(-1) ?? null })}
              empty="No volume is configured."
            />
          </div>
          {me.role === 'coordinator' && <ProjectsThatMoved />}
        </div>
      }
      consequence={
        volume && (
          <div className="flex flex-col gap-5">
            <TakeUp volume={volume} mayWrite={me.role === 'coordinator'} />
            <Arriving volume={volume} mayWrite={me.role === 'coordinator'} />
            <SecondCopies volume={volume} volumes={data} mayWrite={me.role === 'coordinator'} />
            <PrefixForm key={volume.name} volume={volume} mayWrite={me.role === 'coordinator'} />
          </div>
        )
      }
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">{many(data.length, 'volume')}.</strong>{' '}
          <span className="text-ink2">
            {data.every((v) => v.state === 'ready')
              ? 'All can be written.'
              : `${many(data.filter((v) => v.state !== 'ready').length, 'volume')} cannot be written just now.`}{' '}
            Linking a project again touches no file.
          </span>
        </p>
      }
    />
  );
}

function ProjectsThatMoved() {
  const [find, finding] = volumesApi.useLazyFoundProjectsQuery();
  return (
    <section aria-label="Projects that moved" className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto">
      <div className="flex items-center gap-3">
        <Heading>Projects that moved</Heading>
        <Button disabled={finding.isFetching} onClick={() => void find()}>
          {finding.isFetching ? 'Looking…' : 'Look for them'}
        </Button>
      </div>
      {finding.isError && <Trouble message={troubleOf(finding.error)} />}
      <p className="text-sm text-ink2">
        {finding.data === undefined
          ? 'Each project’s folder carries a marker: one that was moved or renamed by hand is known by it, three folders deep on every volume.'
          : finding.data.length === 0
            ? 'Every project lies where it should.'
            : ''}
      </p>
      <ul className="flex flex-col gap-2">
        {finding.data?.map((f) => (
          <Found key={f.project} found={f} onDone={() => void find()} />
        ))}
      </ul>
    </section>
  );
}

const FOUND_WORDS: Readonly<Record<FoundProject['state'], string>> = {
  moved: 'was moved',
  copied: 'lies in its place, and copies of it elsewhere',
  missing: 'is nowhere on the volumes that can be reached',
  unread: 'has a marker that cannot be read',
};

function Found({ found, onDone }: { found: FoundProject; onDone: () => void }) {
  const [relink, { error }] = volumesApi.useRelinkMutation();
  return (
    <li className="rounded-tray border border-line bg-sheet p-2 text-sm">
      <p>
        <span className="font-mono text-plum">{found.number}</span>{' '}
        <strong className="font-semibold">{found.title}</strong> {FOUND_WORDS[found.state]}
        {found.why !== undefined && `: ${unreadWords(found.why)}`}.
      </p>
      <p className="font-mono text-xs break-all text-ink2">
        {found.was.volume}/{found.was.folder}
      </p>
      {found.state === 'copied' && (
        <Link to={`/projects/${found.project}/copies`} className="text-bottle hover:underline">
          Look at them side by side…
        </Link>
      )}
      {found.places.map((p) => (
        <p key={`${p.volume}/${p.folder}`} className="flex items-baseline gap-2">
          <span className="min-w-0 flex-1 font-mono text-xs break-all">
            → {p.volume}/{p.folder}
          </span>
          {found.state === 'moved' && (
            <Button
              variant="quiet"
              className="h-5!"
              onClick={() => void relink({ project: found.project, ...p }).then((r) => 'error' in r || onDone())}
            >
              It is there now
            </Button>
          )}
        </p>
      ))}
      <Refused words={error && troubleOf(error)} />
    </li>
  );
}

/** Projects are not started where loose material arrives. */
function Arriving({ volume, mayWrite }: { volume: VolumeRow; mayWrite: boolean }) {
  const [save, { error, isLoading }] = intakeApi.useSaveInboxMutation();
  return (
    <div className="flex flex-col gap-1 text-sm">
      <Tick
        label="Loose material arrives here"
        checked={volume.isInbox}
        disabled={!mayWrite || isLoading}
        onChange={(isInbox) => void save({ volume: volume.name, isInbox })}
      />
      <p className="text-ink2">
        {volume.isInbox
          ? 'What lies here is offered under Files, Bring in. No project is started here.'
          : 'Cards, downloads and heaps: what lies here would be offered under Files, Bring in.'}
      </p>
      <Refused words={error && troubleOf(error)} />
    </div>
  );
}

/** No volume can be called so. */
const NOWHERE = '/none';

/** Two verified targets at once: a card may be erased only when its material stands in two places. */
function SecondCopies({
  volume,
  volumes,
  mayWrite,
}: {
  volume: VolumeRow;
  volumes: readonly VolumeRow[];
  mayWrite: boolean;
}) {
  const id = useId();
  const [save, { error, isLoading }] = intakeApi.useSaveDoubleMutation();
  if (volume.isInbox) return null;
  const others = volumes.filter(({ name, isInbox }) => name !== volume.name && !isInbox);
  return (
    <div className="flex flex-col gap-1 text-sm">
      <Labelled id={id} label="A second copy of what is brought in">
        <Choose
          id={id}
          label="A second copy of what is brought in"
          value={volume.double ?? NOWHERE}
          disabled={!mayWrite || isLoading}
          onChange={(double) => void save({ volume: volume.name, double: double === NOWHERE ? null : double })}
          options={[
            { value: NOWHERE, label: 'none' },
            ...others.map(({ name }) => ({ value: name, label: `on ${name}` })),
          ]}
        />
      </Labelled>
      <p className="text-ink2">
        Files that come into a project here are copied there too, under the same path. A card whose files stand in both
        places may be erased.
      </p>
      <Refused words={error && troubleOf(error)} />
    </div>
  );
}

/** A volume is known by a file in its root, so that an empty mount point is never taken for it. */
function TakeUp({ volume, mayWrite }: { volume: VolumeRow; mayWrite: boolean }) {
  const [take, { error, isLoading }] = volumesApi.useTakeUpVolumeMutation();
  const { name, state } = volume;
  if (state !== 'new' && state !== 'other') return null;
  return (
    <section aria-label={`Taking ${name} up`} className="flex flex-col gap-2 text-sm">
      <Heading>{state === 'new' ? 'Not taken up yet' : 'Not that volume'}</Heading>
      <p className="text-ink2">
        {state === 'new'
          ? 'Until somebody says that this is the volume, nothing is written, checked or settled on it. It gets one small file in its root, by which it is known from then on.'
          : 'What is found there is not the volume that was taken up: it is not mounted, or another one is. Nothing is written, checked or settled on it.'}
      </p>
      {mayWrite && state === 'new' && (
        <Button
          variant="main"
          className="self-start"
          disabled={isLoading}
          onClick={() => void take({ volume: name, isAnother: false })}
        >
          Take it up
        </Button>
      )}
      {mayWrite && state === 'other' && (
        <Confirm
          title={`Take up what is there as ${name}`}
          act="Take it up"
          run={() => void take({ volume: name, isAnother: true })}
          trigger={
            <Button className="self-start" disabled={isLoading}>
              Take up what is there…
            </Button>
          }
        >
          Only where the volume was replaced or brought back without its file. Where it is not mounted, its projects
          would all seem to be gone.
        </Confirm>
      )}
      <Refused words={error && troubleOf(error)} />
    </section>
  );
}

const SYSTEMS = [
  { key: 'windows', label: 'On Windows', example: 'S:\\' },
  { key: 'macos', label: 'On macOS', example: '/Volumes/studio' },
  { key: 'linux', label: 'On Linux', example: '/mnt/studio' },
] as const;

function PrefixForm({ volume, mayWrite }: { volume: VolumeRow; mayWrite: boolean }) {
  const id = useId();
  const [given, setGiven] = useState(volume.prefixes);
  const [save, { error, isSuccess }] = volumesApi.useSavePrefixesMutation();
  const dirty = SYSTEMS.some(({ key }) => given[key] !== volume.prefixes[key]);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save({ volume: volume.name, ...given });
      }}
    >
      <Heading>{volume.name} on the server</Heading>
      <p className="font-mono text-sm break-all">{volume.root}</p>
      <Heading>How each system sees it</Heading>
      <p className="text-sm text-ink2">
        The drive letter or folder under which people have it. Paths are shown and copied in the form of the reader’s
        own system.
      </p>
      {SYSTEMS.map(({ key, label, example }) => (
        <Labelled key={key} id={`${id}${key}`} label={label}>
          <TextInput
            id={`${id}${key}`}
            value={given[key]}
            placeholder={example}
            readOnly={!mayWrite}
            onChange={(e) => setGiven({ ...given, [key]: e.target.value })}
            className="font-mono"
            spellCheck={false}
          />
        </Labelled>
      ))}
      <Refused words={error && troubleOf(error)} />
      {mayWrite && dirty && (
        <Button variant="main" type="submit" className="self-start">
          Keep it
        </Button>
      )}
      {isSuccess && !dirty && (
        <p role="status" className="text-sm text-ink2">
          Kept.
        </p>
      )}
    </form>
  );
}
