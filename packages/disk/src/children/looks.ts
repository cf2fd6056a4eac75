/** Tasks that look at a few places. */
import { createHash } from 'node:crypto';
import { type Expected, isAsExpected } from '@nesting/core/change';
import type { FolderListing } from '@nesting/core/listing';
import { hasChangedSince, type SeenFolders } from '../check/quick';
import { type MarkerTexts, readMarker } from '../marker';
import { inRoot } from '../roots/open';
import { isStill, readAll, readPlain, withPlainFile } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import { inTree, type Mount } from '../roots/tree';
import { volumeState as stateOf, type VolumeState } from '../roots/volume-state';
import type { Where } from '../roots/where';
import { type FolderNames, listFolder, namesIn } from '../walk';

export interface OfWhere {
  readonly where: Where;
}

export const volumeState = ({ base }: { readonly base: string }): VolumeState => stateOf(base);

/** Whether a folder can be worked in: fails where it cannot. @throws Unreachable */
export const reach = ({ where }: OfWhere): true => inRoot(where, () => true);

/** What a project's own folder says; `null` where it has none. @throws Unreachable */
export const marker = ({ where }: OfWhere): MarkerTexts | null => inRoot(where, readMarker);

/** Which paths are there. */
export const pathsThere = ({ where, paths }: OfPaths): string[] =>
  inRoot(where, (root) =>
    paths.filter((path) => {
      try {
        return standingAt(root, path) !== null;
      } catch {
        // Behind a link: nothing of this folder.
        return false;
      }
    }),
  );

export interface OfPaths extends OfWhere {
  readonly paths: readonly string[];
}

/** Names of what is in each of some folders, by one call each. */
export const namesInEach = ({ where, paths }: OfPaths): FolderNames[] =>
  inRoot(where, (root) => paths.map((path) => namesIn(root, path)));

export interface OneFolder extends OfWhere {
  readonly path: string;
  readonly mounts: readonly Mount[];
}

/** One folder's files with their sizes and times; `null` where it cannot be read. */
export const folder = ({ where, mounts, path }: OneFolder): Promise<FolderListing | null> =>
  inTree(where, mounts, (tree) => listFolder(tree, path, () => undefined));

/** A file's bytes; `null` where it is gone, or larger. */
export const bytesOfFile = ({ where, path, most }: OfWhere & { readonly path: string; readonly most: number }) =>
  inRoot(where, (root): Uint8Array | null => {
    try {
      return readPlain(root, path, most);
    } catch {
      return null;
    }
  });

export interface PieceTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly path: string;
  /** Bytes in front of it, and how many at most. */
  readonly at: number;
  readonly most: number;
  readonly expects: Expected;
}

/** A piece of a file with its SHA-256: whoever answers requests has no time to work it out. */
export interface FilePiece {
  readonly bytes: Uint8Array;
  readonly sha256: Uint8Array;
}

/** A piece of a file; `gone` where nothing can be read there, `changed` where it is not as it was looked at. */
export const pieceOfFile = ({ where, mounts, path, at, most, expects }: PieceTask) =>
  inTree(where, mounts, (tree): FilePiece | 'gone' | 'changed' => {
    try {
      return withPlainFile(tree.rootOf(path), path, (file) => {
        if (!isAsExpected(file, expects)) return 'changed';
        const bytes = readAll(file.fd, at, Math.min(most, file.size - at));
        return isStill(file) ? { bytes, sha256: createHash('sha256').update(bytes).digest() } : 'changed';
      });
    } catch {
      return 'gone';
    }
  });

/** Whether a quick check would list anything again. */
export const hasChanged = ({ where, mounts, seen, now }: ChangeAsked): Promise<boolean> =>
  inTree(where, mounts, (tree) => hasChangedSince(tree, seen, now));

export interface ChangeAsked extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly seen: SeenFolders;
  readonly now: number;
}
