/** What is looked at on a project's page: read from the address, laid over what was found on the disk. */
import type { ChecksOfProject, FolderCount, FolderSign, ProjectPage as Project } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { useMemo } from 'react';
import { type AddressChanges, useAddress } from '../../../app/use-address';
import { nestOfLines } from '../../../nest/of-template';
import { overlayOf } from '../overlay';

export const PROJECT_VIEWS = ['findings', 'folders', 'map', 'sheet'] as const;
export type ProjectView = (typeof PROJECT_VIEWS)[number];

export interface ProjectData {
  readonly project: Project;
  readonly registers: Registers;
  readonly checks: ChecksOfProject;
  readonly signs: readonly FolderSign[];
  readonly folders: readonly FolderCount[];
}

const PLACE_ON_DISK = 'disk:';

export function useProjectView({ project, registers, checks, signs, folders }: ProjectData) {
  const [params, put] = useAddress();
  const { expansion } = useMemo(
    () => new ProjectRules({ template: project.body, values: project.values, registers }),
    [project.body, project.values, registers],
  );
  const overlay = useMemo(() => overlayOf(expansion, folders, signs), [expansion, folders, signs]);
  const nest = useMemo(
    () =>
      nestOfLines(
        expansion.lines,
        (line) => ({
          state: overlay.stateOf(line),
          files: overlay.folders.get(line.path)?.files ?? 0,
          signs: overlay.signsAt(line.path),
        }),
        overlay.unplanned,
      ),
    [expansion, overlay],
  );
  const counts = checks.done?.counts;
  const open = counts === undefined ? 0 : counts.must + counts.should + counts.note;
  const lineKey = params.get('line') ?? expansion.lines[0]?.key ?? null;
  return {
    params,
    put,
    expansion,
    overlay,
    nest,
    /** Findings of the last check that count. */
    open,
    view: PROJECT_VIEWS.find((view) => view === params.get('view')) ?? (open === 0 ? 'folders' : 'findings'),
    lineKey,
    line: expansion.lines.find((l) => l.key === lineKey) ?? null,
    /** The selected folder's path where the plan does not know it. */
    diskPath: lineKey?.startsWith(PLACE_ON_DISK) ? lineKey.slice(PLACE_ON_DISK.length) : null,
    /** The address's word for a tray: a line of the plan, or a place on the disk. */
    keyOfTray: (key: string) => (expansion.lines.some((l) => l.key === key) ? key : `${PLACE_ON_DISK}${key}`),
  };
}

export type ProjectLook = ReturnType<typeof useProjectView>;
export type PutAddress = (changes: AddressChanges) => void;
