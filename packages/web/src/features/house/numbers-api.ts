/** Project numbers and their series. */
import { api } from '../../app/api';
import { asks, type BodyFor } from '../../app/endpoints';

export const numbersApi = api.injectEndpoints({
  endpoints: (build) => ({
    numbers: build.query({
      ...asks('numbers', (scope: string | null) => ({ query: scope === null ? {} : { scope } })),
      providesTags: ['numbers'],
    }),
    saveSeries: build.mutation({
      ...asks('saveSeries', (body: BodyFor<'saveSeries'>) => ({ body })),
      invalidatesTags: ['numbers'],
    }),
    reserveNumber: build.mutation({
      ...asks('reserveNumber', (body: BodyFor<'reserveNumber'>) => ({ body })),
      invalidatesTags: ['numbers'],
    }),
    releaseNumber: build.mutation({
      ...asks('releaseNumber', (number: string) => ({ number })),
      invalidatesTags: ['numbers'],
    }),
    giveBackNumber: build.mutation(asks('giveBackNumber', (number: string) => ({ number }))),
    holdNumber: build.mutation(asks('holdNumber', (body: BodyFor<'holdNumber'>) => ({ body }))),
  }),
});
