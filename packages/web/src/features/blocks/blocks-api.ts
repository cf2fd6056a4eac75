/** Parts shared by templates. */
import type { BlockBody, BlockEditionRow, BlockInForce, BlockRow, PutBlockInForce } from '@nesting/contract';
import type { FolderNode } from '@nesting/core/template';
import { api } from '../../app/api';

export const blocksApi = api.injectEndpoints({
  endpoints: (build) => ({
    blocks: build.query<BlockRow[], void>({ query: () => 'blocks', providesTags: ['blocks'] }),
    blockEditions: build.query<BlockEditionRow[], string>({
      query: (id) => `blocks/${encodeURIComponent(id)}/editions`,
      providesTags: ['blocks'],
    }),
    shareBlock: build.mutation<
      { id: string; edition: number; folders: readonly FolderNode[] },
      { template: string; body: BlockBody }
    >({ query: (body) => ({ url: 'blocks', method: 'POST', body }), invalidatesTags: ['blocks'] }),
    keepBlock: build.mutation<{ version: number }, { id: string; body: BlockBody; version: number }>({
      query: ({ id, ...body }) => ({ url: `blocks/${encodeURIComponent(id)}/draft`, method: 'PUT', body }),
    }),
    discardBlock: build.mutation<void, string>({
      query: (id) => ({ url: `blocks/${encodeURIComponent(id)}/draft`, method: 'DELETE' }),
      invalidatesTags: ['blocks'],
    }),
    putBlockInForce: build.mutation<BlockInForce, PutBlockInForce & { id: string }>({
      query: ({ id, ...body }) => ({ url: `blocks/${encodeURIComponent(id)}/editions`, method: 'POST', body }),
      invalidatesTags: ['blocks', 'templates'],
    }),
    putBlockStarter: build.mutation<void, { id: string; path: string; file: File }>({
      query: ({ id, path, file }) => ({
        url: `blocks/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`,
        method: 'PUT',
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    }),
  }),
});
