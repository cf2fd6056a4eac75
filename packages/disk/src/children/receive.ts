/** Tasks that take files of somebody's computer, piece by piece. `where` is the volume's root. */
import { codeOf } from '@nesting/core/change';
import { type ArrivingFile, arrivedOf, dropArriving, type Placing, placeArrived, writePiece } from '../roots/arriving';
import { inRoot } from '../roots/open';
import { makeFolder } from '../roots/port';
import type { OfWhere } from './looks';

/** Makes a folder of this name, or of the name with a number where something is called so; gives its name. */
export const makeHeap = ({ where, name }: OfWhere & { readonly name: string }): string =>
  inRoot(where, (root) => {
    for (let n = 1; ; n++) {
      const heap = n === 1 ? name : `${name}-${n}`;
      try {
        makeFolder(root, heap);
        return heap;
      } catch (error) {
        if (codeOf(error) !== 'EEXIST') throw error;
      }
    }
  });

export interface ArrivedTask extends OfWhere {
  readonly heap: string;
  readonly files: readonly Omit<ArrivingFile, 'heap'>[];
}

/** Bytes of each that are there; `null` for one that lies in its place. */
export const arrived = ({ where, heap, files }: ArrivedTask): readonly (number | null)[] =>
  inRoot(where, (root) => files.map((file) => arrivedOf(root, { ...file, heap })));

export interface PieceTask extends OfWhere {
  readonly file: ArrivingFile;
  /** Bytes in front of it. */
  readonly at: number;
  readonly bytes: Uint8Array;
}

/** Whether it was the next one, and is written. */
export const takePiece = ({ where, file, at, bytes }: PieceTask): boolean =>
  inRoot(where, (root) => writePiece(root, file, at, bytes));

/** `pieces` are the checksums of all of it, in their order. */
export const endArriving = ({
  where,
  file,
  pieces,
}: OfWhere & { readonly file: ArrivingFile; readonly pieces: readonly string[] }): Placing =>
  inRoot(where, (root) => placeArrived(root, file, pieces));

/** What was sent of files that are not whole goes. */
export const dropArrived = ({
  where,
  heap,
  files,
}: OfWhere & { readonly heap: string; readonly files: number }): void =>
  inRoot(where, (root) => dropArriving(root, heap, files));
