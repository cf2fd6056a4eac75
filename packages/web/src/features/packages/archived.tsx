/** What becomes of the original of a project that lies in the archive: freed for good, or brought back. */
import type { PackageRow, VolumeRow } from '@nesting/contract';
import { type FormEvent, useId, useRef, useState } from 'react';
import { troubleOf } from '../../app/api';
import { moment, size } from '../../app/words';
import { Asking, Button, Choose, Heading, Labelled, TextInput } from '../../ui';
import { Finder } from '../../ui/finder';
import { volumesApi } from '../house/volumes-api';
import { projectsApi } from '../projects/projects-api';
import { packagesApi } from './packages-api';

export function Archived({ row }: { row: PackageRow }) {
  const { data: project } = projectsApi.useProjectQuery(row.project, { pollingInterval: 5000 });
  if (project === undefined) return null;
  const isBack = project.state !== 'packed';
  const isAlone = row.freedAt !== null && (row.backAt === null || row.backAt < row.freedAt);
  return (
    <section className="flex flex-col items-start gap-2" aria-label="The original">
      <Heading>The original</Heading>
      <p className="text-ink2">
        {isBack
          ? `The project is ${project.state} on ${project.volume}, in ${project.folder}.`
          : isAlone
            ? `Freed ${moment(row.freedAt ?? '')}: the project lies in this package alone.`
            : `It still lies on ${project.volume}, in ${project.folder}.`}
      </p>
      {!isBack && !isAlone && <Free row={row} place={`${project.folder} on ${project.volume}`} />}
      {!isBack && isAlone && <Back row={row} before={project.volume} />}
      {!isBack && <Part row={row} />}
    </section>
  );
}

function Free({ row, place }: { row: PackageRow; place: string }) {
  const [open, setOpen] = useState(false);
  const [number, setNumber] = useState('');
  const [free, { error, isLoading }] = packagesApi.useFreeOriginalMutation();
  const home = useRef<HTMLButtonElement>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const done = await free({ id: row.id, number });
    if (done.error === undefined) setOpen(false);
  };
  return (
    <>
      <Button ref={home} disabled={row.act !== null} onClick={() => setOpen(true)}>
        Free its space…
      </Button>
      <Asking open={open} onOpen={setOpen} title="Free the space of the original" home={home}>
        <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
          <p>
            The package is read from end to end first. Where it is whole and holds every file as it is now, {place} is
            removed, {size(row.bytes)} and more with what programs made along the way. This cannot be undone, and the
            history of its changes goes with it; the project can be brought back from the package.
          </p>
          <Labelled id="free-number" label={`To be sure, write the project’s number, ${row.number}`}>
            <TextInput id="free-number" value={number} autoComplete="off" onChange={(e) => setNumber(e.target.value)} />
          </Labelled>
          {error !== undefined && <p className="text-sm text-brick">{troubleOf(error)}</p>}
          <div className="flex justify-end gap-3">
            <Button data-safe onClick={() => setOpen(false)}>
              Cancel
            </Button>
            <Button type="submit" variant="main" disabled={isLoading || number.trim() !== row.number}>
              Remove the original
            </Button>
          </div>
        </form>
      </Asking>
    </>
  );
}

function Back({ row, before }: { row: PackageRow; before: string }) {
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const ready = volumes.filter(({ state }) => state === 'ready');
  const [chosen, setChosen] = useState(before);
  const volume = ready.some(({ name }) => name === chosen) ? chosen : (ready[0]?.name ?? '');
  const [back, { error, isLoading }] = packagesApi.useBringBackMutation();
  return (
    <>
      <ToVolume label="Bring it back to" volume={volume} ready={ready} onChoose={setChosen} />
      <Button
        variant="main"
        disabled={isLoading || row.act !== null || volume === ''}
        onClick={() => void back({ id: row.id, volume })}
      >
        Bring it back
      </Button>
      {error !== undefined && <p className="text-brick">{troubleOf(error)}</p>}
    </>
  );
}

/** Somebody needs one folder of it, and not the project. */
function Part({ row }: { row: PackageRow }) {
  const [open, setOpen] = useState(false);
  const [within, setWithin] = useState<string | null>(null);
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const { data: folders = [] } = projectsApi.useFoldersQuery(row.project, { skip: !open });
  const ready = volumes.filter(({ state }) => state === 'ready');
  const [chosen, setChosen] = useState<string | null>(null);
  const volume = chosen ?? (ready.find(({ isInbox }) => isInbox) ?? ready[0])?.name ?? '';
  const [take, { error, isLoading }] = packagesApi.useBringPartMutation();
  const home = useRef<HTMLButtonElement>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (within === null) return;
    const done = await take({ id: row.id, volume, within });
    if (done.error === undefined) setOpen(false);
  };
  return (
    <>
      <Button ref={home} disabled={row.act !== null} onClick={() => setOpen(true)}>
        {row.act === 'part' ? 'Taking it out…' : 'Take a folder out…'}
      </Button>
      <Asking open={open} onOpen={setOpen} title="Take a folder out of the archive" home={home}>
        <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
          <p>
            The package is read from end to end first, and each file is proved once more. The project stays in the
            archive; what is taken out lies in a folder of its own.
          </p>
          <Finder
            label="Folder of the project"
            mono
            options={folders.filter(({ path }) => path !== '').map(({ path }) => ({ value: path, label: path }))}
            value={within}
            onChoose={setWithin}
          />
          <ToVolume label="To the volume" volume={volume} ready={ready} onChoose={setChosen} />
          {error !== undefined && <p className="text-sm text-brick">{troubleOf(error)}</p>}
          <div className="flex justify-end gap-3">
            <Button data-safe onClick={() => setOpen(false)}>
              Cancel
            </Button>
            <Button type="submit" variant="main" disabled={isLoading || within === null || volume === ''}>
              Take it out
            </Button>
          </div>
        </form>
      </Asking>
    </>
  );
}

interface ToVolumeProps {
  readonly label: string;
  readonly volume: string;
  readonly ready: readonly VolumeRow[];
  readonly onChoose: (volume: string) => void;
}

function ToVolume({ label, volume, ready, onChoose }: ToVolumeProps) {
  const id = useId();
  const options = ready.map(({ name }) => ({ value: name, label: name }));
  return (
    <Labelled id={id} label={label}>
      <Choose id={id} label={label} value={volume} options={options} onChange={onChoose} />
    </Labelled>
  );
}
