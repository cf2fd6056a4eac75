/** Bags (BagIt, RFC 8493): what lies in one beside its payload. */
import { join, nameOf, parentOf } from '../listing/entry';
import { type Algorithm, isAlgorithm, manifestLine, type Sum } from './sums';

const BAG_DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n';

/** Any version up to 1.0; other encodings are not read. */
export const isBagDeclaration = (text: string): boolean =>
  /^BagIt-Version: (0\.\d+|1\.0)(\r\n|\n|\r)Tag-File-Character-Encoding: UTF-8(\r\n|\n|\r)?$/i.test(text);

/** Of the whole payload: its bytes, a dot, its files. */
export function oxumOf(info: string): { readonly bytes: number; readonly files: number } | null {
  const found = /^Payload-Oxum\s*:\s*(\d+)\.(\d+)\s*$/im.exec(info);
  return found === null ? null : { bytes: Number(found[1]), files: Number(found[2]) };
}

/** Lines of `bag-info.txt`; a value over several lines goes on after a blank. */
const bagInfo = (lines: readonly (readonly [label: string, value: string])[]): string =>
  lines.map(([label, value]) => `${label}: ${value.replace(/\r\n|\r|\n/g, '\n ')}\n`).join('');

interface BagList {
  readonly path: string;
  readonly algorithm: Algorithm;
}

/** The manifests in a bag, and those of kinds that are not read here. */
export function bagLists(
  paths: Iterable<string>,
  root: string,
): {
  readonly manifests: readonly BagList[];
  readonly tagManifests: readonly BagList[];
  readonly unknown: readonly string[];
} {
  const [manifests, tagManifests, unknown]: [BagList[], BagList[], string[]] = [[], [], []];
  for (const path of paths) {
    const found = parentOf(path) === root ? /^(tag)?manifest-([A-Za-z0-9-]+)\.txt$/i.exec(nameOf(path)) : null;
    if (found === null) continue;
    const algorithm = (found[2] ?? '').toLowerCase();
    if (!isAlgorithm(algorithm)) unknown.push(path);
    else (found[1] === undefined ? manifests : tagManifests).push({ path, algorithm });
  }
  return { manifests, tagManifests, unknown };
}

/** A file of a bag that is written as a text. */
export interface TagFile {
  readonly path: string;
  readonly text: string;
}

/** The files at the top of a bag, in the order in which they are written: the list of lists is the last. */
export function tagFiles(
  payload: readonly (Sum & { readonly size: number })[],
  info: readonly (readonly [label: string, value: string])[],
  others: readonly TagFile[],
  sha256: (text: string) => string,
): readonly TagFile[] {
  const bytes = payload.reduce((sum, { size }) => sum + size, 0);
  const tags: TagFile[] = [
    { path: 'bagit.txt', text: BAG_DECLARATION },
    { path: 'bag-info.txt', text: bagInfo([...info, ['Payload-Oxum', `${bytes}.${payload.length}`]]) },
    {
      path: 'manifest-sha256.txt',
      text: payload.map(({ hash, path }) => manifestLine({ hash, path: join('data', path) })).join(''),
    },
    ...others,
  ];
  const list = tags.map(({ path, text }) => manifestLine({ hash: sha256(text), path })).join('');
  return [...tags, { path: 'tagmanifest-sha256.txt', text: list }];
}
