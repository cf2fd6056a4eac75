/** Projects held against each other. */
import type { Comparison } from '@nesting/contract';
import { api } from '../../app/api';
import { asks } from '../../app/endpoints';

export type Row = Comparison['rows'][number];

interface Asked {
  readonly left: string;
  readonly right: string;
  readonly same: boolean;
}

export const compareApi = api.injectEndpoints({
  endpoints: (build) => ({
    compareProjects: build.query({
      ...asks('compareProjects', ({ left, right, same }: Asked) => ({ query: { left, right, same: String(same) } })),
      // Both lie on disks that change.
      keepUnusedDataFor: 5,
    }),
  }),
});
