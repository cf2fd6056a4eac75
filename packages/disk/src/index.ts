/** The face of the disk. */

export { type AddOutcome, addToFolder, standingIn, takeBackAdd } from './add-to-folder';
export {
  applyOnDisk,
  type DiskBatch,
  type Settled,
  settleOnDisk,
  type Undo,
  type UndoLine,
  undoneKeys,
  undoOnDisk,
  undoPlan,
} from './batch';
export { checkOnDisk } from './check/check';
export type { CheckProgress, DiskCheck, DiskOutcome, Gathered, Seen } from './check/disk-check';
export { hasChangedSince } from './check/quick';
export { COPYING, moveAcross } from './cross-device-move';
export { diskPort } from './disk-port';
export type { FileFacts } from './file-facts';
export { type GuardFault, inside, type VolumeState, volumeState } from './guard';
export { BatchOpen, type BatchRecord, batchesIn, openIn, openStale, readBatch } from './journal';
export { type MarkerTexts, readMarker } from './marker';
export { DiskReads } from './reads/disk-reads';
export { type Sizes, TASKS } from './reads/tasks';
export { type StartOnDisk, type StartOutcome, startOnDisk, sweep, takeBackStart, UNFINISHED } from './start';
export { fileNames, listFolder, type Mount, type Unseen } from './walk';
