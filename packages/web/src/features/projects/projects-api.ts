/** Projects, and what lies in them. */
import { ENDPOINTS, type ProjectList, type ProjectRow } from '@nesting/contract';
import { api, type ProjectsAsked } from '../../app/api';
import { asks, type BodyFor, requestOf } from '../../app/endpoints';

export const projectsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** A page of projects, and how many there are in each state; pages follow as one scrolls. */
    projects: build.infiniteQuery<ProjectList, ProjectsAsked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: (last, _all, from) => (last.more ? from + last.rows.length : undefined),
      },
      query: ({ queryArg, pageParam: from }) =>
        requestOf(ENDPOINTS.listProjects, { query: { ...queryArg, from, limit: 80 } }, {}),
      providesTags: ['projects'],
    }),
    /** A few projects by words, to choose one of them. */
    someProjects: build.query<readonly ProjectRow[], string>({
      query: (find) => requestOf(ENDPOINTS.listProjects, { query: { find, limit: 100 } }, {}),
      transformResponse: (list: ProjectList) => list.rows,
      providesTags: ['projects'],
    }),
    /** Those with most findings first. */
    projectsWithFindings: build.query<readonly ProjectRow[], void>({
      query: () => requestOf(ENDPOINTS.listProjects, { query: { by: 'findings', limit: 500 } }, {}),
      transformResponse: (list: ProjectList) => list.rows,
    }),
    project: build.query({ ...asks('readProject', (id: string) => ({ id })), providesTags: ['projects'] }),
    editProject: build.mutation({
      ...asks('editProject', ({ id, ...body }: { id: string } & BodyFor<'editProject'>) => ({ id, body })),
      invalidatesTags: ['projects', 'activity'],
    }),
    pinProject: build.mutation({
      ...asks('markProject', ({ id, ...body }: { id: string } & BodyFor<'markProject'>) => ({ id, body })),
      invalidatesTags: (_r, _e, { pinned }) => (pinned === undefined ? [] : ['projects']),
    }),
    tickFirstDay: build.mutation({
      ...asks('tickFirstDay', ({ id, place, done }: { id: string; place: number; done: boolean }) => ({
        id,
        place: String(place),
        body: { done },
      })),
      invalidatesTags: ['projects'],
    }),
    due: build.query({ ...asks('dueInProject', (id: string) => ({ id })), providesTags: ['findings'] }),
    folders: build.query({ ...asks('foldersOfProject', (id: string) => ({ id })), providesTags: ['findings'] }),
    folderFiles: build.query({
      ...asks('filesInFolder', ({ project: id, path }: { project: string; path: string }) => ({ id, query: { path } })),
      keepUnusedDataFor: 5,
    }),
  }),
});
