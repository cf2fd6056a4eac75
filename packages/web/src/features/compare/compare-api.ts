/** Projects held against each other. */
import type { Comparison } from '@nesting/contract';
import { api } from '../../app/api';
import { asks } from '../../app/endpoints';

export type Row = Comparison['rows'][number];

interface Asked {
  readonly left: string;
  readonly right: string;
  readonly same: boolean;
  readonly leftFolder: string;
  readonly rightFolder: string;
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
