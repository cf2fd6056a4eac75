/** The house's lists, what was done, and the outbox. */
import type { ActivityPage, ActivityQuery, EditableList } from '@nesting/contract';
import { ENDPOINTS } from '@nesting/contract';
import type { ListName } from '@nesting/core/lists';
import { api } from '../../app/api';
import { asks, type BodyFor, requestOf, unsaid } from '../../app/endpoints';

interface InList {
  readonly list: EditableList;
}

export const houseApi = api.injectEndpoints({
  endpoints: (build) => ({
    registers: build.query({ ...asks('registers', unsaid), providesTags: ['registers'] }),
    list: build.query({
      ...asks('readList', (list: EditableList) => ({ list, query: {} })),
      providesTags: ['registers'],
    }),
    /** The beginning of a list: shown while all of it is on its way. */
    listHead: build.query({
      ...asks('readList', (list: EditableList) => ({ list, query: { head: 'yes' as const } })),
      providesTags: ['registers'],
    }),
    addEntry: build.mutation({
      ...asks('addEntry', ({ list, ...body }: BodyFor<'addEntry'> & InList) => ({ list, body })),
      invalidatesTags: ['registers', 'activity'],
    }),
    saveEntry: build.mutation({
      ...asks('saveEntry', ({ list, key, ...body }: BodyFor<'saveEntry'> & InList & { key: string }) => ({
        list,
        key,
        body,
      })),
      invalidatesTags: ['registers', 'activity'],
    }),
    removeEntry: build.mutation({
      ...asks('removeEntry', ({ list, key }: InList & { key: string }) => ({ list, key })),
      invalidatesTags: ['registers', 'activity'],
    }),
    mergeEntries: build.mutation({
      ...asks('mergeEntries', ({ list, ...body }: BodyFor<'mergeEntries'> & InList) => ({ list, body })),
      invalidatesTags: ['registers', 'projects', 'activity'],
    }),
    importEntries: build.mutation({
      ...asks('importEntries', ({ list, ...body }: BodyFor<'importEntries'> & InList) => ({ list, body })),
      invalidatesTags: ['registers', 'activity'],
    }),
    entryHistory: build.query({
      ...asks('entryHistory', ({ list, key }: { list: ListName; key: string }) => ({ list, key })),
      providesTags: ['activity'],
    }),
    activity: build.infiniteQuery<ActivityPage, ActivityQuery, number | null>({
      infiniteQueryOptions: {
        initialPageParam: null,
        getNextPageParam: (last) => (last.more ? (last.rows.at(-1)?.id ?? null) : undefined),
      },
      query: ({ queryArg, pageParam: before }) =>
        requestOf(
          ENDPOINTS.activity,
          { query: { ...queryArg, ...(before === null ? { short: 'yes' } : { before }) } },
          {},
        ),
      providesTags: ['activity'],
    }),
    outbox: build.query({ ...asks('outbox', unsaid), providesTags: ['outbox'] }),
  }),
});
