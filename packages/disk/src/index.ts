/** The face of the disk. */

export {
  applyOnDisk,
  type DiskBatch,
  type Settled,
  settleOnDisk,
  type Undo,
  type UndoLine,
  undoneIds,
  undoOnDisk,
  undoPlan,
} from './batch';
export { checkOnDisk } from './check/check';
export type { CheckProgress, DiskCheck, DiskOutcome, Gathered, Seen } from './check/disk-check';
export { type KeptListing, listingOf } from './check/kept-listing';
export { type SeenFolders, seenFolders } from './check/quick';
export type { PlannedCarry } from './children/carry';
export { type Contents, contentKey, type JournalPage, type OtherRoots } from './children/changes';
export { ALL_OF_IT, type ComparedFolders, type SideTask } from './children/compare';
export { Disks } from './children/disks';
export type { LooseRead, PlannedIntake } from './children/intake';
export type { Mention } from './children/mentions';
export type { PackTask, PlannedPack } from './children/pack';
export type { LookedAt, Verified } from './children/packages';
export type { NeighbourTask, PlannedRepair } from './children/repair';
export type { PlannedReshape } from './children/reshape';
export { TASKS } from './children/tasks';
export type { Sizes } from './children/walks';
export { closeOnDisk } from './close-batch';
export { DiskError } from './failure';
export type { FileFacts } from './file-facts';
export { BatchOpen, type BatchRecord, batchesIn, openIn, openStale, readBatch } from './journal';
export { type MarkerTexts, readMarker } from './marker';
export type { NotPacked, Packed } from './package/form';
export type { PackOutcome, PackProgress } from './package/pack';
export type { ArrivingFile } from './roots/arriving';
export { hashThreadsBy } from './roots/hash-thread';
export { COPYING, moveAcross } from './roots/move-across';
export { inRoot } from './roots/open';
export { readPlain } from './roots/plain-file';
export { onlyHome, portOn, type Roots } from './roots/port';
export { Root } from './roots/root';
export { type Mount, Tree } from './roots/tree';
export { type VolumeState, volumeState } from './roots/volume-state';
export { Unreachable, type UnreachableCode, type Where } from './roots/where';
export { type StartOnDisk, type StartOutcome, startOnDisk, sweep, UNFINISHED } from './start';
export { sweepOldBatches } from './sweep-batches';
export { listFolder, type Unseen } from './walk';
