/** Templates, their drafts, editions and starter files. */
import type {
  EditionRow,
  FolderChoice,
  ListingText,
  StarterRow,
  TemplateImpactRow,
  TemplateRow,
} from '@nesting/contract';
import type { Template } from '@nesting/core/template';
import { api } from '../../app/api';

export const templatesApi = api.injectEndpoints({
  endpoints: (build) => ({
    templates: build.query<TemplateRow[], void>({ query: () => 'templates', providesTags: ['templates'] }),
    newTemplate: build.mutation<
      { id: string },
      {
        template: unknown;
        from?: { template: string; edition: number };
        starters?: readonly { path: string; base64: string }[];
      }
    >({ query: (body) => ({ url: 'templates', method: 'POST', body }), invalidatesTags: ['templates'] }),
    keepTemplate: build.mutation<{ version: number }, { template: Template; version: number }>({
      query: (body) => ({ url: `templates/${encodeURIComponent(body.template.id)}/draft`, method: 'PUT', body }),
    }),
    discardTemplate: build.mutation<void, string>({
      query: (id) => ({ url: `templates/${encodeURIComponent(id)}/draft`, method: 'DELETE' }),
      invalidatesTags: ['templates'],
    }),
    putTemplateInForce: build.mutation<{ edition: number }, { id: string; version: number; said: string }>({
      query: ({ id, ...body }) => ({ url: `templates/${encodeURIComponent(id)}/editions`, method: 'POST', body }),
      invalidatesTags: ['templates', 'conventions'],
    }),
    editions: build.query<EditionRow[], string>({
      query: (id) => `templates/${encodeURIComponent(id)}/editions`,
      providesTags: ['templates'],
    }),
    templateImpact: build.query<TemplateImpactRow[], Template>({
      query: (template) => ({
        url: `templates/${encodeURIComponent(template.id)}/impact`,
        method: 'POST',
        body: { template },
      }),
      keepUnusedDataFor: 10,
    }),
    archiveTemplate: build.mutation<void, { id: string; archived: boolean }>({
      query: ({ id, archived }) => ({
        url: `templates/${encodeURIComponent(id)}/archive`,
        method: 'POST',
        body: { archived },
      }),
      invalidatesTags: ['templates'],
    }),
    starters: build.query<StarterRow[], string>({
      query: (id) => `templates/${encodeURIComponent(id)}/starters`,
      providesTags: ['starters'],
    }),
    dropStarter: build.mutation<void, { id: string; path: string }>({
      query: ({ id, path }) => ({
        url: `templates/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`,
        method: 'DELETE',
      }),
      invalidatesTags: ['starters'],
    }),
    putStarter: build.mutation<void, { id: string; path: string; file: File }>({
      query: ({ id, path, file }) => ({
        url: `templates/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`,
        method: 'PUT',
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
      invalidatesTags: ['starters'],
    }),
    volumeFolders: build.query<FolderChoice, { volume: string; path: string }>({
      query: ({ volume, path }) => `volumes/${encodeURIComponent(volume)}/folders?path=${encodeURIComponent(path)}`,
      keepUnusedDataFor: 5,
    }),
    volumeListing: build.query<ListingText, { volume: string; path: string }>({
      query: ({ volume, path }) => `volumes/${encodeURIComponent(volume)}/listing?path=${encodeURIComponent(path)}`,
      keepUnusedDataFor: 5,
    }),
    projectListing: build.query<ListingText, string>({ query: (id) => `projects/${id}/listing`, keepUnusedDataFor: 5 }),
  }),
});
