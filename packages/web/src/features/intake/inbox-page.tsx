/** Where loose material arrives: each heap, and the project it is brought into. */
import type { Inbox, Me, VolumeRow } from '@nesting/contract';
import { type ComponentProps, useState } from 'react';
import { Link, useNavigate, useOutletContext, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { usePageTitle } from '../../app/use-page-title';
import { many, moment } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Choose, Empty, Heading, Labelled, TextInput, Trouble } from '../../ui';
import { Finder } from '../../ui/finder';
import { volumesApi } from '../house/volumes-api';
import { projectsApi } from '../projects/projects-api';
import { intakeApi } from './intake-api';
import { DropPlace, FromHere } from './sending/from-here';
import { useSending } from './sending/use-sending';
import { UnpackZip } from './unpack-zip';

export function InboxPage() {
  usePageTitle('Bring files in');
  const me = useOutletContext<Me>();
  const inboxes = intakeApi.useInboxesQuery(undefined, { skip: me.role !== 'coordinator', pollingInterval: 30_000 });
  const volumes = volumesApi.useVolumesQuery();
  const [params, put] = useAddress();
  const sending = useSending();
  const failed = [inboxes, volumes].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (me.role === 'lead')
    return <Empty title="Files are brought in by those who work on projects">As lead you look.</Empty>;
  if (!volumes.data) return null;
  const from = { sending, volumes: volumes.data, by: me.initials };
  if (me.role === 'artist') return <SendingOnly {...from} />;
  if (!inboxes.data) return null;
  const place = placeOf(params) ?? firstOf(inboxes.data);
  return (
    <Columns
      id="inboxes"
      labels={['What this is', 'What has arrived', 'Where it goes']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <h1 className="text-xl font-semibold">Bring files in</h1>
            <p className="text-sm text-ink2">
              Cards, downloads and heaps that have arrived. Each file is shown with its place and its name before
              anything is copied.
            </p>
          </div>
          <FromHere {...from} onThere={(there) => put({ ...there })} />
          <IntoFolderHere />
          <OtherPlace volumes={volumes.data} onPlace={(other) => put({ ...other })} />
        </div>
      }
      plan={
        <DropPlace {...from}>
          <Heaps inboxes={inboxes.data} place={place} onPlace={(chosen) => put({ ...chosen })} />
        </DropPlace>
      }
      consequence={place === null ? null : <Target key={`${place.volume}/${place.folder}`} place={place} />}
      ledger={<p className="flex-1 text-ink2">Nothing comes into a project on this page: its plan is shown first.</p>}
    />
  );
}

/** A project may lie on this computer too: then nothing has to be sent. */
function IntoFolderHere() {
  return (
    <p className="text-sm">
      <Link to="/intake/here" className="text-bottle underline">
        Straight into a project’s folder on this computer
      </Link>
      <span className="text-ink2">: nothing is sent anywhere.</span>
    </p>
  );
}

/** Artists send what they have; coordinators bring it in. */
function SendingOnly(from: Omit<ComponentProps<typeof FromHere>, 'onThere'>) {
  return (
    <Columns
      id="inboxes"
      labels={['What this is', 'On its way', 'More']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <h1 className="text-xl font-semibold">Send files in</h1>
            <p className="text-sm text-ink2">
              Cards, downloads and heaps from this computer. A coordinator brings them to their places in a project.
            </p>
          </div>
          <FromHere {...from} onThere={() => undefined} />
          <IntoFolderHere />
        </div>
      }
      plan={
        <DropPlace {...from}>
          <Empty title="Choose files, or drop them here">
            Each is read back from the disk it was written to and held against what you sent. Coordinators see that it
            has arrived.
          </Empty>
        </DropPlace>
      }
      consequence={null}
      ledger={<p className="flex-1 text-ink2">What you send stays on this computer too.</p>}
    />
  );
}

function placeOf(params: URLSearchParams): Place | null {
  const volume = params.get('volume');
  return volume === null ? null : { volume, folder: params.get('folder') ?? '' };
}

/** Without a choice what arrived is meant. */
function firstOf(inboxes: readonly Inbox[]): Place | null {
  const inbox = inboxes.find(({ heaps }) => heaps.length > 0);
  const [heap] = inbox?.heaps ?? [];
  return inbox === undefined || heap === undefined ? null : { volume: inbox.volume, folder: heap.folder };
}

interface Place {
  readonly volume: string;
  readonly folder: string;
}

interface HeapsProps {
  readonly inboxes: readonly Inbox[];
  readonly place: Place | null;
  readonly onPlace: (place: Place) => void;
}

function Heaps({ inboxes, place, onPlace }: HeapsProps) {
  if (inboxes.length === 0)
    return (
      <Empty title="Nothing arrives anywhere yet">
        Say in the list of{' '}
        <Link to="/registers/volumes" className="text-plum underline">
          volumes
        </Link>{' '}
        on which of them loose material arrives, or choose a folder at the left.
      </Empty>
    );
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto">
      {inboxes.map(({ volume, isThere, zips, heaps }) => (
        <section key={volume} aria-label={volume} className="flex flex-col gap-1">
          <Heading>{volume}</Heading>
          {!isThere && <p className="text-sm text-brick">It cannot be reached just now.</p>}
          {isThere && heaps.length + zips.length === 0 && <p className="text-sm text-ink2">Nothing lies there.</p>}
          <ul>
            {zips.map((zip) => (
              <li key={zip.name}>
                <UnpackZip volume={volume} path={zip.name} bytes={zip.size} onThere={onPlace} />
              </li>
            ))}
            {heaps.map((heap) => (
              <li key={heap.folder}>
                <Heap
                  heap={heap}
                  isChosen={place?.volume === volume && place.folder === heap.folder}
                  onChoose={() => onPlace({ volume, folder: heap.folder })}
                />
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

interface HeapProps {
  readonly heap: Inbox['heaps'][number];
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}

function Heap({ heap: { folder, files, arriving, brought }, isChosen, onChoose }: HeapProps) {
  return (
    <button
      type="button"
      aria-pressed={isChosen}
      onClick={onChoose}
      className={`flex h-9 w-full items-center gap-3 rounded-tray px-3 text-left text-sm ${isChosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'border-b border-line hover:bg-sheet'}`}
    >
      <span className="min-w-0 flex-1 truncate font-mono">
        {folder === '' ? `${many(files, 'file')} beside the folders` : folder}
      </span>
      <span className="shrink-0 text-xs text-ink2">
        {arriving !== null
          ? `still being sent by ${arriving}`
          : brought === null
            ? 'not brought in yet'
            : `brought into ${brought.number} ${brought.title}, ${moment(brought.at)}`}
      </span>
    </button>
  );
}

function OtherPlace({ volumes, onPlace }: { volumes: readonly VolumeRow[]; onPlace: (place: Place) => void }) {
  const [volume, setVolume] = useState(volumes[0]?.name ?? '');
  const [folder, setFolder] = useState('');
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onPlace({
          volume,
          folder: folder
            .trim()
            .replaceAll('\\', '/')
            .replace(/^\/+|\/+$/g, ''),
        });
      }}
    >
      <Heading>From another folder</Heading>
      <Labelled id="heap-volume" label="Volume">
        <Choose
          id="heap-volume"
          label="Volume"
          value={volume}
          options={volumes.map((v) => ({ value: v.name, label: v.name }))}
          onChange={setVolume}
        />
      </Labelled>
      <Labelled id="heap-folder" label="Folder">
        <TextInput
          id="heap-folder"
          value={folder}
          className="font-mono"
          spellCheck={false}
          autoComplete="off"
          maxLength={4096}
          onChange={(e) => setFolder(e.target.value)}
        />
      </Labelled>
      <Button type="submit" className="self-start" disabled={folder.trim() === ''}>
        Choose it
      </Button>
    </form>
  );
}

function Target({ place }: { place: Place }) {
  const go = useNavigate();
  const [sought, setSought] = useState('');
  const { data: projects = [] } = projectsApi.useSomeProjectsQuery(useDebounced(sought, 80));
  const [params] = useSearchParams();
  const given = params.get('project');
  const { data: meant } = projectsApi.useProjectQuery(given ?? '', { skip: given === null });
  const [own, setChosen] = useState<string | null>(null);
  const chosen = own ?? given;
  const known = meant === undefined || projects.some((p) => p.id === meant.id) ? projects : [meant, ...projects];
  const query = new URLSearchParams({ volume: place.volume, ...(place.folder !== '' && { folder: place.folder }) });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen !== null) void go(`/projects/${chosen}/intake?${query}`);
      }}
    >
      <p className="font-mono text-sm break-all">
        {place.volume}
        {place.folder === '' ? '' : `/${place.folder}`}
      </p>
      <Finder
        label="The project it is for"
        options={known.map((p) => ({ value: p.id, label: `${p.number} ${p.title}` }))}
        value={chosen}
        onSeek={setSought}
        onChoose={setChosen}
      />
      <Button type="submit" variant="main" className="self-start" disabled={chosen === null}>
        Look through it
      </Button>
    </form>
  );
}
