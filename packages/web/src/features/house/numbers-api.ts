/** Project numbers and their series. */
import type { Hold, HoldRequest, NumberPage } from '@nesting/contract';
import type { NumberSeries } from '@nesting/core/numbers';
import { api } from '../../app/api';

export const numbersApi = api.injectEndpoints({
  endpoints: (build) => ({
    numbers: build.query<NumberPage, string | null>({
      query: (scope) => `numbers${scope === null ? '' : `?scope=${encodeURIComponent(scope)}`}`,
      providesTags: ['numbers'],
    }),
    saveSeries: build.mutation<void, { series: NumberSeries; version: number }>({
      query: (body) => ({ url: 'numbers/series', method: 'PUT', body }),
      invalidatesTags: ['numbers'],
    }),
    reserveNumber: build.mutation<void, { number: string; why: string }>({
      query: (body) => ({ url: 'numbers/reserved', method: 'POST', body }),
      invalidatesTags: ['numbers'],
    }),
    releaseNumber: build.mutation<void, string>({
      query: (number) => ({ url: `numbers/reserved/${encodeURIComponent(number)}`, method: 'DELETE' }),
      invalidatesTags: ['numbers'],
    }),
    giveBackNumber: build.mutation<void, string>({
      query: (number) => ({ url: `numbers/hold/${encodeURIComponent(number)}`, method: 'DELETE' }),
    }),
    holdNumber: build.mutation<Hold, HoldRequest>({ query: (body) => ({ url: 'numbers/hold', method: 'POST', body }) }),
  }),
});
