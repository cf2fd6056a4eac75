/** Checks: asked for, under way, of all projects, of other computers. */
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

export const checksApi = api.injectEndpoints({
  endpoints: (build) => ({
    checks: build.query({ ...asks('checksOfProject', (id: string) => ({ id })), providesTags: ['checks'] }),
    startCheck: build.mutation({
      ...asks('askCheck', (id: string) => ({ id, body: {} })),
      invalidatesTags: ['checks'],
    }),
    stopCheck: build.mutation({ ...asks('stopCheck', (id: string) => ({ id })), invalidatesTags: ['checks'] }),
    goOnCheck: build.mutation({ ...asks('goOnWithCheck', (id: string) => ({ id })), invalidatesTags: ['checks'] }),
    setSchedule: build.mutation({
      ...asks('setSchedule', ({ project: id, ...body }: { project: string } & BodyFor<'setSchedule'>) => ({
        id,
        body,
      })),
      invalidatesTags: ['checks'],
    }),
    /** Tells the server that somebody has this project before their eyes; it looks whether the folder has changed. */
    lookAt: build.mutation(asks('lookAtProject', (id: string) => ({ id }))),
    overview: build.query({ ...asks('overview', unsaid), providesTags: ['findings'] }),
    handIn: build.mutation({
      ...asks('handIn', ({ project: id, ...body }: { project: string } & BodyFor<'handIn'>) => ({ id, body })),
      invalidatesTags: ['findings', 'activity'],
    }),
    handedIn: build.query({ ...asks('listHandedIn', (id: string) => ({ id })), providesTags: ['findings'] }),
    handedInFindings: build.query(asks('readHandedIn', (id: string) => ({ id }))),
  }),
});
