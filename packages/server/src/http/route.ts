/** What a route is. Who may use it stands in the route itself, and is decided in one place, in `app.ts`. */
import type { Me, Role } from '@nesting/contract';
import type { Context } from 'hono';
import type { z } from 'zod';
import { Refused, type World } from '../flows/world';
import type { Auth } from '../sign-in/auth';

export interface Asked {
  readonly c: Context;
  readonly world: World;
  readonly auth: Auth;
  /** Who asks; for routes open to anyone, nobody. */
  readonly me: Me;
  /** The session asked in; `null` by key, and where nobody is signed in. */
  readonly session: { readonly id: string; readonly token: string } | null;
}

export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly roles: readonly Role[] | 'anyone';
  /** Bytes that are taken; the usual bound where it says nothing. */
  readonly most?: number;
  readonly handle: (asked: Asked) => Promise<Response> | Response;
}

export const found = <T>(value: T | null): T => {
  if (value === null) throw new Refused(404, 'not-found', 'There is nothing at this address.');
  return value;
};

/** The body, checked by its schema; a refusal names the first thing that is wrong. */
export async function bodyOf<T>(c: Context, schema: z.ZodType<T>): Promise<T> {
  let data: unknown;
  try {
    data = await c.req.json();
  } catch {
    throw new Refused(400, 'not-json', 'The request is not JSON.');
  }
  return checked(data, schema);
}

export function checked<T>(data: unknown, schema: z.ZodType<T>): T {
  const parsed = schema.safeParse(data);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new Refused(
    400,
    'not-as-expected',
    `${issue?.path.join('.') || 'The request'}: ${issue?.message ?? 'not as expected'}`,
  );
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Ids of rules are words of the house's own, not made up by the program. */
export const wordOf = (c: Context, name = 'id'): string => (c.req.param(name) ?? '').slice(0, 200);

export function idOf(c: Context, name = 'id'): string {
  const id = c.req.param(name) ?? '';
  if (!UUID.test(id)) throw new Refused(404, 'not-found', 'There is nothing at this address.');
  return id;
}

/** Somebody's file, never opened by the browser as what it says it is. */
export const asFile = (c: Context, bytes: Uint8Array): Response =>
  c.body(Uint8Array.from(bytes), 200, {
    'content-type': 'application/octet-stream',
    'content-disposition': 'attachment',
  });
