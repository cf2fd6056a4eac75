/** Plans of changes, the batches they become, folders taken in, copies. */
import type {
  AdoptRequest,
  BatchPage,
  BatchRow,
  CopyPlace,
  Fits,
  ProjectRow,
  ReshapePlan,
  ReshapeRequest,
} from '@nesting/contract';
import { api } from '../../app/api';

export const changesApi = api.injectEndpoints({
  endpoints: (build) => ({
    planReshape: build.query<ReshapePlan, { id: string; asked: ReshapeRequest }>({
      query: ({ id, asked }) => ({ url: `projects/${id}/plan`, method: 'POST', body: asked }),
      keepUnusedDataFor: 5,
    }),
    applyReshape: build.mutation<
      { batch: string },
      { id: string; asked: ReshapeRequest; print: string; key: string | undefined }
    >({
      query: ({ id, asked, print, key }) => ({
        url: `projects/${id}/batches`,
        method: 'POST',
        body: { ...asked, print, key },
      }),
      invalidatesTags: ['projects', 'checks', 'activity', 'batches', 'numbers'],
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
    undoBatch: build.mutation<{ batch: string }, { project: string; batch: string; ids: readonly string[] | null }>({
      query: ({ project, batch, ids }) => ({
        url: `projects/${project}/batches/${batch}/undo`,
        method: 'POST',
        body: { ids },
      }),
      invalidatesTags: ['projects', 'checks', 'activity', 'batches', 'numbers'],
    }),
    settleBatch: build.mutation<void, { project: string; batch: string; way: 'finish' | 'take-back' | 'close' }>({
      query: ({ project, batch, way }) => ({
        url: `projects/${project}/batches/${batch}/settle`,
        method: 'POST',
        body: { way },
      }),
      invalidatesTags: ['projects', 'checks', 'activity', 'batches', 'numbers'],
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
