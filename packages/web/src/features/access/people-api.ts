/** Who is there, how people come in, and what they may open. */

import type { Entrance, Invite, Invited, KeyRow, LinkFound, Me, PersonRow, SessionRow } from '@nesting/contract';
import type { UnknownAction } from '@reduxjs/toolkit';
import { api } from '../../app/api';

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
    entrance: build.query<Entrance, void>({ query: () => 'entrance' }),
    me: build.query<Me, void>({ query: () => 'me', providesTags: ['me'] }),
    demoSignIn: build.mutation<unknown, string>({
      query: (initials) => ({ url: 'demo/sign-in', method: 'POST', body: { initials } }),
      onQueryStarted: forgetOthers,
    }),
    signIn: build.mutation<unknown, { email: string; password: string }>({
      query: (body) => ({ url: 'auth/sign-in/email', method: 'POST', body }),
      onQueryStarted: forgetOthers,
    }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'auth/sign-out', method: 'POST', body: {} }) }),
    people: build.query<PersonRow[], void>({ query: () => 'people', providesTags: ['people'] }),
    invite: build.mutation<Invited, Invite>({
      query: (body) => ({ url: 'people', method: 'POST', body }),
      invalidatesTags: ['people', 'registers', 'outbox'],
    }),
    savePerson: build.mutation<void, Invite & { id: string; version: number }>({
      query: ({ id, ...body }) => ({ url: `people/${id}`, method: 'PUT', body }),
      invalidatesTags: ['people', 'registers', 'activity'],
    }),
    linkPerson: build.mutation<Invited, string>({
      query: (id) => ({ url: `people/${id}/link`, method: 'POST', body: {} }),
      invalidatesTags: ['people', 'outbox'],
    }),
    leavePerson: build.mutation<void, string>({
      query: (id) => ({ url: `people/${id}/leave`, method: 'POST', body: {} }),
      invalidatesTags: ['people', 'registers', 'activity'],
    }),
    returnPerson: build.mutation<Invited, string>({
      query: (id) => ({ url: `people/${id}/return`, method: 'POST', body: {} }),
      invalidatesTags: ['people', 'registers', 'outbox', 'activity'],
    }),
    link: build.query<LinkFound, string>({
      query: (token) => ({ url: 'access/link', method: 'POST', body: { token } }),
    }),
    acceptLink: build.mutation<
      { email: string },
      { token: string; password: string; first?: { name: string; email: string; initials: string } }
    >({ query: (body) => ({ url: 'access/accept', method: 'POST', body }) }),
    forgot: build.mutation<void, string>({
      query: (email) => ({ url: 'access/forgot', method: 'POST', body: { email } }),
    }),
    changePassword: build.mutation<void, { old: string; password: string }>({
      query: (body) => ({ url: 'me/password', method: 'POST', body }),
      invalidatesTags: ['sessions'],
    }),
    keys: build.query<KeyRow[], void>({ query: () => 'me/keys', providesTags: ['keys'] }),
    makeKey: build.mutation<{ key: string }, { name: string; days: number | null }>({
      query: (body) => ({ url: 'me/keys', method: 'POST', body }),
      invalidatesTags: ['keys'],
    }),
    dropKey: build.mutation<void, string>({
      query: (id) => ({ url: `me/keys/${id}`, method: 'DELETE' }),
      invalidatesTags: ['keys'],
    }),
    sessions: build.query<SessionRow[], void>({ query: () => 'me/sessions', providesTags: ['sessions'] }),
    endSession: build.mutation<void, string>({
      query: (id) => ({ url: `me/sessions/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['sessions'],
    }),
  }),
});
