/** The face of the disk. */
export { checkOnDisk, type CheckProgress, type DiskCheck, type DiskOutcome } from './check';
export { type GuardFault, inside, type VolumeState, volumeState } from './guard';
export { type MarkerTexts, readMarker } from './marker';
export { diskPort } from './port';
export { type AddOutcome, addToFolder, standingIn } from './add';
export { takeBackStart } from './start';
export { startOnDisk, type StartOnDisk, type StartOutcome, sweep, UNFINISHED } from './start';
export { fileNames, listFolder, type Unseen, walk } from './walk';
