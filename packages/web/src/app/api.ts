/** What the server says, cached by RTK Query. Types come from the contract alone. */
import type { ProjectOrder, Refusal } from '@nesting/contract';
import { createApi, type FetchBaseQueryError, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** A query's part of an address; what has no value is left out. */
export const addressOf = (query: Readonly<Record<string, string | number | null | undefined>>): string =>
  new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) =>
      value === undefined || value === null || value === '' ? [] : [[key, String(value)]],
    ),
  ).toString();

export function formOf(parts: Readonly<Record<string, Blob | string>>): FormData {
  const form = new FormData();
  for (const [name, part] of Object.entries(parts)) form.append(name, part);
  return form;
}

const fetchJson = fetchBaseQuery({ baseUrl: '/api' });

/** Where a session has ended meanwhile, who is there is asked again: the sign-in page comes, and what was typed stays. */
const fetchOrSignOut: typeof fetchJson = async (request, context, extra) => {
  const result = await fetchJson(request, context, extra);
  if (result.error?.status === 401 && context.endpoint !== 'me' && context.endpoint !== 'signIn')
    context.dispatch({ type: SESSION_ENDED });
  return result;
};
export const SESSION_ENDED = 'session/ended';

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchOrSignOut,
  tagTypes: [
    'me',
    'projects',
    'checks',
    'templates',
    'conventions',
    'blocks',
    'registers',
    'starters',
    'volumes',
    'marks',
    'carry-ways',
    'pack-ways',
    'packages',
    'numbers',
    'people',
    'keys',
    'sessions',
    'activity',
    'outbox',
    'batches',
    'findings',
    'later-repairs',
    'intake',
  ],
  endpoints: () => ({}),
});

/** What findings are asked for by: the address's own words. */
export type FindingsAsked = { readonly project: string } & Readonly<
  Partial<Record<'view' | 'rule' | 'weight' | 'folder' | 'person' | 'find' | 'group', string>>
>;

/** What a page of projects is asked for by. */
export interface ProjectsAsked {
  readonly find: string;
  readonly state: string | null;
  readonly by: ProjectOrder;
  readonly down: 'true' | 'false';
}

/** The sentence to show for a failed request. */
export function troubleOf(error: unknown): string {
  const fault = error as Partial<FetchBaseQueryError> | undefined;
  const refusal = fault?.data as Partial<Refusal> | undefined;
  if (refusal?.message) return refusal.message;
  if (fault?.status === 'FETCH_ERROR')
    return 'The server cannot be reached. Nothing was changed; try again in a moment.';
  return 'The server gave no answer that can be understood. Nothing was changed here; try again in a moment.';
}

/** The code of a refusal; `null` for any other trouble. */
export const refusalCodeOf = (error: unknown): string | null =>
  ((error as Partial<FetchBaseQueryError> | undefined)?.data as Partial<Refusal> | undefined)?.code ?? null;

/** What a refusal says of one of its words; `null` where it says nothing of it. */
export function refusalParamOf(error: unknown, param: string): string | null {
  const { params } = ((error as Partial<FetchBaseQueryError> | undefined)?.data ?? {}) as Partial<Refusal>;
  const said = (params as Readonly<Record<string, unknown>> | undefined)?.[param];
  return typeof said === 'string' ? said : null;
}

/** The HTTP status of a failed request; `null` where nothing was answered. */
export const statusOf = (error: unknown): number | null => {
  const { status } = (error ?? {}) as Partial<FetchBaseQueryError>;
  return typeof status === 'number' ? status : null;
};

export const isSignedOut = (error: unknown): boolean => statusOf(error) === 401;
