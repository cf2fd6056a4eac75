/**
 * Where a listing comes from: a project, a folder on a volume, a folder or zip on this computer, of which only the
 * names are read.
 */

import type { ProjectPage, ProjectRow } from '@nesting/contract';
import { LIMITS } from '@nesting/core';
import { useState } from 'react';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Button, Choose, FileButton, Heading, Menu, ZIPS } from '../../ui';
import { volumesApi } from '../house/volumes-api';
import { projectsApi } from '../projects/projects-api';
import { templatesApi } from './templates-api';

export interface Source {
  readonly listing: string;
  /** Project title, and name of the template, where the source says them. */
  readonly title?: string;
  readonly name?: string;
  readonly said: string;
  /** What a project was started with. */
  readonly project?: ProjectPage;
  /** The content of a file by its path in the listing, where this source can give it. */
  readonly contentOf?: (path: string) => Promise<Uint8Array | null>;
}

interface SourcesProps {
  readonly onSource: (source: Source) => void;
  readonly onTrouble: (words: string) => void;
}

export function DeriveSources({ onSource, onTrouble }: SourcesProps) {
  const { data: projects = [] } = projectsApi.useSomeProjectsQuery('');
  const [ask] = templatesApi.useLazyProjectListingQuery();
  const [open] = projectsApi.useLazyProjectQuery();
  const [choosing, setChoosing] = useState(false);
  const fromProject = async (project: ProjectRow) => {
    const [{ data, error }, { data: page }] = await Promise.all([ask(project.id), open(project.id)]);
    if (data === undefined) return onTrouble(troubleOf(error));
    onSource({
      listing: data.listing,
      title: project.title,
      name: `Like ${project.title}`,
      said: `${project.folder} was listed${data.whole ? '' : ' in part: it is very large'}. Nothing in it was changed.`,
      ...(page && { project: page }),
    });
  };
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <Menu
          trigger={<Button>From a project…</Button>}
          lines={projects.map((p) => ({ words: `${p.number} ${p.title}`, run: () => void fromProject(p) }))}
        />
        <Button aria-expanded={choosing} onClick={() => setChoosing(!choosing)}>
          From a volume…
        </Button>
        <FolderSource onSource={onSource} />
        <ZipSource onSource={onSource} onTrouble={onTrouble} />
      </div>
      {choosing && (
        <VolumeFolder
          onTrouble={onTrouble}
          onSource={(source) => {
            setChoosing(false);
            onSource(source);
          }}
        />
      )}
    </>
  );
}

/** Any folder on a volume, gone to step by step. */
function VolumeFolder({ onSource, onTrouble }: SourcesProps) {
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const [volume, setVolume] = useState('');
  const [path, setPath] = useState('');
  const chosen = volume || volumes[0]?.name || '';
  const { data, error } = templatesApi.useVolumeFoldersQuery({ volume: chosen, path }, { skip: chosen === '' });
  const [list, { isFetching }] = templatesApi.useLazyVolumeListingQuery();
  const take = async () => {
    const answer = await list({ volume: chosen, path });
    if (answer.data === undefined) return onTrouble(troubleOf(answer.error));
    onSource({
      listing: answer.data.listing,
      said: `${path || chosen} was listed${answer.data.whole ? '' : ' in part: it is very large'}. Nothing in it was changed.`,
    });
  };
  return (
    <section
      aria-label="A folder on a volume"
      className="flex flex-col gap-2 rounded-tray border border-line bg-sheet p-2 text-sm"
    >
      <Choose
        label="Volume"
        value={chosen}
        options={volumes.map((v) => ({ value: v.name, label: v.name }))}
        onChange={(v) => {
          setVolume(v);
          setPath('');
        }}
      />
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1 font-mono break-all">
          {chosen}/{path}
        </span>
        <Button
          variant="quiet"
          className="h-6!"
          disabled={path === ''}
          onClick={() => setPath(path.split('/').slice(0, -1).join('/'))}
        >
          Up
        </Button>
      </div>
      {error && <p className="text-brick">{troubleOf(error)}</p>}
      <Heading>
        {data === undefined ? 'Looking…' : `${many(data.folders.length, 'folder')}, ${many(data.files, 'file')}`}
      </Heading>
      <ul className="max-h-44 overflow-auto">
        {data?.folders.map((name) => (
          <li key={name}>
            <button
              type="button"
              onClick={() => setPath(path === '' ? name : `${path}/${name}`)}
              className="w-full rounded px-1 py-0.5 text-left font-mono break-all hover:bg-bench"
            >
              {name}
            </button>
          </li>
        ))}
      </ul>
      <Button className="self-start" disabled={path === '' || isFetching} onClick={() => void take()}>
        {isFetching ? 'Listing…' : 'Derive from this folder'}
      </Button>
    </section>
  );
}

function FolderSource({ onSource }: { onSource: (source: Source) => void }) {
  const fromFolder = (files: readonly File[]) => {
    const byPath = new Map(files.map((f) => [f.webkitRelativePath, f]));
    onSource({
      listing: [...byPath.keys()].join('\n'),
      said: `${many(files.length, 'name')} read. Nothing was uploaded; folders without files are not told by the browser.`,
      contentOf: async (path) => {
        const file = byPath.get(path);
        return file === undefined || file.size > LIMITS.starterBytes ? null : new Uint8Array(await file.arrayBuffer());
      },
    });
  };
  return (
    <FileButton folder label="The names in a folder" onFiles={fromFolder}>
      From a folder here…
    </FileButton>
  );
}

function ZipSource({ onSource, onTrouble }: SourcesProps) {
  const fromZip = async (file: File) => {
    const { entriesOfZip, fileOfZip } = await import('./zip-names');
    const entries = await entriesOfZip(file);
    if (entries === null) return onTrouble(`${file.name} is no zip that can be read. Nothing was changed.`);
    onSource({
      listing: entries.map((e) => e.name).join('\n'),
      said: `${many(entries.length, 'name')} read in ${file.name}. Nothing was uploaded.`,
      contentOf: (path) => fileOfZip(file, path, LIMITS.starterBytes),
    });
  };
  return (
    <FileButton label="The names in a zip" accept={ZIPS} onFiles={([file]) => void fromZip(file)}>
      From a zip…
    </FileButton>
  );
}
