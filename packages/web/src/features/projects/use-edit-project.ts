/**
 * Edits of one project, one after another: each goes by the version the one before it made, so that one's own edits
 * never stand in each other's way.
 */

import type { EditProject, ProjectPage } from '@nesting/contract';
import { useCallback, useRef } from 'react';
import { projectsApi } from './projects-api';

export function useEditProject(project: ProjectPage): {
  keep: (change: Omit<EditProject, 'version'>) => void;
  error: unknown;
} {
  const [edit, { error }] = projectsApi.useEditProjectMutation();
  const version = useRef(project.version);
  version.current = Math.max(version.current, project.version);
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const keep = useCallback(
    (change: Omit<EditProject, 'version'>) => {
      last.current = last.current.then(async () => {
        const done = await edit({ id: project.id, version: version.current, ...change });
        if (!('error' in done)) version.current++;
      });
    },
    [edit, project.id],
  );
  return { keep, error };
}
