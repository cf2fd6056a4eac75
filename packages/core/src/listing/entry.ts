/** The one form of "what is on a disk", folder by folder, so that millions of lines never stand in memory at once. */

export interface FileEntry {
  readonly name: string;
  /** Bytes. */
  readonly size: number;
  /** Milliseconds since 1970; 0 where the source does not say. */
  readonly modified: number;
}

export interface FolderListing {
  /** From the project's root, parted by `/`; empty for the root itself. */
  readonly path: string;
  readonly folders: readonly string[];
  readonly files: readonly FileEntry[];
  /** Links and devices: named, never followed. */
  readonly others: readonly string[];
}

export const join = (folder: string, name: string): string => (folder === '' ? name : `${folder}/${name}`);

export const parentOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')));

export const nameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
