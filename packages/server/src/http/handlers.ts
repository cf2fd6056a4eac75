/** Handlers that take their types from rows of the table; a row without one does not compile. */
import type { BodyOf, Me, ParamsOf, QueryOf, Reply, ReplyOf, Spec } from '@nesting/contract';
import type { Context } from 'hono';
import { z } from 'zod';
import { Refused, type World } from '../flows/world';
import { bodyOf, checked, type Route } from './route';
import { waitAsked } from './wait';
import { requireTheirs } from './whose';

export interface Request<S> {
  readonly world: World;
  readonly me: Me;
  readonly params: ParamsOf<S>;
  readonly query: QueryOf<S>;
  readonly body: BodyOf<S>;
  /** Milliseconds that the answer may be waited for. */
  readonly wait: number;
  /** Aborted when whoever asked has gone. */
  readonly signal: AbortSignal;
}

/** A file to be kept. */
export interface FileReply {
  readonly name: string;
  readonly type: string;
  readonly body: string | Uint8Array;
}

type ReplyIn<S> = S extends { readonly reply: infer R extends Reply } ? R : never;

type AnswerOf<S> =
  ReplyIn<S> extends { readonly nothing: true }
    ? unknown
    : ReplyIn<S> extends { readonly file: readonly string[] }
      ? FileReply
      : ReplyIn<S> extends { readonly text: readonly string[] }
        ? string
        : ReplyIn<S> extends { readonly status: readonly (infer Status)[] }
          ? { readonly status: Status; readonly json: ReplyOf<S> }
          : ReplyOf<S>;

export type Handlers<Table> = {
  readonly [Name in keyof Table]: (request: Request<Table[Name]>) => Promise<AnswerOf<Table[Name]>>;
};

export function routesOf<const Table extends Readonly<Record<string, Spec>>>(
  table: Table,
  handlers: Handlers<Table>,
): readonly Route[] {
  return Object.entries(table).map(([name, row]): Route => {
    // The compiler has held the handler against its row; here all rows are alike.
    const handler = handlers[name] as (request: Request<Spec>) => Promise<unknown>;
    return {
      method: row.method,
      path: row.path,
      roles: row.roles,
      handle: async ({ c, world, me }) => {
        const params = paramsIn(c, row);
        const query = row.query === undefined ? undefined : checked(c.req.query(), row.query);
        const body = row.body === undefined ? undefined : await bodyOf(c, row.body);
        await requireTheirs(world, me, row.whose, { params, body });
        const answer = await handler({
          world,
          me,
          params,
          query,
          body,
          wait: waitAsked(c),
          signal: c.req.raw.signal,
        } as Request<Spec>);
        return replied(c, row.reply, answer);
      },
    };
  });
}

/** What is no id is no address. */
function paramsIn(c: Context, { params = {} }: Spec): Readonly<Record<string, string>> {
  const parsed = z.object(params).safeParse(c.req.param());
  if (!parsed.success) throw new Refused(404, 'not-found', 'There is nothing at this address.');
  return parsed.data as Readonly<Record<string, string>>;
}

function replied(c: Context, reply: Reply, answer: unknown): Response {
  if ('nothing' in reply) return c.body(null, 204);
  if ('file' in reply) {
    const { name, type, body } = answer as FileReply;
    return c.body(typeof body === 'string' ? body : Uint8Array.from(body), 200, {
      'content-type': type,
      'content-disposition': `attachment; filename="${encodeURIComponent(name)}"`,
    });
  }
  if ('text' in reply) return c.text(answer as string);
  if (typeof reply.status === 'object') {
    const { status, json } = answer as { readonly status: 200 | 201 | 202; readonly json: object };
    return c.json(json, status);
  }
  return c.json(answer as object | null, reply.status ?? 200);
}
