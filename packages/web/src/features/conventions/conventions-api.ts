/** Conventions, their drafts and editions, and names asked for by them. */
import type { AskName } from '@nesting/contract';
import type { Convention } from '@nesting/core/template';
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

export const conventionsApi = api.injectEndpoints({
  endpoints: (build) => ({
    conventions: build.query({ ...asks('listConventions', unsaid), providesTags: ['conventions'] }),
    newConvention: build.mutation({
      ...asks('newConvention', (convention: Omit<Convention, 'id'>) => ({ body: { convention } })),
      invalidatesTags: ['conventions'],
    }),
    keepDraft: build.mutation(
      asks('keepConvention', (body: BodyFor<'keepConvention'>) => ({ id: body.convention.id, body })),
    ),
    discardDraft: build.mutation({
      ...asks('discardConvention', (id: string) => ({ id })),
      invalidatesTags: ['conventions'],
    }),
    putInForce: build.mutation({
      ...asks('putConventionInForce', ({ id, version }: { id: string; version: number }) => ({
        id,
        body: { version },
      })),
      invalidatesTags: ['conventions', 'templates'],
    }),
    conventionImpact: build.query({
      ...asks('conventionImpact', (convention: Convention) => ({ id: convention.id, body: { convention } })),
      keepUnusedDataFor: 10,
    }),
    projectNames: build.query({
      ...asks('namesOfConvention', ({ project: id, ...query }: { project: string; convention: string }) => ({
        id,
        query,
      })),
      keepUnusedDataFor: 5,
    }),
    askName: build.mutation(
      asks('askName', ({ project: id, ...body }: AskName & { project: string }) => ({ id, body })),
    ),
  }),
});
