/** Who is there, how people come in, and what they may open. */
import type { UnknownAction } from '@reduxjs/toolkit';
import { api } from '../../app/api';
import { asks, type BodyFor, unsaid } from '../../app/endpoints';

/** Once somebody has come in, nothing is shown that was fetched for whoever was there before. */
async function forgetOthers(
  _request: unknown,
  { dispatch, queryFulfilled }: { dispatch: (action: UnknownAction) => unknown; queryFulfilled: Promise<unknown> },
): Promise<void> {
  const isIn = await queryFulfilled.then(
    () => true,
    () => false,
  );
  if (isIn) dispatch(api.util.resetApiState());
}

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    entrance: build.query(asks('entrance', unsaid)),
    me: build.query({ ...asks('me', unsaid), providesTags: ['me'] }),
    demoSignIn: build.mutation({
      ...asks('demoSignIn', (initials: string) => ({ body: { initials } })),
      onQueryStarted: forgetOthers,
    }),
    signIn: build.mutation({
      ...asks('signIn', (body: BodyFor<'signIn'>) => ({ body })),
      onQueryStarted: forgetOthers,
    }),
    signOut: build.mutation(asks('signOut', unsaid)),
    people: build.query({ ...asks('listPeople', unsaid), providesTags: ['people'] }),
    invite: build.mutation({
      ...asks('invite', (body: BodyFor<'invite'>) => ({ body })),
      invalidatesTags: ['people', 'registers', 'outbox'],
    }),
    savePerson: build.mutation({
      ...asks('savePerson', ({ id, ...body }: BodyFor<'savePerson'> & { id: string }) => ({ id, body })),
      invalidatesTags: ['people', 'registers', 'activity'],
    }),
    linkPerson: build.mutation({
      ...asks('linkPerson', (id: string) => ({ id })),
      invalidatesTags: ['people', 'outbox'],
    }),
    leavePerson: build.mutation({
      ...asks('leavePerson', (id: string) => ({ id })),
      invalidatesTags: ['people', 'registers', 'activity'],
    }),
    returnPerson: build.mutation({
      ...asks('returnPerson', (id: string) => ({ id })),
      invalidatesTags: ['people', 'registers', 'outbox', 'activity'],
    }),
    link: build.query(asks('lookAtLink', (token: string) => ({ body: { token } }))),
    acceptLink: build.mutation(asks('acceptLink', (body: BodyFor<'acceptLink'>) => ({ body }))),
    forgot: build.mutation(asks('forgot', (email: string) => ({ body: { email } }))),
    changePassword: build.mutation({
      ...asks('changePassword', (body: BodyFor<'changePassword'>) => ({ body })),
      invalidatesTags: ['sessions', 'keys'],
    }),
    keys: build.query({ ...asks('listKeys', unsaid), providesTags: ['keys'] }),
    makeKey: build.mutation({
      ...asks('makeKey', (body: BodyFor<'makeKey'>) => ({ body })),
      invalidatesTags: ['keys'],
    }),
    dropKey: build.mutation({ ...asks('dropKey', (id: string) => ({ id })), invalidatesTags: ['keys'] }),
    sessions: build.query({ ...asks('listSessions', unsaid), providesTags: ['sessions'] }),
    endSession: build.mutation({
      ...asks('endSession', (id: string) => ({ id })),
      invalidatesTags: ['sessions'],
    }),
  }),
});
