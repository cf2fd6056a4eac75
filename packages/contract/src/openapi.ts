/** The document of the table of endpoints, for whoever scripts against it: OpenAPI 3.1. */
import { z } from 'zod';
import type { Reply, Spec } from './endpoint';

/** A node of the document: plain JSON. */
type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };
type Node = { readonly [key: string]: Json };

interface Named {
  readonly name: string;
  readonly schema: z.ZodType;
}

export interface Document {
  readonly openapi: '3.1.0';
  readonly [key: string]: Json;
}

/** @param table - rows by their names, which are the document's `operationId`s */
export function openApiOf(table: Readonly<Record<string, Spec>>, version: string): Document {
  const rows = Object.entries(table);
  const paths: Record<string, Record<string, Node>> = {};
  for (const [name, row] of rows) {
    const path = row.path.replace(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [row.method.toLowerCase()]: operationOf(name, row) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Nesting',
      version,
      description:
        'Folders, names and checks of a studio’s projects. Whoever scripts against it signs in by an access key.',
    },
    paths,
    components: {
      schemas: { ...schemasOf(rows.flatMap(([name, row]) => namedOf(name, row))), Refusal: REFUSAL },
      securitySchemes: {
        key: { type: 'http', scheme: 'bearer', description: 'An access key, made on one’s own page.' },
      },
    },
    security: [{ key: [] }],
  };
}

const REFUSAL: Node = {
  type: 'object',
  properties: { code: { type: 'string' }, message: { type: 'string', description: 'What happened, in English.' } },
  required: ['code', 'message'],
  additionalProperties: false,
};

const refTo = (name: string): Node => ({ $ref: `#/components/schemas/${name}` });
const asJson = (schema: Node): Node => ({ 'application/json': { schema } });
const bodyName = (name: string): string => `${name}.body`;
const replyName = (name: string): string => `${name}.reply`;

function namedOf(name: string, { body, reply }: Spec): Named[] {
  return [
    ...(body === undefined ? [] : [{ name: bodyName(name), schema: body }]),
    ...('json' in reply ? [{ name: replyName(name), schema: reply.json }] : []),
    ...('signsIn' in reply ? [{ name: replyName(name), schema: reply.signsIn }] : []),
  ];
}

/** Schemas as they are sent: what has a usual value need not be said. */
function schemasOf(named: readonly Named[]): Record<string, Json> {
  const registry = z.registry<{ id: string }>();
  const aliases: Record<string, Json> = {};
  for (const { name, schema } of named) {
    const known = registry.get(schema);
    // Several rows may share one schema.
    if (known === undefined) registry.add(schema, { id: name });
    else aliases[name] = refTo(known.id);
  }
  const { schemas } = z.toJSONSchema(registry, { io: 'input', uri: (id) => `#/components/schemas/${id}` });
  // The parts that several share stand in a list of their own, and are found by the whole document's path.
  const text = JSON.stringify(schemas).replaceAll('__shared#/$defs/', '__shared/$defs/');
  const whole = JSON.parse(text, (key, value) => (key === '$schema' || key === '$id' ? undefined : value)) as Record<
    string,
    Json
  >;
  return { ...whole, ...aliases };
}

function operationOf(name: string, row: Spec): Node {
  const { params = {}, query, body, roles, refuses = [] } = row;
  const parameters = [
    ...Object.entries(params).map(([param, schema]) => parameterOf('path', param, schema)),
    ...Object.entries(query?.shape ?? {}).map(([param, schema]) => parameterOf('query', param, schema)),
  ];
  return {
    operationId: name,
    summary: row.does,
    description: [
      roles === 'anyone' ? 'Open to anyone.' : `For: ${roles.join(', ')}.`,
      WHOSE_WORDS[row.whose],
      row.once ? ' Asked again with the same `key`, it is done once.' : '',
    ].join(''),
    ...(parameters.length > 0 && { parameters }),
    ...(body !== undefined && {
      requestBody: { required: true, content: { [typeOfBody(row)]: { schema: refTo(bodyName(name)) } } },
    }),
    responses: { ...repliesOf(name, row.reply), default: refusalOf(refuses) },
    ...(roles === 'anyone' && { security: [] }),
  };
}

const typeOfBody = ({ sentAs }: Spec): string =>
  sentAs === undefined ? 'application/json' : sentAs === 'file' ? 'application/octet-stream' : 'multipart/form-data';

const WHOSE_WORDS: Readonly<Record<Spec['whose'], string>> = {
  house: '',
  own: ' One’s own alone.',
  given: ' Artists: of findings that are theirs or nobody’s.',
  done: ' Artists: of changes that they asked for.',
};

function parameterOf(place: 'path' | 'query', name: string, schema: unknown): Node {
  const type = schema as z.ZodType;
  const { $schema: _, ...json } = z.toJSONSchema(type, { io: 'input' });
  const isRequired = place === 'path' || !type.safeParse(undefined).success;
  return { name, in: place, required: isRequired, schema: JSON.parse(JSON.stringify(json)) as Node };
}

function repliesOf(name: string, reply: Reply): Node {
  if ('nothing' in reply) return { 204: { description: 'Done.' } };
  if ('file' in reply) return { 200: { description: 'A file.', content: textsOf(reply.file) } };
  if ('text' in reply) return { 200: { description: 'A text.', content: textsOf(reply.text) } };
  const content = asJson(refTo(replyName(name)));
  if ('signsIn' in reply) return { 200: { description: 'It was done; a cookie comes along.', content } };
  const statuses = typeof reply.status === 'object' ? reply.status : [reply.status ?? 200];
  return Object.fromEntries(statuses.map((status) => [status, { description: STATUS_WORDS[status], content }]));
}

const textsOf = (types: readonly string[]): Node =>
  Object.fromEntries(types.map((type) => [type, { schema: { type: 'string' } }]));

const STATUS_WORDS: Readonly<Record<200 | 201 | 202 | 503, string>> = {
  200: 'What was asked for.',
  201: 'It was made.',
  202: 'It was accepted, and goes on.',
  503: 'It is not well.',
};

const refusalOf = (codes: readonly string[]): Node => ({
  description: codes.length === 0 ? 'Refused.' : `Refused, among others: ${codes.join(', ')}.`,
  content: asJson(refTo('Refusal')),
});
