/**
 * References in files to other files: where they stand, what they mean, and how another one would be written in their
 * place.
 */
import { decodeHTMLStrict, decodeXML, encodeXML } from 'entities';

/** How a path is written at its place. The words are taken off from the left: first the entities, then the URL. */
export type Encoding = 'plain' | 'url' | 'json' | 'json-url' | 'html' | 'html-url' | 'xml' | 'xml-url' | 'csv';

export interface Reference {
  /** UTF-16 units from the text's beginning; `end` is behind the last one. Of a URL its path alone. */
  readonly start: number;
  readonly end: number;
  /** The path it means, or a whole URL that leads elsewhere. */
  readonly target: string;
  readonly encoding: Encoding;
}

export interface RefFormat {
  readonly name: string;
  /** Small letters, without a dot. */
  readonly extensions: readonly string[];
  /** In the order in which they stand. Linear in the text; what is broken yields nothing, never an exception. */
  readonly find: (text: string) => Reference[];
}

/** What of a URL is its path: a query or a fragment behind it belongs to whoever reads the file. */
function pathOfUrl(url: string): string {
  const end = url.search(/[?#]/);
  return end < 0 ? url : url.slice(0, end);
}

/** People write a bare `%` too, and programs take it. */
function decodeUrl(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}

/** `encodeURI` leaves `?` and `#`, which would end the path. */
const encodeUrl = (path: string): string => encodeURI(path).replaceAll('?', '%3F').replaceAll('#', '%23');

const fromJson = (written: string): string => {
  const value: unknown = JSON.parse(`"${written}"`);
  return typeof value === 'string' ? value : '';
};
const toJson = (text: string): string => JSON.stringify(text).slice(1, -1);

interface Codec {
  readonly decode: (written: string) => string;
  readonly encode: (target: string) => string;
}

const same = (text: string): string => text;
const CODECS: Readonly<Record<Encoding, Codec>> = {
  plain: { decode: same, encode: same },
  url: { decode: decodeUrl, encode: encodeUrl },
  json: { decode: fromJson, encode: toJson },
  'json-url': { decode: (w) => decodeUrl(fromJson(w)), encode: (t) => toJson(encodeUrl(t)) },
  html: { decode: decodeHTMLStrict, encode: encodeXML },
  'html-url': { decode: (w) => decodeUrl(decodeHTMLStrict(w)), encode: (t) => encodeXML(encodeUrl(t)) },
  xml: { decode: decodeXML, encode: encodeXML },
  'xml-url': { decode: (w) => decodeUrl(decodeXML(w)), encode: (t) => encodeXML(encodeUrl(t)) },
  csv: { decode: (w) => w.replaceAll('""', '"'), encode: (t) => t.replaceAll('"', '""') },
};

/** A target as it is written in its place. */
export const encode = (target: string, encoding: Encoding): string => CODECS[encoding].encode(target);

/** A reference in a stretch of a text; nothing where the stretch is not written as its format says, or means nothing. */
export function referenceAt(text: string, start: number, end: number, encoding: Encoding): Reference[] {
  const written = text.slice(start, end);
  const path = encoding.endsWith('url') ? pathIn(written, encoding) : written;
  try {
    const target = CODECS[encoding].decode(path);
    return target.trim() === '' ? [] : [{ start, end: start + path.length, target, encoding }];
  } catch {
    return [];
  }
}

/** The path of a URL as it is written, entities and escapes and all. */
function pathIn(written: string, encoding: Encoding): string {
  // `#` of `&#39;` begins no fragment. In JSON programs write frames as `####` and no fragments.
  if (encoding === 'json-url') return /[?#](?![^/]*\.[A-Za-z0-9]+$)/.test(written) ? pathOfUrl(written) : written;
  if (encoding === 'url') return pathOfUrl(written);
  const masked = written.replace(/&#?\w+;/g, (entity) => 'x'.repeat(entity.length));
  return written.slice(0, pathOfUrl(masked).length);
}

/** Where a group of an expression matched: expressions must carry the flags `d` and `g`. */
export function referencesBy(
  text: string,
  expression: RegExp,
  group: number,
  encoding: Encoding,
  offset = 0,
): Reference[] {
  const out: Reference[] = [];
  for (const match of text.matchAll(expression)) {
    const place = match.indices?.[group];
    if (place === undefined) continue;
    for (const r of referenceAt(text, place[0], place[1], encoding))
      out.push(offset === 0 ? r : { ...r, start: r.start + offset, end: r.end + offset });
  }
  return out;
}

/** The text with other targets in some places; `null` leaves one as it is. */
export function withTargets(
  text: string,
  references: readonly Reference[],
  other: (reference: Reference) => string | null,
): string {
  let out = '';
  let at = 0;
  for (const reference of references) {
    const target = other(reference);
    if (target === null) continue;
    out += text.slice(at, reference.start) + encode(target, reference.encoding);
    at = reference.end;
  }
  return out + text.slice(at);
}
