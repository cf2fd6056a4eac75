/** What a start needs to know, and the start. */
import type { Look, Making, ProjectRow, StartRequest } from '@nesting/contract';
import { api } from '../../app/api';

export const startsApi = api.injectEndpoints({
  endpoints: (build) => ({
    making: build.query<Making, string>({ query: (key) => `projects/making/${key}`, keepUnusedDataFor: 0 }),
    pathsThere: build.query<readonly string[], { volume: string; folder: string; paths: readonly string[] }>({
      query: (body) => ({ url: 'projects/there', method: 'POST', body }),
      keepUnusedDataFor: 5,
    }),
    startProject: build.mutation<ProjectRow, StartRequest>({
      query: (body) => ({ url: 'projects', method: 'POST', body }),
      invalidatesTags: ['projects', 'templates'],
    }),
    look: build.query<Look, { number: string; volume: string; folder: string }>({
      query: (body) => ({ url: 'projects/look', method: 'POST', body }),
      keepUnusedDataFor: 5,
    }),
  }),
});
