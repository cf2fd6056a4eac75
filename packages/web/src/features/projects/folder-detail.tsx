/**
 * About one folder of a project: where it is, what is in it now (looked up on the disk at this moment), what it is for.
 */

import type { FolderFiles, ProjectPage } from '@nesting/contract';
import { elementAt, present } from '@nesting/core';
import { groupFrames, missingFrames, type Registers } from '@nesting/core/name';
import type { PlannedLine } from '@nesting/core/template';
import { useMemo } from 'react';
import { troubleOf } from '../../app/api';
import { useReaderPath } from '../../app/reader-path';
import { day, many, size } from '../../app/words';
import { CopyButton, Heading } from '../../ui';
import { STATE_WORDS, type TrayState } from '../../ui/signs';
import { FolderFacts } from '../templates/folder-facts';
import { projectsApi } from './projects-api';

interface Props {
  readonly project: ProjectPage;
  readonly path: string;
  readonly state: TrayState;
  readonly line: PlannedLine | null;
  readonly registers: Registers;
}

const SHOWN = 200;

export function FolderDetail({ project, path, state, line, registers }: Props) {
  const { body: template, values } = project;
  const whole = useReaderPath(project)(path);
  const there = state === 'there' || state === 'unplanned';
  const { data, isError, error } = projectsApi.useFolderFilesQuery(
    { project: project.id, path },
    { skip: !there, refetchOnMountOrArgChange: true },
  );
  const known = useMemo(() => ({ ...values, ...line?.entries }), [values, line]);
  const items = useMemo(() => itemsOf(data?.files ?? []), [data]);
  return (
    <div className="flex flex-col gap-5">
      <div className="flex flex-col gap-2">
        <Heading>Selected</Heading>
        <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
          <span className="min-w-0 flex-1 font-mono text-sm break-all">{whole}</span>
          <CopyButton text={whole} what="the path" />
        </div>
        <p className="text-sm text-ink2">{STATE_WORDS[state]}</p>
      </div>
      {line?.folder && (
        <FolderFacts
          template={template}
          registers={registers}
          node={line.folder}
          rules={line.rules}
          values={known}
          fields={template.fields}
          per={Object.keys(line.entries)}
        />
      )}
      {there && (
        <div className="flex flex-col gap-1">
          <Heading>Files in it now</Heading>
          {isError && <p className="text-sm text-brick">{troubleOf(error)}</p>}
          {data && data.files.length === 0 && <p className="text-sm text-ink2">none</p>}
          <ul className="divide-y divide-line text-xs">
            {items.slice(0, SHOWN).map((f) => (
              <li key={f.name} className="flex items-baseline gap-2 py-1">
                <span className="min-w-0 flex-1 font-mono break-all">
                  {f.name}
                  {f.frames !== null && <span className="block font-sans text-ink2">{f.frames}</span>}
                </span>
                <span className="shrink-0 text-ink2" title={f.modified === null ? undefined : day(f.modified)}>
                  {size(f.size)}
                </span>
              </li>
            ))}
          </ul>
          {items.length > SHOWN && <p className="text-xs text-ink2">…and {many(items.length - SHOWN, 'more file')}</p>}
        </div>
      )}
    </div>
  );
}

interface Item {
  readonly name: string;
  readonly size: number;
  readonly modified: string | null;
  /** Of an image sequence: which frames there are, and which are not. */
  readonly frames: string | null;
}

/** Runs of fewer are numbered files, and each is its own. */
const SEQUENCE = 3;

/** Image sequences as one line each, with their gaps. */
function itemsOf(files: FolderFiles['files']): Item[] {
  const { sequences } = groupFrames(files.map((f) => f.name));
  const known = sequences.filter((s) => s.count >= SEQUENCE);
  const of = (name: string) =>
    known.find(
      (s) =>
        name.startsWith(s.head) &&
        name.endsWith(s.tail) &&
        /^\d+$/.test(name.slice(s.head.length, name.length - s.tail.length)),
    );
  const singles = files
    .filter((f) => of(f.name) === undefined)
    .map((f): Item => ({ name: f.name, size: f.size, modified: f.modified, frames: null }));
  const words = (ranges: readonly (readonly [number, number])[]) =>
    ranges
      .slice(0, 8)
      .map(([from, to]) => (from === to ? from : `${from}–${to}`))
      .join(', ');
  const runs = known.map((s): Item => {
    const missing = missingFrames(s);
    return {
      name: `${s.head}${'#'.repeat(s.width)}${s.tail}`,
      size: files.filter((f) => of(f.name) === s).reduce((n, f) => n + f.size, 0),
      modified: null,
      frames: `${many(s.count, 'frame')}, ${words(s.ranges.length === 0 ? [] : [[elementAt(s.ranges, 0)[0], present(s.ranges.at(-1))[1]]])}${missing.length > 0 ? `; missing: ${words(missing)}` : ''}`,
    };
  });
  return [...runs, ...singles].sort((a, b) => (a.name < b.name ? -1 : 1));
}
