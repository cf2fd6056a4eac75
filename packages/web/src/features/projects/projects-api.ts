/** Projects, and what lies in them. */
import type { EditProject, FolderCount, FolderFiles, ProjectList, ProjectPage, ProjectRow } from '@nesting/contract';
import { addressOf, api, type ProjectsAsked } from '../../app/api';

export const projectsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** A page of projects, and how many there are in each state; pages follow as one scrolls. */
    projects: build.infiniteQuery<ProjectList, ProjectsAsked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: (last, _all, from) => (last.more ? from + last.rows.length : undefined),
      },
      query: ({ queryArg, pageParam }) => `projects?${addressOf({ ...queryArg, from: pageParam, limit: 80 })}`,
      providesTags: ['projects'],
    }),
    /** A few projects by words, to choose one of them. */
    someProjects: build.query<readonly ProjectRow[], string>({
      query: (find) => `projects?${addressOf({ find, limit: 100 })}`,
      transformResponse: (list: ProjectList) => list.rows,
      providesTags: ['projects'],
    }),
    project: build.query<ProjectPage, string>({ query: (id) => `projects/${id}`, providesTags: ['projects'] }),
    editProject: build.mutation<void, EditProject & { id: string }>({
      query: ({ id, ...body }) => ({ url: `projects/${id}`, method: 'PUT', body }),
      invalidatesTags: ['projects', 'activity'],
    }),
    pinProject: build.mutation<void, { id: string; pinned?: boolean }>({
      query: ({ id, ...body }) => ({ url: `me/projects/${id}`, method: 'POST', body }),
      invalidatesTags: (_r, _e, { pinned }) => (pinned === undefined ? [] : ['projects']),
    }),
    tickFirstDay: build.mutation<void, { id: string; place: number; done: boolean }>({
      query: ({ id, place, done }) => ({ url: `projects/${id}/first-day/${place}`, method: 'POST', body: { done } }),
      invalidatesTags: ['projects'],
    }),
    folders: build.query<FolderCount[], string>({
      query: (project) => `projects/${project}/folders`,
      providesTags: ['findings'],
    }),
    folderFiles: build.query<FolderFiles, { project: string; path: string }>({
      query: ({ project, path }) => `projects/${project}/folder?path=${encodeURIComponent(path)}`,
      keepUnusedDataFor: 5,
    }),
  }),
});
