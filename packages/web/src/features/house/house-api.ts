/** The house's lists, what was done, and the outbox. */
import type { ActivityPage, ActivityQuery, ActivityRow, Imported, ListEntryRow, MailRow } from '@nesting/contract';
import type { Cells, ListName } from '@nesting/core/lists';
import type { Registers } from '@nesting/core/name';
import { addressOf, api, type EditableList } from '../../app/api';

export const houseApi = api.injectEndpoints({
  endpoints: (build) => ({
    registers: build.query<Registers, void>({ query: () => 'registers', providesTags: ['registers'] }),
    list: build.query<ListEntryRow[], EditableList>({ query: (list) => `lists/${list}`, providesTags: ['registers'] }),
    /** The beginning of a list: shown while all of it is on its way. */
    listHead: build.query<ListEntryRow[], EditableList>({
      query: (list) => `lists/${list}?head`,
      providesTags: ['registers'],
    }),
    addEntry: build.mutation<ListEntryRow, { list: EditableList; cells: Cells }>({
      query: ({ list, cells }) => ({ url: `lists/${list}`, method: 'POST', body: { cells } }),
      invalidatesTags: ['registers', 'activity'],
    }),
    saveEntry: build.mutation<ListEntryRow, { list: EditableList; key: string; cells: Cells; version: number }>({
      query: ({ list, key, ...body }) => ({ url: `lists/${list}/${encodeURIComponent(key)}`, method: 'PUT', body }),
      invalidatesTags: ['registers', 'activity'],
    }),
    removeEntry: build.mutation<void, { list: EditableList; key: string }>({
      query: ({ list, key }) => ({ url: `lists/${list}/${encodeURIComponent(key)}`, method: 'DELETE' }),
      invalidatesTags: ['registers', 'activity'],
    }),
    mergeEntries: build.mutation<void, { list: EditableList; from: string; into: string }>({
      query: ({ list, ...body }) => ({ url: `lists/${list}/merge`, method: 'POST', body }),
      invalidatesTags: ['registers', 'projects', 'activity'],
    }),
    importEntries: build.mutation<
      Imported,
      { list: EditableList; table: readonly (readonly string[])[]; lines: readonly number[] }
    >({
      query: ({ list, ...body }) => ({ url: `lists/${list}/import`, method: 'POST', body }),
      invalidatesTags: ['registers', 'activity'],
    }),
    entryHistory: build.query<ActivityRow[], { list: ListName; key: string }>({
      query: ({ list, key }) => `lists/${list}/${encodeURIComponent(key)}/history`,
      providesTags: ['activity'],
    }),
    activity: build.infiniteQuery<ActivityPage, ActivityQuery, number | null>({
      infiniteQueryOptions: {
        initialPageParam: null,
        getNextPageParam: (last) => (last.more ? (last.rows.at(-1)?.id ?? null) : undefined),
      },
      query: ({ queryArg, pageParam }) =>
        `activity?${addressOf({ ...queryArg, before: pageParam ?? undefined, short: pageParam === null ? 'yes' : undefined })}`,
      providesTags: ['activity'],
    }),
    outbox: build.query<MailRow[], void>({ query: () => 'outbox', providesTags: ['outbox'] }),
  }),
});
