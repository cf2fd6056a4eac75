/** The one form of what is on a disk, read from and written as text. */

export { type Aligned, alignListing, type RootPlan } from './align';
export { type FileEntry, type FolderListing, FRAMES_NOTE, frameRange, join, nameOf, parentOf } from './entry';
export { foldersFrom, foldersInText } from './folders';
export { HOLDS, type Holds, type MediaFacts } from './media-facts';
export { packListing, unpackListing } from './packed';
export { type PathFault, type RelPath, relPathOf } from './path';
export { type PathLine, parseListing } from './text';
