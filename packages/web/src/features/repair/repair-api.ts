/** Plans that put findings right, and the changes they become. */
import type { RepairRequest } from '@nesting/contract';
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';
import { BATCH_TAGS, SHORT_WAIT } from '../batches/changes-api';

export interface RepairOf {
  readonly id: string;
  readonly asked: RepairRequest;
}

interface LaterAsked extends RepairOf {
  readonly fingerprint: string;
  readonly beginsAt: string;
}

interface ApplyAsked extends RepairOf {
  readonly fingerprint: string;
  readonly key: string | undefined;
  readonly proposal?: string | undefined;
}

export const repairApi = api.injectEndpoints({
  endpoints: (build) => ({
    planRepair: build.query({
      ...asks('planRepair', ({ id, asked }: RepairOf) => ({ id, body: asked })),
      keepUnusedDataFor: 5,
      providesTags: ['findings'],
    }),
    repairMentions: build.query({
      ...asks('lookForMentions', ({ id, asked, isAll }: RepairOf & { readonly isAll: boolean }) => ({
        id,
        body: { ...asked, isAll },
      })),
      keepUnusedDataFor: 5,
      providesTags: ['findings'],
    }),
    applyRepair: build.mutation({
      ...asks('applyRepair', ({ id, asked, ...more }: ApplyAsked) => ({ id, body: { ...asked, ...more } }), SHORT_WAIT),
      invalidatesTags: [...BATCH_TAGS, 'findings'],
    }),
    laterRepairs: build.query({
      ...asks('listLaterRepairs', (id: string) => ({ id })),
      providesTags: ['later-repairs'],
    }),
    repairLater: build.mutation({
      ...asks('repairLater', ({ id, asked, ...more }: LaterAsked) => ({ id, body: { ...asked, ...more } })),
      invalidatesTags: ['later-repairs'],
    }),
    dropLaterRepair: build.mutation({
      ...asks('dropLaterRepair', ({ id, later }: { readonly id: string; readonly later: string }) => ({ id, later })),
      invalidatesTags: ['later-repairs'],
    }),
    proposals: build.query({ ...asks('listProposals', unsaid), providesTags: ['findings'] }),
    proposal: build.query({ ...asks('readProposal', (id: string) => ({ id })), providesTags: ['findings'] }),
    propose: build.mutation({
      ...asks('propose', ({ project: id, ...body }: BodyFor<'propose'> & { project: string }) => ({ id, body })),
      invalidatesTags: ['findings', 'activity', 'outbox'],
    }),
    refuseProposal: build.mutation({
      ...asks('refuseProposal', ({ id, word }: { id: string; word: string }) => ({ id, body: { word } })),
      invalidatesTags: ['findings', 'activity', 'outbox'],
    }),
  }),
});
