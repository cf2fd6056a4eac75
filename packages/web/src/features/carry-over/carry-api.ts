/** Projects carried over, and the ways that are kept for it. */
import type { CarryHereRequest, CarryRequest, CarryToVolume, WayBody } from '@nesting/contract';
import { api } from '../../app/api';
import { asks } from '../../app/endpoints';
import { BATCH_TAGS, SHORT_WAIT } from '../batches/changes-api';

interface CarryOf {
  readonly id: string;
  readonly asked: CarryRequest;
}

interface OfWay {
  readonly template: string;
  readonly name: string;
}

export const carryApi = api.injectEndpoints({
  endpoints: (build) => ({
    planCarry: build.query({
      ...asks('planCarry', ({ id, asked }: CarryOf) => ({ id, body: asked })),
      keepUnusedDataFor: 5,
    }),
    applyCarry: build.mutation({
      ...asks('applyCarry', ({ id, ...body }: CarryToVolume & { id: string }) => ({ id, body }), SHORT_WAIT),
      invalidatesTags: BATCH_TAGS,
    }),
    carryHere: build.mutation({
      ...asks('carryHere', ({ id, ...body }: CarryHereRequest & { id: string }) => ({ id, body })),
      invalidatesTags: ['activity'],
    }),
    mentions: build.query({
      ...asks('listMentions', (of: { readonly id: string; readonly batch: string }) => of),
      keepUnusedDataFor: 0,
    }),
    carryWays: build.query({ ...asks('listCarryWays', (id: string) => ({ id })), providesTags: ['carry-ways'] }),
    keepCarryWay: build.mutation({
      ...asks('keepCarryWay', ({ template: id, name, way }: OfWay & { way: WayBody }) => ({ id, name, body: { way } })),
      invalidatesTags: ['carry-ways'],
    }),
    dropCarryWay: build.mutation({
      ...asks('dropCarryWay', ({ template: id, name }: OfWay) => ({ id, name })),
      invalidatesTags: ['carry-ways'],
    }),
  }),
});
