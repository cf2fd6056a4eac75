/** Where an entry is: in which root, and by which path from there. */
import { join, nameOf, parentOf } from '../listing/entry';

declare const rootId: unique symbol;

/** One folder on one file system that a batch works in. */
export type RootId = string & { readonly [rootId]: true };

export const rootIdOf = (text: string): RootId => text as RootId;

/** The root that holds the journal: the project's own folder. */
export const HOME = rootIdOf('home');

/** The root that a project's folder lies in: there it has its name. */
export const VOLUME = rootIdOf('volume');

export interface Place {
  readonly root: RootId;
  /** Parted by `/`; empty for the root itself. */
  readonly path: string;
}

export const home = (path: string): Place => ({ root: HOME, path });

/** The same for equal places and for no others: no path holds a NUL. */
export const placeKey = ({ root, path }: Place): string => (root === HOME ? path : `${root}\0${path}`);

export const isSamePlace = (a: Place, b: Place): boolean => a.path === b.path && a.root === b.root;

export const placeIn = ({ root, path }: Place, name: string): Place => ({ root, path: join(path, name) });

export const folderOf = ({ root, path }: Place): Place => ({ root, path: parentOf(path) });

export const lastName = ({ path }: Place): string => nameOf(path);

export const isBelow = (place: Place, folder: Place): boolean =>
  place.root === folder.root && (folder.path === '' || place.path.startsWith(`${folder.path}/`));
