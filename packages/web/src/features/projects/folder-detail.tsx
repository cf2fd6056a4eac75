/** About one folder of a project: where it is, what is in it now (looked up on the disk at this moment), what it is for. */
import type { PlannedLine, Registers, Template, Values } from '@nesting/core';
import { useMemo } from 'react';
import { api, troubleOf } from '../../app/api';
import { day, many, size } from '../../app/words';
import { STATE_WORDS, type TrayState } from '../../ui/signs';
import { CopyButton, Heading } from '../../ui/ui';
import { FolderFacts } from '../templates/folder-facts';

interface Props {
  readonly project: string;
  readonly root: string;
  /** The same with the volume's name for its root. */
  readonly shown: string;
  readonly path: string;
  readonly state: TrayState;
  readonly line: PlannedLine | null;
  readonly template: Template;
  readonly registers: Registers;
  readonly values: Values;
}

const SHOWN = 200;

export function FolderDetail({ project, root, shown, path, state, line, template, registers, values }: Props) {
  const there = state === 'there' || state === 'unplanned';
  const { data, isError, error } = api.useFolderFilesQuery({ project, path }, { skip: !there, refetchOnMountOrArgChange: true });
  const known = useMemo(() => ({ ...values, ...line?.entries }), [values, line]);
  const whole = path === '' ? root : `${root}/${path}`;
  return (
    <div className="flex flex-col gap-5">
      <div className="flex flex-col gap-2">
        <Heading>Selected</Heading>
        <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
          <span className="min-w-0 flex-1 font-mono text-sm break-all">{path === '' ? shown : `${shown}/${path}`}</span>
          <CopyButton text={whole} what="the path" />
        </div>
        <p className="text-sm text-ink2">{STATE_WORDS[state]}</p>
      </div>
      {line?.folder && <FolderFacts template={template} registers={registers} node={line.folder} rules={line.rules} values={known} fields={template.fields} per={Object.keys(line.entries)} />}
      {there && (
        <div className="flex flex-col gap-1">
          <Heading>Files in it now</Heading>
          {isError && <p className="text-sm text-brick">{troubleOf(error)}</p>}
          {data && data.files.length === 0 && <p className="text-sm text-ink2">none</p>}
          <ul className="divide-y divide-line text-xs">
            {data?.files.slice(0, SHOWN).map((f) => (
              <li key={f.name} className="flex items-baseline gap-2 py-1">
                <span className="min-w-0 flex-1 font-mono break-all">{f.name}</span>
                <span className="shrink-0 text-ink2" title={day(f.modified)}>{size(f.size)}</span>
              </li>
            ))}
          </ul>
          {data && data.files.length > SHOWN && <p className="text-xs text-ink2">…and {many(data.files.length - SHOWN, 'more file')}</p>}
        </div>
      )}
    </div>
  );
}
