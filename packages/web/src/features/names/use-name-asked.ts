/** What the name helper is asked for, all of it in the address: the project, what is saved, where, and the values. */
import type { Me, ProjectRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { useEffect, useMemo } from 'react';
import { refusalCodeOf, refusalParamOf, troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { conventionsApi } from '../conventions/conventions-api';
import { projectsApi } from '../projects/projects-api';
import { defaultsOf, previewOf } from './name-preview';
import { projectNames } from './project-names';

const takenNameOf = (error: unknown): string | null =>
  refusalCodeOf(error) === 'name-taken' ? refusalParamOf(error, 'name') : null;

export type NameAsked = ReturnType<typeof useNameAsked>;

export function useNameAsked(me: Me, projects: readonly ProjectRow[], registers: Registers) {
  const [params] = useAddress();
  const running = projects.filter((p) => p.state === 'running');
  const pasted = params.get('name') ?? '';
  const row =
    running.find((p) => p.number === params.get('project')) ?? running.find((p) => pasted.includes(p.number)) ?? null;
  const { data: page, error: lost } = projectsApi.useProjectQuery(row?.id ?? '', { skip: row === null });
  const names = useMemo(
    () => (page === undefined || page.id !== row?.id ? null : projectNames(page, registers)),
    [page, registers, row],
  );
  const savable = names?.savable.find((s) => s.convention.id === params.get('save')) ?? null;
  const place =
    savable?.places.find((p) => p.line.path === params.get('in')) ??
    (savable?.places.length === 1 ? savable.places[0] : undefined);
  const values = useMemo(
    () =>
      Object.fromEntries([...params].flatMap(([key, value]) => (key.startsWith('v.') ? [[key.slice(2), value]] : []))),
    [params],
  );
  const filled = useMemo(
    () => (place === undefined ? {} : { ...defaultsOf(place.rule, me, row), ...values }),
    [place, values, me, row],
  );
  const [ask, { data: held, error: refused, isLoading, reset }] = conventionsApi.useAskNameMutation();
  const wanted = JSON.stringify([row?.id, savable?.convention.id, place?.line.path, filled]);
  // What was given belongs to what was asked: another question begins anew.
  useEffect(() => reset(), [wanted]);

  const give = () => {
    if (row && savable && place)
      void ask({ project: row.id, convention: savable.convention.id, folder: place.line.path, values: filled });
  };
  return {
    running,
    pasted,
    row,
    page,
    lost: lost ? troubleOf(lost) : null,
    names,
    savable,
    place,
    filled,
    preview: useMemo(() => (place === undefined ? null : previewOf(place.rule, filled)), [place, filled]),
    mayAsk: me.role !== 'lead',
    give,
    held: held ?? null,
    refused: refused ? troubleOf(refused) : null,
    /** A name that a file has, and that its convention cannot tell from another by a version. */
    takenName: takenNameOf(refused),
    isAsking: isLoading,
  };
}
