import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { endOfPiece, PIECE_BYTES, piecesOf, wholePieces } from './sent';

test('pieces follow one another without a gap to the end of the file, wherever sending goes on', () => {
  fc.assert(
    fc.property(fc.nat(5 * PIECE_BYTES), fc.nat(5 * PIECE_BYTES), (size, there) => {
      let at = wholePieces(Math.min(there, size), size);
      let pieces = piecesOf(at);
      for (; at < size; at = endOfPiece(at, size)) pieces++;
      expect(at).toBe(size);
      expect(pieces).toBe(piecesOf(size));
    }),
  );
});
