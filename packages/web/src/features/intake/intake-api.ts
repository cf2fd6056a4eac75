/** Loose files, and where they are brought. */
import type { HeapPlace, IntakeRequest } from '@nesting/contract';
import { api } from '../../app/api';
import { asks, unsaid } from '../../app/endpoints';
import { BATCH_TAGS, SHORT_WAIT } from '../batches/changes-api';

interface IntakeOf {
  readonly id: string;
  readonly asked: IntakeRequest;
}

export const intakeApi = api.injectEndpoints({
  endpoints: (build) => ({
    inboxes: build.query({ ...asks('listInboxes', unsaid), providesTags: ['batches', 'volumes'] }),
    saveInbox: build.mutation({
      ...asks('saveInbox', ({ volume: name, isInbox }: { volume: string; isInbox: boolean }) => ({
        name,
        body: { isInbox },
      })),
      invalidatesTags: ['volumes'],
    }),
    openZip: build.mutation({
      ...asks('openZip', ({ volume: name, path }: { volume: string; path: string }) => ({ name, body: { path } })),
      invalidatesTags: ['volumes', 'intake'],
    }),
    saveDouble: build.mutation({
      ...asks('saveDouble', ({ volume: name, double }: { volume: string; double: string | null }) => ({
        name,
        body: { double },
      })),
      invalidatesTags: ['volumes', 'intake'],
    }),
    heapCopies: build.query({
      ...asks('heapCopies', (asked: { id: string; query: HeapPlace }) => asked),
      keepUnusedDataFor: 0,
      providesTags: ['batches'],
    }),
    readIntake: build.mutation({
      ...asks('readIntake', ({ id, place }: { id: string; place: HeapPlace }) => ({ id, body: place })),
      invalidatesTags: ['intake'],
    }),
    heapReading: build.query({
      ...asks('readingOfIntake', (asked: { id: string; query: HeapPlace }) => asked),
      keepUnusedDataFor: 0,
    }),
    planIntake: build.query({
      ...asks('planIntake', ({ id, asked }: IntakeOf) => ({ id, body: asked })),
      keepUnusedDataFor: 5,
      providesTags: ['intake'],
    }),
    applyIntake: build.mutation({
      ...asks(
        'applyIntake',
        ({ id, asked, ...more }: IntakeOf & { fingerprint: string; key: string | undefined }) => ({
          id,
          body: { ...asked, ...more },
        }),
        SHORT_WAIT,
      ),
      invalidatesTags: BATCH_TAGS,
    }),
  }),
});
