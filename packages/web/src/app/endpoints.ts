/** What is asked of the server by rows of the table of endpoints: addresses, bodies and replies are theirs. */
import {
  ENDPOINTS,
  type EndpointName,
  type Endpoints,
  type ParamsOf,
  type ReplyOf,
  type SentBody,
  type SentQuery,
  type Spec,
} from '@nesting/contract';
import type { FetchArgs } from '@reduxjs/toolkit/query/react';
import { addressOf, formOf } from './api';

type Present<T> = { readonly [Key in keyof T as T[Key] extends undefined ? never : Key]: T[Key] };

/** What is said to an endpoint: its parameters by their names, its query and its body where it has them. */
export type Said<Name extends EndpointName> = ParamsOf<Endpoints[Name]> &
  Present<{ query: SentQuery<Endpoints[Name]>; body: SentBody<Endpoints[Name]> }>;

export type Replied<Name extends EndpointName> = ReplyOf<Endpoints[Name]>;
export type BodyFor<Name extends EndpointName> = SentBody<Endpoints[Name]>;

interface Asks<Argument, Result> {
  readonly query: (argument: Argument) => FetchArgs;
  readonly transformResponse: (reply: Result) => Result;
}

/**
 * Of a query or a mutation: how it is asked for by what the screens say, and what comes back.
 *
 * @param headers - sent along each time
 */
export const asks = <Name extends EndpointName, Argument>(
  name: Name,
  said: (argument: Argument) => Said<Name>,
  headers: Readonly<Record<string, string>> = {},
): Asks<Argument, Replied<Name>> => ({
  query: (argument) => requestOf(ENDPOINTS[name], said(argument), headers),
  transformResponse: (reply) => reply,
});

/** For what is asked without saying anything. */
// biome-ignore lint/suspicious/noConfusingVoidType: a hook without an argument has one of type void
export const unsaid = (_: void) => ({});

interface Parts extends Readonly<Record<string, unknown>> {
  readonly query?: Readonly<Record<string, string | number | null | undefined>>;
  readonly body?: unknown;
}

/** An address to open, or to fetch a file from. */
export const addressFor = <Name extends EndpointName>(name: Name, said: Omit<Said<Name>, 'body'>): string =>
  `/api/${requestOf(ENDPOINTS[name], said, {}).url}`;

/** A file that is made from what is sent along. */
export const fetchFor = <Name extends EndpointName>(name: Name, said: Said<Name>): Promise<Response> => {
  const { url, body, ...init } = requestOf(ENDPOINTS[name], said, { 'content-type': 'application/json' });
  return fetch(`/api/${url}`, { ...init, body: JSON.stringify(body) } as RequestInit);
};

/** The address begins where the client's own begins. */
export function requestOf(row: Spec, said: object, headers: Readonly<Record<string, string>>): FetchArgs {
  const { query, body, ...params }: Parts = said as Parts;
  const url = row.path
    .slice('/api/'.length)
    .replace(/:(\w+)/g, (_, param: string) => encodeURIComponent(String(params[param])));
  const asked = query === undefined ? '' : `?${addressOf(query)}`;
  const sent = row.method === 'GET' ? {} : sentOf(row, body);
  return { url: url + asked, method: row.method, ...sent, headers: { ...headers, ...sent.headers } };
}

function sentOf({ sentAs }: Spec, body: unknown): Pick<FetchArgs, 'body'> & { headers?: Record<string, string> } {
  if (sentAs === 'file') return { body, headers: { 'content-type': 'application/octet-stream' } };
  if (sentAs === 'form') return { body: formOf(body as Readonly<Record<string, Blob | string>>) };
  // A bare null is JSON too, and has to be said.
  if (body === null) return { body: 'null', headers: { 'content-type': 'application/json' } };
  return { body: body === undefined ? {} : body };
}
