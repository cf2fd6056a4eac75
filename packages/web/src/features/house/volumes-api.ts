/** Volumes, and projects found on them. */
import type { FoundProject, Prefixes, VolumeRow } from '@nesting/contract';
import { api } from '../../app/api';

export const volumesApi = api.injectEndpoints({
  endpoints: (build) => ({
    volumes: build.query<VolumeRow[], void>({ query: () => 'volumes', providesTags: ['volumes'] }),
    savePrefixes: build.mutation<void, Prefixes & { volume: string }>({
      query: ({ volume, ...body }) => ({ url: `volumes/${encodeURIComponent(volume)}/prefixes`, method: 'PUT', body }),
      invalidatesTags: ['volumes'],
    }),
    takeUpVolume: build.mutation<void, { volume: string; isAnother: boolean }>({
      query: ({ volume, ...body }) => ({ url: `volumes/${encodeURIComponent(volume)}/take-up`, method: 'POST', body }),
      invalidatesTags: ['volumes'],
    }),
    foundProjects: build.query<FoundProject[], void>({ query: () => 'volumes/projects', keepUnusedDataFor: 0 }),
    relink: build.mutation<void, { project: string; volume: string; folder: string }>({
      query: (body) => ({ url: 'volumes/relink', method: 'POST', body }),
      invalidatesTags: ['projects', 'volumes'],
    }),
  }),
});
