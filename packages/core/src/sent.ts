/** How files of somebody's computer are sent in pieces: the same on both ends. */

/** Bytes of a piece; the last one of a file is shorter. */
export const PIECE_BYTES = 8 * 2 ** 20;

export const piecesOf = (size: number): number => Math.ceil(size / PIECE_BYTES);

/** Where a piece ends that begins here. */
export const endOfPiece = (at: number, size: number): number => Math.min(size, at + PIECE_BYTES);

/** Bytes of whole pieces among those that are there: half a piece is sent anew. */
export const wholePieces = (there: number, size: number): number =>
  there >= size ? size : there - (there % PIECE_BYTES);
