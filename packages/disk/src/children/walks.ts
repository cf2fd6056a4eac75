/** Tasks that look at many folders. */
import { codeOf } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import { markerIn } from '../marker';
import { VOLUME_FILE } from '../roots/identity';
import { inRoot } from '../roots/open';
import type { Root } from '../roots/root';
import { Tree } from '../roots/tree';
import { UNFINISHED } from '../start';
import { foldersBelow as foldersUnder, listFolder, namesIn, type Unseen } from '../walk';
import type { OfWhere } from './looks';

export interface Names {
  /** Paths from the root, a folder before what is in it; folders end in a slash. */
  readonly paths: readonly string[];
  /** `false` where there are more than were asked for. */
  readonly whole: boolean;
}

/** Names of everything below a folder. Nothing is looked at but the folders themselves. */
export const namesBelow = ({ where, most }: OfWhere & { readonly most: number }): Names =>
  inRoot(where, (root) => namesUnder(root, most));

function namesUnder(root: Root, most: number): Names {
  const paths: string[] = [];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    if (paths.length >= most) return { paths, whole: false };
    if (path !== '') paths.push(`${path}/`);
    const { files, folders } = namesIn(root, path);
    for (const name of files) if (path !== '' || name !== VOLUME_FILE) paths.push(join(path, name));
    for (const name of folders) if (path !== '' || name !== OWN_FOLDER) queue.push(join(path, name));
  }
  return { paths, whole: true };
}

export interface Sizes {
  readonly sizes: ReadonlyMap<string, number>;
  readonly folders: number;
  readonly bytes: number;
  /** Milliseconds since 1970; 0 where there is no file. */
  readonly newest: number;
}

/** Every file below a folder with its size. */
export const sizesBelow = ({ where }: OfWhere): Sizes => inRoot(where, sizesUnder);

function sizesUnder(root: Root): Sizes {
  const tree = Tree.of(root);
  const sizes = new Map<string, number>();
  let [folders, bytes, newest] = [0, 0, 0];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(tree, path, () => undefined);
    if (listing === null) continue;
    folders++;
    for (const file of listing.files) {
      sizes.set(join(path, file.name), file.size);
      bytes += file.size;
      newest = Math.max(newest, file.modified);
    }
    for (const name of listing.folders) queue.push(join(path, name));
  }
  return { sizes, folders, bytes, newest };
}

export interface FoundMarker {
  readonly folder: string;
  readonly marker: string;
}

export interface MarkersAsked extends OfWhere {
  readonly depth: number;
  /** Folders looked at. */
  readonly most: number;
}

export interface FoundMarkers {
  readonly found: readonly FoundMarker[];
  /** Folders whose marker cannot be read. */
  readonly unread: readonly Unseen[];
}

/** Folders that hold a project's marker, to a depth; they themselves are not entered. */
export const markersBelow = (asked: MarkersAsked): FoundMarkers =>
  inRoot(asked.where, (root) => markersUnder(root, asked));

function markersUnder(root: Root, { depth, most }: MarkersAsked): FoundMarkers {
  const found: FoundMarker[] = [];
  const unread: Unseen[] = [];
  const queue = [{ path: '', at: 0 }];
  let seen = 0;
  for (let next = queue.shift(); next !== undefined && seen < most; next = queue.shift()) {
    seen++;
    for (const name of namesIn(root, next.path).folders) {
      if (name.startsWith(UNFINISHED)) continue;
      const folder = join(next.path, name);
      try {
        const marker = markerIn(root, folder);
        if (marker !== null) found.push({ folder, marker });
        else if (next.at + 1 < depth) queue.push({ path: folder, at: next.at + 1 });
      } catch (error) {
        unread.push({ path: folder, code: codeOf(error) });
      }
    }
  }
  return { found, unread };
}

/** Paths of all folders below. */
export const foldersBelow = ({ where, most }: OfWhere & { readonly most: number }) =>
  inRoot(where, (root) => foldersUnder(root, most));
