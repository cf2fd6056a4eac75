/** The one form of "what is on a disk", folder by folder, so that millions of lines never stand in memory at once. */

export interface FileEntry {
  readonly name: string;
  /** Bytes. */
  readonly size: number;
  /** Milliseconds since 1970; 0 where the source does not say. */
  readonly modified: number;
  /** A folder that is one document: its bytes are those of all that is in it, its time that of what was written last. */
  readonly isFolder?: true;
}

export interface FolderListing {
  /** From the project's root, parted by `/`; empty for the root itself. */
  readonly path: string;
  readonly folders: readonly string[];
  readonly files: readonly FileEntry[];
  /** Links and devices: named, never followed. */
  readonly others: readonly string[];
  /** Names that are no UTF-8 text, each wrong byte written out (`\xff`): nothing can be called by them. */
  readonly unnamed?: readonly string[];
  /** The folder's own time, milliseconds since 1970, where the source says it. */
  readonly changed?: number;
  /**
   * Frames expected of sequences, by their name before the frame: written beside them in files that end in
   * `.frames.txt`.
   */
  readonly ranges?: Readonly<Record<string, readonly [number, number]>>;
}

/** `1001..1100` or `1001-1100`, an en dash too; `null` for anything else. */
export function frameRange(text: string): readonly [number, number] | null {
  const m = /^\s*(\d{1,9})\s*(?:\.\.|-|–)\s*(\d{1,9})\s*$/.exec(text);
  if (m === null) return null;
  const [from, to] = [Number(m[1]), Number(m[2])];
  return from <= to ? [from, to] : null;
}

export const FRAMES_NOTE = '.frames.txt';

export const join = (folder: string, name: string): string => (folder === '' ? name : `${folder}/${name}`);

export const parentOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')));

/** As a person may write it, with separators at its ends or twice. */
export const partsOf = (path: string): string[] => path.split('/').filter((part) => part !== '');

export const nameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
