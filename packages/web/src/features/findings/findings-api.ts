/** Findings, what is done about them, and who has which. */
import { ENDPOINTS, type FindingList } from '@nesting/contract';
import { api, type FindingsAsked } from '../../app/api';
import { asks, type BodyFor, requestOf, unsaid } from '../../app/endpoints';

const CHANGED = ['findings', 'checks', 'projects', 'activity'] as const;

type OfProject<Body> = { readonly project: string } & Body;

export const findingsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** Pages of findings follow as one scrolls. */
    findings: build.infiniteQuery<FindingList, FindingsAsked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: (last, all, from) =>
          last.rows.length > 0 && from + last.rows.length < (all[0]?.total ?? 0) ? from + last.rows.length : undefined,
      },
      query: ({ queryArg: { project: id, ...asked }, pageParam: from }) =>
        requestOf(ENDPOINTS.listFindings, { id, query: { ...asked, from, limit: 200 } }, {}),
      providesTags: ['findings'],
    }),
    findingsByFolder: build.query({
      ...asks('findingsByFolder', (id: string) => ({ id })),
      providesTags: ['findings'],
    }),
    references: build.query({
      ...asks('referencesOf', ({ project: id, of }: { readonly project: string; readonly of: string }) => ({
        id,
        query: { of },
      })),
      providesTags: ['findings'],
    }),
    acceptFindings: build.mutation({
      ...asks('acceptFindings', ({ project: id, ...body }: OfProject<BodyFor<'acceptFindings'>>) => ({ id, body })),
      invalidatesTags: CHANGED,
    }),
    countAgain: build.mutation({
      ...asks('countAgain', ({ project: id, ...body }: OfProject<BodyFor<'countAgain'>>) => ({ id, body })),
      invalidatesTags: CHANGED,
    }),
    giveFindings: build.mutation({
      ...asks('giveFindings', ({ project: id, ...body }: OfProject<BodyFor<'giveFindings'>>) => ({ id, body })),
      invalidatesTags: ['findings', 'activity'],
    }),
    makeBaseline: build.mutation({
      ...asks('makeBaseline', ({ project: id, ...body }: OfProject<BodyFor<'makeBaseline'>>) => ({ id, body })),
      invalidatesTags: CHANGED,
    }),
    exceptions: build.query({
      ...asks('listExceptions', (project: string | null) => ({ query: project === null ? {} : { project } })),
      providesTags: ['findings'],
    }),
    who: build.query({ ...asks('whoHasWhat', unsaid), providesTags: ['findings'] }),
    listOf: build.query({ ...asks('listOfPerson', (id: string) => ({ id })), providesTags: ['findings'] }),
    myFindings: build.query({ ...asks('myFindings', unsaid), providesTags: ['findings'] }),
    sendList: build.mutation({
      ...asks('sendList', (id: string) => ({ id })),
      invalidatesTags: ['outbox', 'activity'],
    }),
    linkToList: build.mutation(asks('linkToList', (id: string) => ({ id }))),
    yours: build.query({ ...asks('openList', (secret: string) => ({ body: { secret } })), keepUnusedDataFor: 0 }),
  }),
});
