/**
 * What an endpoint is: one row says all there is to know of it. The server's handlers and the client take their types
 * from the row, tests walk it, the document for scripts is made of it.
 */
import type { RefusalCode } from '@nesting/core/words';
import type { z } from 'zod';
import type { Role } from './roles';

/** The names in an address that stand for something, as `id` in `/api/projects/:id`. */
type ParamNames<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamNames<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

type Status = 200 | 201 | 202 | 503;

export type Reply =
  /** By status: what is answered is the same, and the status says how far it is. */
  | { readonly json: z.ZodType; readonly status?: Status | readonly Status[] }
  /** A file to be kept, of a form that the request names. */
  | { readonly file: readonly string[] }
  /** A text to be read on the spot. */
  | { readonly text: readonly string[] }
  /** JSON and a cookie, by the library that signs people in. */
  | { readonly signsIn: z.ZodType }
  /** 204. */
  | { readonly nothing: true };

/**
 * Whose things it touches, beyond what the role may: `house` is everybody's, `own` belongs to whoever asks, `given` are
 * findings that an artist has or nobody has, `done` is a batch that an artist asked for.
 */
export type Whose = 'house' | 'own' | 'given' | 'done';

export interface Spec<Path extends string = string> {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: Path;
  /** What it does, in a line. */
  readonly does: string;
  readonly roles: readonly Role[] | 'anyone';
  readonly whose: Whose;
  readonly params?: { readonly [Name in ParamNames<Path>]: z.ZodType<string> };
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** How the body is sent, where it is not JSON: a file as it is, or the parts of a form. */
  readonly sentAs?: 'file' | 'form';
  /** Bytes that are taken of a body; the usual bound where it says nothing. */
  readonly most?: number;
  /** With one key in its body it is one act, however often it is asked for. */
  readonly once?: true;
  readonly reply: Reply;
  /** Codes of what it refuses beyond what any endpoint does. */
  readonly refuses?: readonly RefusalCode[];
}

/** A row of the table; an address with names in it has to say what each is. */
export const endpoint = <const Path extends string, const S extends Spec<Path>>(
  row: S & { readonly path: Path } & ([ParamNames<Path>] extends [never]
      ? unknown
      : Required<Pick<Spec<Path>, 'params'>>),
): S => row;

type Parsed<T> = T extends z.ZodType ? z.output<T> : undefined;
type Sent<T> = T extends z.ZodType ? z.input<T> : undefined;
type Field<S, Key extends string> = S extends Readonly<Record<Key, infer T>> ? T : undefined;

export type ParamsOf<S> =
  Field<S, 'params'> extends infer P extends object
    ? { readonly [Name in keyof P]: P[Name] extends z.ZodType<infer Word> ? Word : never }
    : Readonly<Record<never, string>>;
export type QueryOf<S> = Parsed<Field<S, 'query'>>;
export type BodyOf<S> = Parsed<Field<S, 'body'>>;

/** What a client says: as a schema takes it. */
export type SentQuery<S> = Sent<Field<S, 'query'>>;
export type SentBody<S> = Sent<Field<S, 'body'>>;

/** What comes back, as data; nothing where it is a file or nothing. */
export type ReplyOf<S> = S extends { readonly reply: { readonly json: infer T extends z.ZodType } }
  ? z.output<T>
  : S extends { readonly reply: { readonly signsIn: infer T extends z.ZodType } }
    ? z.output<T>
    : undefined;
