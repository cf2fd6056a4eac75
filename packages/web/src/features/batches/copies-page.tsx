/**
 * Folders that say they are one project, side by side: which is the original, and what becomes of the other. No file of
 * either is touched.
 */

import type { CopyPlace } from '@nesting/contract';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, count, many, size } from '../../app/words';
import { Button, Empty, Heading, TextInput, Trouble } from '../../ui';
import { volumesApi } from '../house/volumes-api';
import { projectsApi } from '../projects/projects-api';
import { changesApi } from './changes-api';

export function CopiesPage() {
  const { id = '' } = useParams();
  const project = projectsApi.useProjectQuery(id);
  const { data, isError, error, refetch, isFetching } = changesApi.useCopiesQuery(id);
  const [relink, relinking] = volumesApi.useRelinkMutation();
  const [own, owning] = changesApi.useOwnCopyMutation();
  const [leave, leaving] = changesApi.useLeaveCopyMutation();
  const go = useNavigate();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined || project.data === undefined)
    return <p className="px-8 py-6 text-ink2">{isFetching ? 'Looking at every file of each…' : ''}</p>;
  const fault = relinking.error ?? owning.error ?? leaving.error;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto px-8 py-6">
      <div>
        <p className="font-mono text-sm">
          <Link to={`/projects/${id}`} className="text-plum hover:underline">
            {project.data.number}
          </Link>
        </p>
        <h1 className="text-xl font-semibold">Copies of {project.data.title || project.data.folder}</h1>
        <p className="text-ink2">
          Each of these folders says it is this project. Say which one is; no file in any of them is touched.
        </p>
      </div>
      {fault && <Trouble message={troubleOf(fault)} />}
      {data.length < 2 ? (
        <Empty title="There are no copies of it">
          <Link to="/registers/volumes" className="text-bottle underline">
            Back to the volumes
          </Link>
        </Empty>
      ) : (
        <div
          className="grid gap-4"
          style={{ gridTemplateColumns: `repeat(${Math.min(3, data.length)}, minmax(16rem, 1fr))` }}
        >
          {data.map((place) => (
            <Place
              key={`${place.volume}/${place.folder}`}
              place={place}
              onOriginal={() =>
                void relink({ project: id, volume: place.volume, folder: place.folder }).then(() => refetch())
              }
              onOwn={(number) =>
                void own({ project: id, volume: place.volume, folder: place.folder, number }).then((r) =>
                  'data' in r && r.data ? go(`/projects/${r.data.id}`) : undefined,
                )
              }
              onLeave={() =>
                void leave({ project: id, volume: place.volume, folder: place.folder }).then(() => refetch())
              }
            />
          ))}
        </div>
      )}
    </div>
  );
}

function Place({ place, ...ways }: WaysProps) {
  return (
    <section
      aria-label={`${place.volume}/${place.folder}`}
      className={`flex flex-col gap-3 rounded-tray border bg-sheet p-4 text-sm ${place.home ? 'border-bottle' : 'border-line'}`}
    >
      <p className="font-mono break-all">
        <span className="text-ink2">{place.volume}/</span>
        {place.folder}
      </p>
      <p className={place.home ? 'font-semibold text-bottle' : 'text-ink2'}>
        {place.home ? 'The project’s own folder' : 'A copy'}
      </p>
      <Facts place={place} />
      {place.examples.length > 0 && (
        <div>
          <Heading>For example</Heading>
          <ul>
            {place.examples.map((e) => (
              <li key={e} className="font-mono text-xs break-all">
                {e}
              </li>
            ))}
          </ul>
        </div>
      )}
      {!place.home && <Ways place={place} {...ways} />}
    </section>
  );
}

function Facts({ place }: { place: CopyPlace }) {
  return (
    <dl className="grid grid-cols-[9rem_1fr] gap-y-1">
      <dt className="text-ink2">Files</dt>
      <dd>
        {count(place.files)} in {many(place.folders, 'folder')}, {size(place.bytes)}
      </dd>
      <dt className="text-ink2">Newest file</dt>
      <dd>{place.newest === null ? 'none' : ago(place.newest)}</dd>
      {!place.home && (
        <>
          <dt className="text-ink2">Only here</dt>
          <dd>{count(place.only)}</dd>
          <dt className="text-ink2">Changed for this project</dt>
          <dd>{count(place.differ)}</dd>
          <dt className="text-ink2">Not here</dt>
          <dd>{count(place.lacks)}</dd>
        </>
      )}
    </dl>
  );
}

interface WaysProps {
  readonly place: CopyPlace;
  readonly onOriginal: () => void;
  /** Made a project of its own, by this number. */
  readonly onOwn: (number: string) => void;
  readonly onLeave: () => void;
}

/** What can become of a copy. */
function Ways({ place, onOriginal, onOwn, onLeave }: WaysProps) {
  const [number, setNumber] = useState('');
  return (
    <div className="flex flex-col gap-2 border-t border-line pt-3">
      <Button onClick={onOriginal}>This one is the original</Button>
      <form
        className="flex gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (number.trim() !== '') onOwn(number.trim());
        }}
      >
        <TextInput
          aria-label={`Number of its own for ${place.folder}`}
          placeholder="Number"
          value={number}
          onChange={(e) => setNumber(e.target.value)}
          className="w-24 font-mono"
        />
        <Button type="submit" disabled={number.trim() === ''}>
          A project of its own
        </Button>
      </form>
      <Button variant="quiet" className="self-start" onClick={onLeave}>
        Leave it alone
      </Button>
    </div>
  );
}
