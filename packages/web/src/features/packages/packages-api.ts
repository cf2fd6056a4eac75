/** Packages: what would go, those that are made, and the links that open them. */
import type { PackRequest } from '@nesting/contract';
import { api } from '../../app/api';
import { asks, type BodyFor } from '../../app/endpoints';

interface PackOf {
  readonly id: string;
  readonly asked: PackRequest;
}

export const packagesApi = api.injectEndpoints({
  endpoints: (build) => ({
    planPack: build.query({
      ...asks('planPack', ({ id, asked }: PackOf) => ({ id, body: asked })),
      keepUnusedDataFor: 5,
    }),
    applyPack: build.mutation({
      ...asks('applyPack', ({ id, ...body }: { readonly id: string } & BodyFor<'applyPack'>) => ({ id, body })),
      invalidatesTags: ['packages', 'activity'],
    }),
    packages: build.query({
      ...asks('listPackages', (query: { readonly project?: string }) => ({ query })),
      providesTags: ['packages'],
    }),
    verdict: build.query({
      ...asks('readVerdict', (id: string) => ({ id })),
      keepUnusedDataFor: 0,
      providesTags: ['packages'],
    }),
    stopPackage: build.mutation({
      ...asks('stopPackage', (id: string) => ({ id })),
      invalidatesTags: ['packages'],
    }),
    goOnPackage: build.mutation({
      ...asks('goOnPackage', ({ id, mayLeaveOut }: { readonly id: string; readonly mayLeaveOut: boolean }) => ({
        id,
        body: { mayLeaveOut },
      })),
      invalidatesTags: ['packages'],
    }),
    dropPackage: build.mutation({
      ...asks('dropPackage', (id: string) => ({ id })),
      invalidatesTags: ['packages'],
    }),
    provePackage: build.mutation({
      ...asks('provePackage', (id: string) => ({ id })),
      invalidatesTags: ['packages'],
    }),
    freeOriginal: build.mutation({
      ...asks('freeOriginal', ({ id, number }: { readonly id: string; readonly number: string }) => ({
        id,
        body: { number },
      })),
      invalidatesTags: ['packages', 'projects', 'activity'],
    }),
    bringPart: build.mutation({
      ...asks('bringPart', ({ id, ...body }: { readonly id: string } & BodyFor<'bringPart'>) => ({ id, body })),
      invalidatesTags: ['packages'],
    }),
    bringBack: build.mutation({
      ...asks('bringBack', ({ id, volume }: { readonly id: string; readonly volume: string }) => ({
        id,
        body: { volume },
      })),
      invalidatesTags: ['packages', 'projects', 'activity'],
    }),
    compareReturned: build.mutation(
      asks('compareReturned', ({ id, ...body }: { readonly id: string } & BodyFor<'compareReturned'>) => ({
        id,
        body,
      })),
    ),
    foundInPackages: build.query({
      ...asks('findInPackages', (find: string) => ({ query: { find } })),
      providesTags: ['packages'],
    }),
    sendPackage: build.mutation({
      ...asks('sendPackage', ({ id, ...body }: { readonly id: string } & BodyFor<'sendPackage'>) => ({ id, body })),
      invalidatesTags: ['packages'],
    }),
    revokeLink: build.mutation({
      ...asks('revokeLink', ({ id, link }: { readonly id: string; readonly link: string }) => ({ id, link })),
      invalidatesTags: ['packages'],
    }),
    sent: build.query({
      ...asks('openSent', (body: { readonly secret: string; readonly word: string }) => ({ body })),
      keepUnusedDataFor: 0,
    }),
  }),
});
