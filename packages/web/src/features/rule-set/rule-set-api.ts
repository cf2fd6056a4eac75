/** Rules taken in from a file. */
import type { RuleChoices, RuleSetRow, RulesTaken } from '@nesting/contract';
import { api, formOf } from '../../app/api';

export const ruleSetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    lookAtRules: build.mutation<RuleSetRow[], File>({
      query: (file) => ({
        url: 'rules/look',
        method: 'POST',
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    }),
    takeRules: build.mutation<RulesTaken, { file: File; choices: RuleChoices }>({
      query: ({ file, choices }) => ({
        url: 'rules/take',
        method: 'POST',
        body: formOf({ file, choices: JSON.stringify(choices) }),
      }),
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
