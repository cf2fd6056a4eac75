/** Conventions, their drafts and editions, and names asked for by them. */
import type { AskName, ConventionImpact, ConventionRow } from '@nesting/contract';
import type { Convention } from '@nesting/core/template';
import { api } from '../../app/api';
import { asks } from '../../app/endpoints';

export const conventionsApi = api.injectEndpoints({
  endpoints: (build) => ({
    conventions: build.query<ConventionRow[], void>({ query: () => 'conventions', providesTags: ['conventions'] }),
    newConvention: build.mutation<{ id: string }, Omit<Convention, 'id'>>({
      query: (convention) => ({ url: 'conventions', method: 'POST', body: { convention } }),
      invalidatesTags: ['conventions'],
    }),
    keepDraft: build.mutation<{ version: number }, { convention: Convention; version: number }>({
      query: (body) => ({ url: `conventions/${encodeURIComponent(body.convention.id)}/draft`, method: 'PUT', body }),
    }),
    discardDraft: build.mutation<void, string>({
      query: (id) => ({ url: `conventions/${encodeURIComponent(id)}/draft`, method: 'DELETE' }),
      invalidatesTags: ['conventions'],
    }),
    putInForce: build.mutation<{ edition: number }, { id: string; version: number }>({
      query: ({ id, version }) => ({
        url: `conventions/${encodeURIComponent(id)}/editions`,
        method: 'POST',
        body: { version },
      }),
      invalidatesTags: ['conventions', 'templates'],
    }),
    conventionImpact: build.query<ConventionImpact, Convention>({
      query: (convention) => ({
        url: `conventions/${encodeURIComponent(convention.id)}/impact`,
        method: 'POST',
        body: { convention },
      }),
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
