/** Findings, what is done about them, and who has which. */
import type { ExceptionRow, FindingList, FolderSign, PersonFindings, WhoRow } from '@nesting/contract';
import { addressOf, api, type FindingsAsked } from '../../app/api';

export const findingsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** Pages of findings follow as one scrolls. */
    findings: build.infiniteQuery<FindingList, FindingsAsked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: (last, all, from) =>
          last.rows.length > 0 && from + last.rows.length < (all[0]?.total ?? 0) ? from + last.rows.length : undefined,
      },
      query: ({ queryArg: { project, ...asked }, pageParam }) =>
        `projects/${project}/findings?${addressOf({ ...asked, from: pageParam, limit: 200 })}`,
      providesTags: ['findings'],
    }),
    findingsByFolder: build.query<FolderSign[], string>({
      query: (project) => `projects/${project}/findings/by-folder`,
      providesTags: ['findings'],
    }),
    acceptFindings: build.mutation<
      { count: number },
      { project: string; ids: readonly string[]; reason: string; until: string | null }
    >({
      query: ({ project, ...body }) => ({ url: `projects/${project}/findings/accept`, method: 'POST', body }),
      invalidatesTags: ['findings', 'checks', 'projects', 'activity'],
    }),
    countAgain: build.mutation<{ count: number }, { project: string; ids: readonly string[] }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/findings/count-again`, method: 'POST', body }),
      invalidatesTags: ['findings', 'checks', 'projects', 'activity'],
    }),
    giveFindings: build.mutation<
      { count: number },
      { project: string; ids: readonly string[]; to?: string | null; note?: string }
    >({
      query: ({ project, ...body }) => ({ url: `projects/${project}/findings/give`, method: 'POST', body }),
      invalidatesTags: ['findings', 'activity'],
    }),
    makeBaseline: build.mutation<{ count: number }, { project: string; reason: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/baseline`, method: 'POST', body }),
      invalidatesTags: ['findings', 'checks', 'projects', 'activity'],
    }),
    exceptions: build.query<ExceptionRow[], string | null>({
      query: (project) => `exceptions${project === null ? '' : `?project=${project}`}`,
      providesTags: ['findings'],
    }),
    who: build.query<WhoRow[], void>({ query: () => 'who', providesTags: ['findings'] }),
    listOf: build.query<PersonFindings, string>({
      query: (initials) => `who/${encodeURIComponent(initials)}`,
      providesTags: ['findings'],
    }),
    myFindings: build.query<PersonFindings, void>({ query: () => 'me/findings', providesTags: ['findings'] }),
    sendList: build.mutation<{ sent: boolean }, string>({
      query: (initials) => ({ url: `who/${encodeURIComponent(initials)}/send`, method: 'POST', body: {} }),
      invalidatesTags: ['outbox', 'activity'],
    }),
    linkToList: build.mutation<{ link: string }, string>({
      query: (initials) => ({ url: `who/${encodeURIComponent(initials)}/link`, method: 'POST', body: {} }),
    }),
    yours: build.query<PersonFindings, string>({
      query: (secret) => ({ url: 'yours', method: 'POST', body: { secret } }),
      keepUnusedDataFor: 0,
    }),
  }),
});
