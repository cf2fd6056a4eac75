/**
 * What breaks a request that would be done: what people paste, what scripts get wrong, what an attacker sends. Each is
 * drawn by a seed, so that it can be drawn again.
 */
import fc from 'fast-check';

/** A request as it goes out. */
export interface Raw {
  readonly method: string;
  readonly address: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | Uint8Array | null;
}

const deep = (levels: number, open: string, close: string): string => open.repeat(levels) + close.repeat(levels);

const LEAVES: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  2 ** 53,
  0.5,
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  '‮txt.exe',
  '../../../etc/passwd',
  '/etc/passwd',
  'C:\\Windows',
  '%2e%2e%2f',
  'x'.repeat(5000),
  '2026-02-31',
  '{{7*7}}',
  "'; drop table project; --",
  '=cmd()',
  'é'.repeat(300),
  '👩‍🎨',
  [],
  {},
  [[]],
  ['a', 'a'],
  { a: { b: { c: {} } } },
];

const WORDS: readonly string[] = [
  'x',
  '..',
  '.',
  '%00',
  '%2500',
  '%252e%252e%252f',
  '%ff',
  '%C0%AF',
  '00000000-0000-4000-8000-000000000000',
  '0',
  '-1',
  '999999999999999999999',
  'NaN',
  '1e9',
  'x'.repeat(3000),
  "'%20or%201=1",
  '%E2%80%AE',
  'constructor',
  '__proto__',
  '[]',
  '{}',
];

const BODIES: readonly (string | Uint8Array | null)[] = [
  '',
  '{',
  'null',
  '[]',
  '"x"',
  '12',
  'undefined',
  '{"__proto__":{"role":"coordinator"}}',
  '{"constructor":{"prototype":{"a":1}}}',
  '{"a":1,"a":2}',
  '\ufeff{}',
  deep(10_000, '[', ']'),
  deep(10_000, '{"a":', '}').replace('{"a":}', '{}'),
  `{"values":${deep(10_000, '{"a":', '}').replace('{"a":}', '{}')}}`,
  'x'.repeat(5_000_000),
  Uint8Array.of(0, 255, 254, 1, 128),
  Uint8Array.of(0x1f, 0x8b, 8, 0, 0, 0, 0, 0),
  Uint8Array.of(0x50, 0x4b, 3, 4, 0, 0, 0, 0),
  null,
];

const HEADERS: readonly Readonly<Record<string, string>>[] = [
  { 'content-type': 'text/plain' },
  { 'content-type': 'application/x-www-form-urlencoded' },
  { 'content-type': 'multipart/form-data; boundary=x' },
  { 'content-type': 'multipart/form-data' },
  { 'content-type': 'application/json; charset=utf-16' },
  { 'content-type': '' },
  { 'content-encoding': 'gzip' },
  { origin: 'https://elsewhere.example' },
  { origin: 'null' },
  { prefer: 'wait=99999999999999' },
  { prefer: 'wait=-1, wait="x"' },
  { authorization: 'Bearer nest_nothing' },
  { authorization: 'Basic eDp4' },
  { 'x-forwarded-for': '10.0.0.1, ::1' },
  { 'x-request-id': '../../../log' },
  { cookie: 'nesting.session_token=x.y' },
  { 'accept-encoding': 'nothing;q=9' },
  { 'if-none-match': '*' },
];

type Path = readonly (string | number)[];

/** Every place in a body, the whole one too. */
function placesIn(value: unknown, at: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [at];
  return [at, ...Object.entries(value).flatMap(([key, inside]) => placesIn(inside, [...at, key]))];
}

function withAt(value: unknown, [key, ...rest]: Path, put: (was: unknown) => unknown): unknown {
  if (key === undefined) return put(value);
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string | number, unknown>;
  const inside = withAt(copy[key], rest, put);
  if (inside === GONE) delete copy[key];
  else copy[key] = inside;
  return copy;
}

const GONE = Symbol('gone');

/** Somewhere in a body another value, one key less, or one more. */
const brokenBody = (body: unknown): fc.Arbitrary<string> =>
  fc
    .record({
      place: fc.constantFrom(...placesIn(body)),
      leaf: fc.constantFrom(...LEAVES),
      way: fc.constantFrom('put', 'put', 'put', 'drop', 'add', 'twice'),
    })
    .map(({ place, leaf, way }) => {
      const put = (was: unknown): unknown => {
        if (way === 'drop') return place.length === 0 ? {} : GONE;
        if (way === 'add' && typeof was === 'object' && was !== null && !Array.isArray(was))
          return { ...was, surplus: leaf, __proto__: null };
        if (way === 'twice' && Array.isArray(was)) return [...was, ...was, leaf];
        return leaf;
      };
      return JSON.stringify(withAt(body, place, put)) ?? 'null';
    });

const brokenAddress = (address: string): fc.Arbitrary<string> => {
  const [path = '', query = ''] = address.split('?');
  const parts = path.split('/');
  const params = [...new URLSearchParams(query).keys(), 'edition', 'from', 'limit', 'path'];
  return fc.oneof(
    // Behind `/api` and the noun.
    fc
      .tuple(fc.integer({ min: Math.min(3, parts.length - 1), max: parts.length - 1 }), fc.constantFrom(...WORDS))
      .map(([at, word]) => `${parts.with(at, word).join('/')}${query === '' ? '' : `?${query}`}`),
    fc
      .tuple(fc.constantFrom(...params), fc.constantFrom(...WORDS))
      .map(([param, word]) => `${path}?${param}=${word}${query === '' ? '' : `&${query}`}`),
  );
};

/** @param json - the body as data, where it is JSON */
export const broken = (good: Raw, json: unknown): fc.Arbitrary<Raw> => {
  const headers = fc.constantFrom(...HEADERS).map((more): Raw => ({ ...good, headers: { ...good.headers, ...more } }));
  const address = brokenAddress(good.address).map((to): Raw => ({ ...good, address: to }));
  if (good.method === 'GET') return fc.oneof({ weight: 3, arbitrary: address }, headers);
  const whole = fc.constantFrom(...BODIES).map((body): Raw => ({ ...good, body }));
  const parts = json === undefined ? whole : brokenBody(json).map((body): Raw => ({ ...good, body }));
  return fc.oneof({ weight: 4, arbitrary: parts }, { weight: 2, arbitrary: whole }, address, headers);
};
