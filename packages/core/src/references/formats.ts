/** Every open format whose references are read; in all other files only the project's own path is looked for. */
import { extensionOf } from '../listing/extension';
import { css } from './css';
import { gltf, otio } from './json';
import { csvList, dotenv, edl, m3u, mtl, obj } from './lines';
import { markdown } from './markdown';
import { html, svg, xspf } from './markup';
import type { RefFormat } from './reference';
import { usd } from './usd';

const REF_FORMATS: readonly RefFormat[] = [
  otio,
  edl,
  gltf,
  obj,
  mtl,
  usd,
  svg,
  html,
  css,
  markdown,
  m3u,
  xspf,
  csvList,
  dotenv,
];

/** A mark of UTF-8 at a text's beginning is none of its text. */
const behindMark = (format: RefFormat): RefFormat => ({
  ...format,
  find: (text) =>
    text.startsWith('\ufeff')
      ? format.find(text.slice(1)).map((r) => ({ ...r, start: r.start + 1, end: r.end + 1 }))
      : format.find(text),
});

const byExtension = new Map(
  REF_FORMATS.map(behindMark).flatMap((format) => format.extensions.map((ext) => [ext, format] as const)),
);

/** `null` where a file of this name is of none of them. */
export const refFormatOf = (name: string): RefFormat | null =>
  byExtension.get(name === '.env' ? 'env' : extensionOf(name, byExtension)) ?? null;
