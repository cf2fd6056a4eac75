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
import { addressOf } from './api';

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

/** The address begins where the client's own begins. */
export function requestOf({ method, path }: Spec, said: object, headers: Readonly<Record<string, string>>): FetchArgs {
  const { query, body, ...params }: Parts = said as Parts;
  const url = path
    .slice('/api/'.length)
    .replace(/:(\w+)/g, (_, param: string) => encodeURIComponent(String(params[param])));
  const asked = query === undefined ? '' : `?${addressOf(query)}`;
  const sends = method === 'GET' ? {} : { body: body === undefined ? {} : body };
  // A bare null is JSON too, and has to be said.
  const json = body === null ? { body: 'null', headers: { ...headers, 'content-type': 'application/json' } } : sends;
  return { url: url + asked, method, headers: { ...headers }, ...json };
}
