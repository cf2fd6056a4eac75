/** Ways of packing that are kept with a template. */
import { api } from '../../app/api';
import { asks, type BodyFor } from '../../app/endpoints';

interface OfWay {
  readonly template: string;
  readonly name: string;
}

export const packWaysApi = api.injectEndpoints({
  endpoints: (build) => ({
    packWays: build.query({ ...asks('listPackWays', (id: string) => ({ id })), providesTags: ['pack-ways'] }),
    keepPackWay: build.mutation({
      ...asks('keepPackWay', ({ template: id, name, way }: OfWay & BodyFor<'keepPackWay'>) => ({
        ...{ id, name },
        body: { way },
      })),
      invalidatesTags: ['pack-ways'],
    }),
    dropPackWay: build.mutation({
      ...asks('dropPackWay', ({ template: id, name }: OfWay) => ({ id, name })),
      invalidatesTags: ['pack-ways'],
    }),
  }),
});
