/** What the house means by its marks. */
import type { Mark, Meanings } from '@nesting/core/template';
import { api } from '../../app/api';

export const marksApi = api.injectEndpoints({
  endpoints: (build) => ({
    meanings: build.query<Meanings, void>({ query: () => 'marks', providesTags: ['marks'] }),
    saveMeaning: build.mutation<void, { mark: Mark; words: string; was: string }>({
      query: ({ mark, ...body }) => ({ url: `marks/${mark}`, method: 'PUT', body }),
      invalidatesTags: ['marks', 'activity'],
    }),
  }),
});
