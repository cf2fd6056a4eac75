/** The name that is given, or as far as it is known; its folder, and what lies there. */
import { type HeldName, type Me, type ProjectPage, SYSTEMS } from '@nesting/contract';
import type { PlannedLine } from '@nesting/core/template';
import { Anatomy } from '../../anatomy/anatomy';
import { chooseReaderSystem, SYSTEM_WORDS, useReaderPath, useReaderSystem } from '../../app/reader-path';
import { ago } from '../../app/words';
import { CopyButton, Heading, Radios, Trouble } from '../../ui';
import { projectsApi } from '../projects/projects-api';
import { CorrectedFile } from './corrected-file';
import type { Preview } from './name-preview';

interface Props {
  readonly place: PlannedLine;
  readonly preview: Preview | null;
  readonly held: HeldName | null;
  readonly refused: string | null;
  /** A name that is refused because a file has it. */
  readonly takenName: string | null;
  readonly me: Me;
  readonly project: ProjectPage;
}

export function NameResult({ place, preview, held, refused, takenName, me, project }: Props) {
  const wholePath = useReaderPath(project);
  const folder = wholePath(place.path);
  return (
    <div className="flex flex-col gap-5">
      {held ? (
        <Held held={held} path={wholePath(`${held.folder}/${held.name}`)} />
      ) : (
        preview && (
          <section aria-label="The name so far" className="flex flex-col gap-2">
            <Heading>The name so far</Heading>
            <Anatomy parts={preview.parts} large />
          </section>
        )
      )}
      {refused && <Trouble message={refused} />}
      {takenName !== null && <CorrectedFile me={me} project={project} name={takenName} />}
      <section aria-label="The folder" className="flex flex-col gap-1">
        <Heading>Its folder, on {project.volume}</Heading>
        <p className="flex items-start gap-2 font-mono text-sm break-all">
          {folder} <CopyButton text={folder} what="the folder" />
        </p>
        <PathsAsOn />
      </section>
      <Newest project={project.id} path={place.path} />
    </div>
  );
}

const NEWEST_SHOWN = 8;

/** What lies in the folder at this moment: the versions so far. */
function Newest({ project, path }: { project: string; path: string }) {
  const { data } = projectsApi.useFolderFilesQuery({ project, path });
  if (data === undefined || data.path !== path || data.files.length === 0) return null;
  const newest = data.files.toSorted((a, b) => (a.modified < b.modified ? 1 : -1)).slice(0, NEWEST_SHOWN);
  return (
    <section aria-label="Newest in the folder" className="flex flex-col gap-1">
      <Heading>Newest in the folder</Heading>
      <ul className="divide-y divide-line">
        {newest.map((f) => (
          <li key={f.name} className="flex justify-between gap-3 py-1 font-mono text-sm">
            <span className="min-w-0 break-all">{f.name}</span>
            <span className="shrink-0 font-sans text-xs text-ink2">{ago(f.modified)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Held({ held, path }: { held: HeldName; path: string }) {
  return (
    <section aria-label="The name" className="flex flex-col gap-2 rounded-tray border border-plum bg-sheet p-4">
      <Heading>The name</Heading>
      <p className="flex items-start gap-2 font-mono text-lg break-all">
        <strong className="font-semibold" data-testid="held-name">
          {held.name}
        </strong>{' '}
        <CopyButton text={held.name} what="the name" />
      </p>
      <p className="flex items-start gap-2 font-mono text-sm break-all text-ink2">
        {path} <CopyButton text={path} what="the whole path" />
      </p>
      {!held.folderThere && <p className="text-sm text-ochre">Its folder is not on the disk yet.</p>}
    </section>
  );
}

function PathsAsOn() {
  const system = useReaderSystem();
  return (
    <div className="flex flex-wrap items-center gap-2 pt-1 text-sm text-ink2">
      Paths as on
      <Radios
        label="Paths as on"
        value={system}
        options={SYSTEMS.map((value) => ({ value, label: SYSTEM_WORDS[value] }))}
        onChange={chooseReaderSystem}
      />
    </div>
  );
}
