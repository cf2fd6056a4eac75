/** What a route is. Who may use it stands in the route itself, and is decided in one place, in `app.ts`. */
import type { Me, Role } from '@nesting/contract';
import type { Context } from 'hono';
import type { z } from 'zod';
import type { VitalSigns } from '../flows/house/vitals';
import { Refused, type World } from '../flows/world';
import type { Metrics } from '../metrics';
import type { Auth } from '../sign-in/auth';
import { malformedIn } from './well-formed';

/** What is watched from outside. */
export interface Watch {
  readonly vitals: VitalSigns;
  /** `null` where nobody asked for them. */
  readonly metrics: Metrics | null;
}

export interface Asked {
  readonly c: Context;
  readonly world: World;
  readonly auth: Auth;
  readonly watch: Watch;
  /** Who asks; for routes open to anyone, nobody. */
  readonly me: Me;
  /** The session asked in; `null` by key, and where nobody is signed in. */
  readonly session: { readonly id: string; readonly token: string } | null;
}

export interface Route {
  /** In the table of endpoints. */
  readonly name: string;
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly roles: readonly Role[] | 'anyone';
  /** Bytes that are taken; the usual bound where it says nothing. */
  readonly most?: number;
  readonly handle: (asked: Asked) => Promise<Response> | Response;
}

export const found = <T>(value: T | null): T => {
  if (value === null) throw new Refused('not-found');
  return value;
};

export async function jsonIn(c: Context): Promise<unknown> {
  try {
    return await c.req.json();
  } catch {
    throw new Refused('not-json');
  }
}

/** What is given, as its schema has it; a refusal names the first thing that is wrong. */
export function checked<T>(data: unknown, schema: z.ZodType<T>): T {
  const malformed = malformedIn(data);
  if (malformed !== null) throw new Refused('not-as-expected', { at: malformed.at, says: malformed.says });
  const parsed = schema.safeParse(data);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new Refused('not-as-expected', { at: issue?.path.join('.') ?? '', says: issue?.message ?? 'not as expected' });
}
