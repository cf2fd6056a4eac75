/** The one form of what is on a disk, read from and written as text. */
export { type FileEntry, type FolderListing, FRAMES_NOTE, frameRange, join, nameOf, parentOf } from './entry';

export { packListing, unpackListing } from './packed';

export { type PathFault, type RelPath, relPathOf } from './path';

export { commonRoot, foldersFrom, type PathLine, parseListing } from './text';
