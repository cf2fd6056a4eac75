/** Plans of changes, the batches they become, folders taken in, copies. */
import type {
  AdoptRequest,
  BatchAnswer,
  BatchPage,
  BatchRow,
  CopyPlace,
  Fits,
  ProjectRow,
  ReshapePlan,
  ReshapeRequest,
  SettleWay,
} from '@nesting/contract';
import { api } from '../../app/api';

/** What takes longer goes on, and is looked at on its page. */
const SHORT_WAIT = { prefer: 'wait=2' };

/** What a batch that ended may have changed. */
export const BATCH_TAGS = ['projects', 'checks', 'activity', 'batches', 'numbers'] as const;

export const changesApi = api.injectEndpoints({
  endpoints: (build) => ({
    planReshape: build.query<ReshapePlan, { id: string; asked: ReshapeRequest }>({
      query: ({ id, asked }) => ({ url: `projects/${id}/plan`, method: 'POST', body: asked }),
      keepUnusedDataFor: 5,
    }),
    applyReshape: build.mutation<
      BatchAnswer,
      { id: string; asked: ReshapeRequest; fingerprint: string; key: string | undefined }
    >({
      query: ({ id, asked, fingerprint, key }) => ({
        url: `projects/${id}/batches`,
        method: 'POST',
        headers: SHORT_WAIT,
        body: { ...asked, fingerprint, key },
      }),
      invalidatesTags: BATCH_TAGS,
    }),
    reshapeDraft: build.query<Omit<Required<ReshapeRequest>, never> | null, string>({
      query: (id) => `projects/${id}/reshape`,
      keepUnusedDataFor: 0,
    }),
    keepReshape: build.mutation<void, { id: string; asked: ReshapeRequest | null }>({
      query: ({ id, asked }) => ({
        url: `projects/${id}/reshape`,
        method: 'PUT',
        body: JSON.stringify(asked),
        headers: { 'content-type': 'application/json' },
      }),
    }),
    batches: build.query<BatchRow[], string>({ query: (id) => `projects/${id}/batches`, providesTags: ['batches'] }),
    batch: build.query<BatchPage, { project: string; batch: string }>({
      query: ({ project, batch }) => `projects/${project}/batches/${batch}`,
      keepUnusedDataFor: 5,
      providesTags: ['batches'],
    }),
    undoBatch: build.mutation<
      BatchAnswer,
      { project: string; batch: string; ids: readonly string[] | null; key: string | undefined }
    >({
      query: ({ project, batch, ids, key }) => ({
        url: `projects/${project}/batches/${batch}/undo`,
        method: 'POST',
        headers: SHORT_WAIT,
        body: { ids, key },
      }),
      invalidatesTags: BATCH_TAGS,
    }),
    settleBatch: build.mutation<void, { project: string; batch: string; way: SettleWay }>({
      query: ({ project, batch, way }) => ({
        url: `projects/${project}/batches/${batch}/settle`,
        method: 'POST',
        headers: SHORT_WAIT,
        body: { way },
      }),
      invalidatesTags: BATCH_TAGS,
    }),
    stopBatch: build.mutation<void, { project: string; batch: string }>({
      query: ({ project, batch }) => ({ url: `projects/${project}/batches/${batch}/stop`, method: 'POST', body: {} }),
    }),
    copies: build.query<CopyPlace[], string>({ query: (id) => `projects/${id}/copies`, keepUnusedDataFor: 0 }),
    ownCopy: build.mutation<ProjectRow, { project: string; volume: string; folder: string; number: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/copies/own`, method: 'POST', body }),
      invalidatesTags: ['projects', 'activity', 'numbers'],
    }),
    leaveCopy: build.mutation<void, { project: string; volume: string; folder: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/copies/leave`, method: 'POST', body }),
      invalidatesTags: ['activity'],
    }),
    fits: build.query<Fits, { volume: string; folder: string }>({
      query: (body) => ({ url: 'adopt/fits', method: 'POST', body }),
      keepUnusedDataFor: 30,
    }),
    adopt: build.mutation<ProjectRow, AdoptRequest>({
      query: (body) => ({ url: 'adopt', method: 'POST', body }),
      invalidatesTags: ['projects', 'activity', 'numbers'],
    }),
  }),
});
