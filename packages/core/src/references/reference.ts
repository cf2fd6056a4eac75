/**
 * References in files to other files: where they stand, what they mean, and how another one would be written in their
 * place.
 */

/** How a path is written at its place. */
export type Encoding = 'plain' | 'percent' | 'json' | 'json-percent' | 'xml' | 'xml-percent' | 'csv';

export interface Reference {
  /** UTF-16 units from the text's beginning; `end` is behind the last one. */
  readonly start: number;
  readonly end: number;
  /** The path or URL it means. */
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

const XML: Readonly<Record<string, string>> = {
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&apos;': "'",
  '&#39;': "'",
};

const unXml = (text: string): string =>
  text.replace(/&(?:amp|lt|gt|quot|apos|#39);/g, (entity) => XML[entity] as string);
const toXml = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll("'", '&#39;');

/** `null` where the text does not hold what its form says. */
export function decode(written: string, encoding: Encoding): string | null {
  try {
    switch (encoding) {
      case 'plain':
        return written;
      case 'percent':
        return decodeURI(written);
      case 'json':
        return JSON.parse(`"${written}"`) as string;
      case 'json-percent':
        return decodeURI(JSON.parse(`"${written}"`) as string);
      case 'xml':
        return unXml(written);
      case 'xml-percent':
        return decodeURI(unXml(written));
      case 'csv':
        return written.replaceAll('""', '"');
    }
  } catch {
    return null;
  }
}

export function encode(target: string, encoding: Encoding): string {
  switch (encoding) {
    case 'plain':
      return target;
    case 'percent':
      return encodeURI(target);
    case 'json':
      return JSON.stringify(target).slice(1, -1);
    case 'json-percent':
      return JSON.stringify(encodeURI(target)).slice(1, -1);
    case 'xml':
      return toXml(target);
    case 'xml-percent':
      return toXml(encodeURI(target));
    case 'csv':
      return target.replaceAll('"', '""');
  }
}

/** Where a group of an expression matched: expressions must carry the flags `d` and `g`. */
export function referencesBy(text: string, expression: RegExp, group: number, encoding: Encoding): Reference[] {
  const out: Reference[] = [];
  for (const match of text.matchAll(expression)) {
    const place = match.indices?.[group];
    if (place === undefined) continue;
    const target = decode(text.slice(place[0], place[1]), encoding);
    if (target !== null && target.trim() !== '') out.push({ start: place[0], end: place[1], target, encoding });
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
