/** Checks: asked for, under way, of all projects, of other computers. */
import type { CheckRow, ChecksOfProject, FindingRow, HandedIn, Overview } from '@nesting/contract';
import { api } from '../../app/api';

export const checksApi = api.injectEndpoints({
  endpoints: (build) => ({
    checks: build.query<ChecksOfProject, string>({
      query: (project) => `projects/${project}/checks`,
      providesTags: ['checks'],
    }),
    startCheck: build.mutation<CheckRow, string>({
      query: (project) => ({ url: `projects/${project}/checks`, method: 'POST', body: {} }),
      invalidatesTags: ['checks'],
    }),
    stopCheck: build.mutation<void, string>({
      query: (check) => ({ url: `checks/${check}/stop`, method: 'POST', body: {} }),
      invalidatesTags: ['checks'],
    }),
    goOnCheck: build.mutation<void, string>({
      query: (check) => ({ url: `checks/${check}/go-on`, method: 'POST', body: {} }),
      invalidatesTags: ['checks'],
    }),
    setSchedule: build.mutation<void, { project: string; every: number | null }>({
      query: ({ project, every }) => ({ url: `projects/${project}/schedule`, method: 'PUT', body: { every } }),
      invalidatesTags: ['checks'],
    }),
    /** Tells the server that somebody has this project before their eyes; it looks whether the folder has changed. */
    lookAt: build.mutation<{ check: string | null }, string>({
      query: (project) => ({ url: `me/projects/${project}/look`, method: 'POST', body: {} }),
    }),
    overview: build.query<Overview, void>({ query: () => 'overview', providesTags: ['findings'] }),
    handIn: build.mutation<
      { id: string },
      { project: string; source: string; files: number; folders: number; findings: readonly FindingRow[] }
    >({
      query: ({ project, ...body }) => ({ url: `projects/${project}/handed-in`, method: 'POST', body }),
      invalidatesTags: ['findings', 'activity'],
    }),
    handedIn: build.query<HandedIn[], string>({
      query: (project) => `projects/${project}/handed-in`,
      providesTags: ['findings'],
    }),
    handedInFindings: build.query<FindingRow[], string>({ query: (id) => `handed-in/${id}` }),
  }),
});
