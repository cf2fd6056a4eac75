/** Volumes, and projects found on them. */
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

interface OfVolume {
  readonly volume: string;
}

export const volumesApi = api.injectEndpoints({
  endpoints: (build) => ({
    volumes: build.query({ ...asks('listVolumes', unsaid), providesTags: ['volumes'] }),
    savePrefixes: build.mutation({
      ...asks('savePrefixes', ({ volume: name, ...body }: BodyFor<'savePrefixes'> & OfVolume) => ({ name, body })),
      invalidatesTags: ['volumes'],
    }),
    takeUpVolume: build.mutation({
      ...asks('takeUpVolume', ({ volume: name, ...body }: BodyFor<'takeUpVolume'> & OfVolume) => ({ name, body })),
      invalidatesTags: ['volumes'],
    }),
    foundProjects: build.query({ ...asks('findProjects', unsaid), keepUnusedDataFor: 0 }),
    relink: build.mutation({
      ...asks('relink', (body: BodyFor<'relink'>) => ({ body })),
      invalidatesTags: ['projects', 'volumes'],
    }),
  }),
});
