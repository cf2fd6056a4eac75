/** The one form of what is on a disk, read from and written as text. */
export { type FileEntry, type FolderListing, FRAMES_NOTE, frameRange, join, nameOf, parentOf } from './entry';
export { extensionOf } from './extension';
export { type PathFault, type RelPath, relPathOf } from './path';
export { printListing } from './print';
export { commonRoot, foldersFrom, formatOfListing, type PathLine, parseListing } from './text';
