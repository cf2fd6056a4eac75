/** Plans of changes, the batches they become, folders taken in, copies. */
import type { ReshapeRequest } from '@nesting/contract';
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

/** What takes longer goes on, and is looked at on its page. */
export const SHORT_WAIT = { prefer: 'wait=2' };

/** What a batch that ended may have changed. */
export const BATCH_TAGS = ['projects', 'checks', 'activity', 'batches', 'numbers'] as const;

interface OfBatch {
  readonly project: string;
  readonly batch: string;
}

interface ApplyAsked {
  readonly id: string;
  readonly asked: ReshapeRequest;
  readonly fingerprint: string;
  readonly key: string | undefined;
}

export const changesApi = api.injectEndpoints({
  endpoints: (build) => ({
    planReshape: build.query({
      ...asks('planReshape', ({ id, asked }: { id: string; asked: ReshapeRequest }) => ({ id, body: asked })),
      keepUnusedDataFor: 5,
    }),
    applyReshape: build.mutation({
      ...asks(
        'applyReshape',
        ({ id, asked, ...more }: ApplyAsked) => ({ id, body: { ...asked, ...more } }),
        SHORT_WAIT,
      ),
      invalidatesTags: BATCH_TAGS,
    }),
    reshapeDraft: build.query({ ...asks('readReshapeDraft', (id: string) => ({ id })), keepUnusedDataFor: 0 }),
    keepReshape: build.mutation(
      asks('keepReshapeDraft', ({ id, asked }: { id: string; asked: ReshapeRequest | null }) => ({ id, body: asked })),
    ),
    batches: build.query({ ...asks('listBatches', (id: string) => ({ id })), providesTags: ['batches'] }),
    batch: build.query({
      ...asks('readBatch', ({ project: id, batch }: OfBatch) => ({ id, batch })),
      keepUnusedDataFor: 5,
      providesTags: ['batches'],
    }),
    undoBatch: build.mutation({
      ...asks(
        'undoBatch',
        ({ project: id, batch, ...body }: OfBatch & BodyFor<'undoBatch'>) => ({ id, batch, body }),
        SHORT_WAIT,
      ),
      invalidatesTags: BATCH_TAGS,
    }),
    settleBatch: build.mutation({
      ...asks(
        'settleBatch',
        ({ project: id, batch, ...body }: OfBatch & BodyFor<'settleBatch'>) => ({ id, batch, body }),
        SHORT_WAIT,
      ),
      invalidatesTags: BATCH_TAGS,
    }),
    formerNames: build.query({
      ...asks('findFormerNames', (find: string) => ({ query: { find } })),
      providesTags: ['batches'],
    }),
    myFormerNames: build.query({ ...asks('myFormerNames', unsaid), providesTags: ['batches'] }),
    setAside: build.query({ ...asks('listSetAside', unsaid), providesTags: ['batches'] }),
    freeSetAside: build.mutation({
      ...asks('freeSetAside', ({ project: id, batch, ...body }: OfBatch & BodyFor<'freeSetAside'>) => ({
        id,
        batch,
        body,
      })),
      invalidatesTags: ['batches', 'activity'],
    }),
    stopBatch: build.mutation(asks('stopBatch', ({ project: id, batch }: OfBatch) => ({ id, batch }))),
    copies: build.query({ ...asks('compareCopies', (id: string) => ({ id })), keepUnusedDataFor: 0 }),
    ownCopy: build.mutation({
      ...asks('ownCopy', ({ project: id, ...body }: BodyFor<'ownCopy'> & { project: string }) => ({ id, body })),
      invalidatesTags: ['projects', 'activity', 'numbers'],
    }),
    leaveCopy: build.mutation({
      ...asks('leaveCopy', ({ project: id, ...body }: BodyFor<'leaveCopy'> & { project: string }) => ({ id, body })),
      invalidatesTags: ['activity'],
    }),
    fits: build.query({ ...asks('fitFolder', (body: BodyFor<'fitFolder'>) => ({ body })), keepUnusedDataFor: 30 }),
    adopt: build.mutation({
      ...asks('adoptFolder', (body: BodyFor<'adoptFolder'>) => ({ body })),
      invalidatesTags: ['projects', 'activity', 'numbers'],
    }),
  }),
});
