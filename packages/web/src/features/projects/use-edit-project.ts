/**
 * Edits of one project, one after another: each goes by the version the one before it made, so that one's own edits
 * never stand in each other's way.
 */

import type { EditProject, ProjectPage } from '@nesting/contract';
import { useCallback, useRef } from 'react';
import { projectsApi } from './projects-api';

export function useEditProject(project: ProjectPage): {
  /** Resolves to whether it was kept. */
  keep: (change: Omit<EditProject, 'version'>) => Promise<boolean>;
  error: unknown;
} {
  const [edit, { error }] = projectsApi.useEditProjectMutation();
  const version = useRef(project.version);
  version.current = Math.max(version.current, project.version);
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const keep = useCallback(
    (change: Omit<EditProject, 'version'>) => {
      const kept = last.current.then(async () => {
        const done = await edit({ id: project.id, version: version.current, ...change });
        const isKept = !('error' in done);
        if (isKept) version.current++;
        return isKept;
      });
      last.current = kept;
      return kept;
    },
    [edit, project.id],
  );
  return { keep, error };
}
