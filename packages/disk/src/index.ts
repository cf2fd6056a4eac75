/** The face of the disk. */
export { checkOnDisk, type CheckProgress, type DiskCheck, type DiskOutcome, type Gathered, hasChangedSince, type Seen } from './check';
export type { Looked } from './looked';
export { type GuardFault, inside, type VolumeState, volumeState } from './guard';
export { type MarkerTexts, readMarker } from './marker';
export { COPYING, moveAcross } from './across';
export { applyOnDisk, type DiskBatch, type Settled, settleOnDisk, type Undo, type UndoLine, undoneKeys, undoOnDisk, undoPlan } from './batch';
export { batchesIn, BatchOpen, type BatchRecord, openIn, openStale, readBatch } from './journal';
export { diskPort, livePort } from './port';
export { type AddOutcome, addToFolder, standingIn, takeBackAdd } from './add';
export { takeBackStart } from './start';
export { startOnDisk, type StartOnDisk, type StartOutcome, sweep, UNFINISHED } from './start';
export { fileNames, foldersBelow, listFolder, type Mount, type Unseen, walk } from './walk';
