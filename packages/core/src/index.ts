/** What every part of the core leans on: results, limits, equality of plain data. */

export { keysOf, withoutAbsent } from './absent';
export { deepEqual } from './deep-equal';
export { elementAt, present, valueAt } from './element';
export { grouped } from './grouped';
export { LIMITS } from './limits';
export { Recent, Remembered } from './remembered';
export { type Coded, coded, failure, type Params, type Result, success } from './result';
export { endOfPiece, PIECE_BYTES, wholePieces } from './sent';
