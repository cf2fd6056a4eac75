/** Handlers that take their types from rows of the table; a row without one does not compile. */
import type { BodyOf, ParamsOf, QueryOf, Reply, ReplyOf, Spec } from '@nesting/contract';
import { base64 } from '@nesting/core/text';
import type { Context } from 'hono';
import { z } from 'zod';
import { Refused } from '../flows/world';
import type { ByteRange } from './range';
import { type Asked, checked, jsonIn, type Route } from './route';
import { waitAsked } from './wait';
import { malformedIn } from './well-formed';
import { requireTheirs } from './whose';

export interface Request<S> extends Omit<Asked, 'c'> {
  readonly params: ParamsOf<S>;
  readonly query: QueryOf<S>;
  readonly body: BodyOf<S>;
  /** Milliseconds that the answer may be waited for. */
  readonly wait: number;
  /** Aborted when whoever asked has gone. */
  readonly signal: AbortSignal;
  /** As it came, for the library that signs people in; its body is read. */
  readonly raw: globalThis.Request;
}

/** A file to be kept. */
export interface FileReply {
  readonly name: string;
  readonly type: string;
  readonly body: string | Uint8Array | ReadableStream<Uint8Array>;
  /** Bytes of the whole file, where any part of it may be asked for; and the part that this is. */
  readonly whole?: number;
  readonly range?: ByteRange;
  /** SHA-256 of what is sent (`Content-Digest`, RFC 9530). */
  readonly sha256?: Uint8Array;
}

/** A reply that the database has put together already: long lists are not made into objects and back on the way. */
export class MadeJson {
  constructor(readonly text: string) {}
}

type ReplyIn<S> = S extends { readonly reply: infer R extends Reply } ? R : never;

type AnswerOf<S> =
  ReplyIn<S> extends { readonly nothing: true }
    ? unknown
    : ReplyIn<S> extends { readonly file: readonly string[] }
      ? FileReply
      : ReplyIn<S> extends { readonly text: readonly string[] }
        ? string
        : ReplyIn<S> extends { readonly signsIn: unknown }
          ? Response
          : ReplyIn<S> extends { readonly status: readonly (infer Status)[] }
            ? { readonly status: Status; readonly json: ReplyOf<S> }
            : ReplyOf<S> | MadeJson;

/** Somebody's file: never opened by the browser as what it says it is. */
export const somebodysFile = (name: string, body: Uint8Array): FileReply => ({
  name,
  type: 'application/octet-stream',
  body,
});

export const zipped = ({ name, bytes }: { readonly name: string; readonly bytes: Uint8Array }): FileReply => ({
  name,
  type: 'application/zip',
  body: bytes,
});

export const bytesOf = async (file: File): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());

export type Handlers<Table> = {
  readonly [Name in keyof Table]: (
    request: Request<Table[Name]>,
  ) => Promise<AnswerOf<Table[Name]>> | AnswerOf<Table[Name]>;
};

export function routesOf<const Table extends Readonly<Record<string, Spec>>>(
  table: Table,
  handlers: Handlers<Table>,
): readonly Route[] {
  return Object.entries(table).map(([name, row]): Route => {
    // The compiler has held the handler against its row; here all rows are alike.
    const handler = handlers[name] as (request: Request<Spec>) => Promise<unknown>;
    return {
      name,
      method: row.method,
      path: row.path,
      roles: row.roles,
      ...(row.most !== undefined && { most: row.most }),
      handle: async ({ c, ...asked }) => {
        const params = paramsIn(c, row);
        const query = row.query === undefined ? undefined : checked(c.req.query(), row.query);
        const body = row.body === undefined ? undefined : checked(await bodyIn(c, row), row.body);
        await requireTheirs(asked.world, asked.me, row.whose, { params, body });
        const answer = await handler({
          ...asked,
          params,
          query,
          body,
          wait: waitAsked(c),
          signal: c.req.raw.signal,
          raw: c.req.raw,
        } as Request<Spec>);
        return replied(c, row.reply, answer);
      },
    };
  });
}

/** What is no id is no address. */
function paramsIn(c: Context, { params = {} }: Spec): Readonly<Record<string, string>> {
  const given: unknown = c.req.param();
  const parsed = z.object(params).safeParse(given);
  if (!parsed.success || malformedIn(given) !== null) throw new Refused('not-found');
  return parsed.data as Readonly<Record<string, string>>;
}

/** A file as it was sent has no name: it is known by its address. */
async function bodyIn(c: Context, { sentAs }: Spec): Promise<unknown> {
  switch (sentAs) {
    case 'file':
      return new File([new Uint8Array(await c.req.arrayBuffer())], '');
    case 'form':
      // What says that it is a form, and is none.
      return c.req.parseBody().catch(() => {
        throw new Refused('not-as-expected', { at: '', says: 'it is no form that can be read.' });
      });
    case undefined:
      return jsonIn(c);
  }
}

function replied(c: Context, reply: Reply, answer: unknown): Response {
  if ('nothing' in reply) return c.body(null, 204);
  if (isFile(answer, reply)) {
    const { name, type, body } = answer;
    return c.body(body instanceof Uint8Array ? Uint8Array.from(body) : body, answer.range === undefined ? 200 : 206, {
      'content-type': type,
      'content-disposition': `attachment; filename="${encodeURIComponent(name)}"`,
      ...rangeHeaders(answer),
      ...(answer.sha256 && { 'content-digest': `sha-256=:${base64(answer.sha256)}:` }),
    });
  }
  if ('text' in reply) return c.body(String(answer), 200, { 'content-type': reply.text[0] ?? 'text/plain' });
  if (answer instanceof Response) return answer;
  if (answer instanceof MadeJson) return c.body(answer.text, 200, { 'content-type': 'application/json' });
  if (isStatused(answer, reply)) return c.json(answer.json, answer.status);
  const status = 'json' in reply && typeof reply.status === 'number' ? reply.status : 200;
  return c.json(answer as object | null, status);
}

/** A download that was cut short can go on where it was. */
function rangeHeaders({ whole, range }: FileReply): Record<string, string> {
  if (whole === undefined) return {};
  const { from, to } = range ?? { from: 0, to: whole };
  return {
    'accept-ranges': 'bytes',
    'content-length': String(to - from),
    ...(range !== undefined && { 'content-range': `bytes ${from}-${to - 1}/${whole}` }),
  };
}

// The compiler has held what a handler answers against its row.
const isFile = (_answer: unknown, reply: Reply): _answer is FileReply => 'file' in reply;
const isStatused = (
  _answer: unknown,
  reply: Reply,
): _answer is { readonly status: 200 | 201 | 202 | 503; readonly json: object } =>
  'json' in reply && typeof reply.status === 'object';
