/** Parts shared by templates. */
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

export const blocksApi = api.injectEndpoints({
  endpoints: (build) => ({
    blocks: build.query({ ...asks('listBlocks', unsaid), providesTags: ['blocks'] }),
    blockEditions: build.query({ ...asks('blockEditions', (id: string) => ({ id })), providesTags: ['blocks'] }),
    shareBlock: build.mutation({
      ...asks('shareBlock', (body: BodyFor<'shareBlock'>) => ({ body })),
      invalidatesTags: ['blocks'],
    }),
    keepBlock: build.mutation(
      asks('keepBlock', ({ id, ...body }: BodyFor<'keepBlock'> & { id: string }) => ({ id, body })),
    ),
    discardBlock: build.mutation({ ...asks('discardBlock', (id: string) => ({ id })), invalidatesTags: ['blocks'] }),
    putBlockInForce: build.mutation({
      ...asks('putBlockInForce', ({ id, ...body }: BodyFor<'putBlockInForce'> & { id: string }) => ({ id, body })),
      invalidatesTags: ['blocks', 'templates'],
    }),
    putBlockStarter: build.mutation(
      asks('putBlockStarter', ({ id, path, file }: { id: string; path: string; file: File }) => ({
        id,
        query: { path },
        body: file,
      })),
    ),
  }),
});
