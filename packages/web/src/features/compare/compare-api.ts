/** Projects held against each other. */
import type { Comparison } from '@nesting/contract';
import { api } from '../../app/api';
import { asks } from '../../app/endpoints';

export type Row = Comparison['rows'][number];

const SIDES = ['left', 'right'] as const;
export type SideName = (typeof SIDES)[number];

/** What of a project is compared: one folder, one revision, or what one change left. */
export const SCOPES = ['Folder', 'Revision', 'Batch'] as const;
export type ScopeName = `${SideName}${(typeof SCOPES)[number]}`;
export type Scopes = Readonly<Record<ScopeName, string>>;

export const scopesIn = (params: URLSearchParams): Scopes => {
  const names = SIDES.flatMap((side) => SCOPES.map((scope): ScopeName => `${side}${scope}`));
  return Object.fromEntries(names.map((name) => [name, params.get(name) ?? ''])) as Record<ScopeName, string>;
};

interface Asked extends Scopes {
  readonly left: string;
  readonly right: string;
  readonly same: boolean;
}

export const compareApi = api.injectEndpoints({
  endpoints: (build) => ({
    compareProjects: build.query({
      ...asks('compareProjects', ({ same, ...sides }: Asked) => ({ query: { ...sides, same: String(same) } })),
      // Both lie on disks that change.
      keepUnusedDataFor: 5,
    }),
  }),
});
