/** What of a project is compared: all of it, one folder, one revision, or what one change left. */

import { revisionList } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { batchWords } from '@nesting/core/words';
import { useMemo } from 'react';
import type { useAddress } from '../../app/use-address';
import { moment } from '../../app/words';
import { Finder } from '../../ui/finder';
import { changesApi } from '../batches/changes-api';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { SCOPES, type SideName } from './compare-api';

type Address = ReturnType<typeof useAddress>;

interface Props {
  readonly side: SideName;
  readonly project: string;
  readonly params: Address[0];
  readonly put: Address[1];
}

const none = (side: SideName) => Object.fromEntries(SCOPES.map((scope) => [`${side}${scope}`, null]));

/** All of a project. */
export const NO_SCOPE = { left: none('left'), right: none('right') } as const;

const WHOLE = 'whole';

export function ScopeChoice({ side, project, params, put }: Props) {
  const { data: folders = [] } = projectsApi.useFoldersQuery(project);
  const { data: batches = [] } = changesApi.useBatchesQuery(project);
  const revisions = useRevisions(project);
  const known = [
    { value: WHOLE, label: 'All of it' },
    ...revisions.map((entry) => ({ value: `Revision ${entry}`, label: `Revision ${entry}` })),
    ...batches
      .filter(({ state, sweptAt }) => state === 'done' && sweptAt === null)
      .map(({ id, what, at }) => ({
        value: `Batch ${id}`,
        label: `What a change left: ${batchWords(what)}, ${moment(at)}`,
      })),
    ...folders.flatMap(({ path }) => (path === '' ? [] : [{ value: `Folder ${path}`, label: path }])),
  ];
  const chosen = SCOPES.flatMap((scope) => {
    const value = params.get(`${side}${scope}`);
    return value === null ? [] : [`${scope} ${value}`];
  });
  const value = chosen[0] ?? WHOLE;
  return (
    <Finder
      label={`What of it, at the ${side}`}
      mono
      options={known.some((o) => o.value === value) ? known : [...known, { value, label: value }]}
      value={value}
      onChoose={(option) => {
        const scope = SCOPES.find((one) => option.startsWith(`${one} `));
        const said = scope === undefined ? {} : { [`${side}${scope}`]: option.slice(scope.length + 1) };
        put({ ...NO_SCOPE[side], ...said, row: null });
      }}
    />
  );
}

/** Entries of the list that its template calls its revisions. */
function useRevisions(id: string): readonly string[] {
  const { data: project } = projectsApi.useProjectQuery(id);
  const { data: registers } = houseApi.useRegistersQuery();
  return useMemo(() => {
    const field = revisionList(project?.body.fields ?? []);
    if (project === undefined || registers === undefined || field === undefined) return [];
    const { expansion } = new ProjectRules({ template: project.body, values: project.values, registers });
    return expansion.values.lists.get(field.key)?.all ?? [];
  }, [project, registers]);
}
