/** What a start needs to know, and the start. */
import { api } from '../../app/api';
import { asks, type BodyFor } from '../../app/endpoints';

export const startsApi = api.injectEndpoints({
  endpoints: (build) => ({
    making: build.query({ ...asks('makingOf', (key: string) => ({ key })), keepUnusedDataFor: 0 }),
    pathsThere: build.query({
      ...asks('pathsThere', (body: BodyFor<'pathsThere'>) => ({ body })),
      keepUnusedDataFor: 5,
    }),
    startProject: build.mutation({
      ...asks('startProject', (body: BodyFor<'startProject'>) => ({ body })),
      invalidatesTags: ['projects', 'templates'],
    }),
    look: build.query({
      ...asks('lookAtTarget', (body: BodyFor<'lookAtTarget'>) => ({ body })),
      keepUnusedDataFor: 5,
    }),
  }),
});
