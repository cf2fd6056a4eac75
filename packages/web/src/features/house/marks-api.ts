/** What the house means by its marks. */
import type { Mark } from '@nesting/core/template';
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

export const marksApi = api.injectEndpoints({
  endpoints: (build) => ({
    meanings: build.query({ ...asks('readMeanings', unsaid), providesTags: ['marks'] }),
    saveMeaning: build.mutation({
      ...asks('saveMeaning', ({ mark, ...body }: BodyFor<'saveMeaning'> & { mark: Mark }) => ({ mark, body })),
      invalidatesTags: ['marks', 'activity'],
    }),
  }),
});
