/** Rules taken in from a file. */
import type { RuleChoices } from '@nesting/contract';
import { api } from '../../app/api';
import { asks } from '../../app/endpoints';

export const ruleSetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    lookAtRules: build.mutation(asks('lookAtRules', (file: File) => ({ body: file }))),
    takeRules: build.mutation({
      ...asks('takeRules', ({ file, choices }: { file: File; choices: RuleChoices }) => ({
        body: { file, choices: JSON.stringify(choices) },
      })),
      invalidatesTags: [
        'templates',
        'conventions',
        'blocks',
        'registers',
        'starters',
        'volumes',
        'numbers',
        'people',
        'keys',
        'sessions',
        'activity',
        'outbox',
      ],
    }),
  }),
});
