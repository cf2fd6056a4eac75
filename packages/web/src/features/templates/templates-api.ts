/** Templates, their drafts, editions and starter files. */
import type { Template } from '@nesting/core/template';
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

interface OfFile {
  readonly id: string;
  readonly path: string;
}

export const templatesApi = api.injectEndpoints({
  endpoints: (build) => ({
    templates: build.query({ ...asks('listTemplates', unsaid), providesTags: ['templates'] }),
    newTemplate: build.mutation({
      ...asks('newTemplate', (body: BodyFor<'newTemplate'>) => ({ body })),
      invalidatesTags: ['templates'],
    }),
    keepTemplate: build.mutation(
      asks('keepTemplate', (body: BodyFor<'keepTemplate'>) => ({ id: body.template.id, body })),
    ),
    discardTemplate: build.mutation({
      ...asks('discardTemplate', (id: string) => ({ id })),
      invalidatesTags: ['templates'],
    }),
    putTemplateInForce: build.mutation({
      ...asks('putTemplateInForce', ({ id, ...body }: BodyFor<'putTemplateInForce'> & { id: string }) => ({
        id,
        body,
      })),
      invalidatesTags: ['templates', 'conventions'],
    }),
    editions: build.query({ ...asks('listEditions', (id: string) => ({ id })), providesTags: ['templates'] }),
    templateImpact: build.query({
      ...asks('templateImpact', (template: Template) => ({ id: template.id, body: { template } })),
      keepUnusedDataFor: 10,
    }),
    archiveTemplate: build.mutation({
      ...asks('archiveTemplate', ({ id, ...body }: BodyFor<'archiveTemplate'> & { id: string }) => ({ id, body })),
      invalidatesTags: ['templates'],
    }),
    starters: build.query({ ...asks('listStarters', (id: string) => ({ id })), providesTags: ['starters'] }),
    dropStarter: build.mutation({
      ...asks('dropStarter', ({ id, path }: OfFile) => ({ id, query: { path } })),
      invalidatesTags: ['starters'],
    }),
    putStarter: build.mutation({
      ...asks('putStarter', ({ id, path, file }: OfFile & { file: File }) => ({ id, query: { path }, body: file })),
      invalidatesTags: ['starters'],
    }),
    volumeFolders: build.query({
      ...asks('foldersOfVolume', ({ volume: name, path }: { volume: string; path: string }) => ({
        name,
        query: { path },
      })),
      keepUnusedDataFor: 5,
    }),
    volumeListing: build.query({
      ...asks('listingOfVolume', ({ volume: name, path }: { volume: string; path: string }) => ({
        name,
        query: { path },
      })),
      keepUnusedDataFor: 5,
    }),
    projectListing: build.query({ ...asks('listingOfProject', (id: string) => ({ id })), keepUnusedDataFor: 5 }),
  }),
});
