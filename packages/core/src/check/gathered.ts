/** What is gathered of folders and files on the way, for what only the whole can judge. Plain data. */
import type { Table } from './number-table';

/** One folder: counts for the map of the project, and what only the whole can judge. */
export interface FolderRow {
  readonly path: string;
  readonly files: number;
  readonly bytes: number;
  /** Of planned files, which no limit counts. */
  readonly starterBytes?: number;
  /** Newest file's time, milliseconds since 1970; 0 for none. */
  readonly newest: number;
  readonly state: 'planned' | 'free' | 'unplanned' | 'inside-unplanned';
  /** The folder's own time, where the source says it. */
  readonly changed?: number;
  /** Something in it was still settling: it is looked at again. */
  readonly settling?: boolean;
  /** Bytes by family; files of none under an empty name. */
  readonly families: Readonly<Record<string, number>>;
  /** Of an unplanned folder: the key of the planned one that what is in it belongs to. */
  readonly meant?: string;
  /** Of a folder inside a dated one: files dated before it, of another day by their names, and of its day. */
  readonly dates?: {
    readonly key: string;
    readonly before: number;
    readonly other: number;
    readonly right: number;
    readonly found: string;
    /** By another day: the first of its files, and how many there are. */
    readonly strays?: readonly { readonly path: string; readonly date: string; readonly count: number }[];
  };
}

/** A side file whose document is not beside it. */
export interface AloneSide {
  readonly row: number;
  readonly name: string;
  readonly modified: number;
  readonly stem: string;
  readonly families: readonly string[];
}

/** A sequence as one item. */
export interface RunMark {
  readonly row: number;
  readonly head: string;
  readonly tail: string;
  readonly frames: number;
  readonly bytes: number;
}

/** What one checker has gathered, but for what it found. */
export interface Gathered {
  readonly rows: readonly FolderRow[];
  /** Keys of planned files that are there. */
  readonly starters: readonly { readonly row: number; readonly key: string }[];
  readonly alone: readonly AloneSide[];
  readonly runs: readonly RunMark[];
  /** Sizes of single files. */
  readonly sizes: Table;
  /** Hashes of names that are right where they are; of a sequence its name without the frame. */
  readonly names: Table;
  /** Hashes of family and stem of each document that may have side files. */
  readonly documents: Table;
  /** Hashes of what is versioned, and beside each its version. */
  readonly chains: Table;
  readonly versions: Table;
}

export type TableName = 'sizes' | 'names' | 'documents' | 'chains' | 'versions';

export const tablesBy = (of: (name: TableName) => Table): Pick<Gathered, TableName> => ({
  sizes: of('sizes'),
  names: of('names'),
  documents: of('documents'),
  chains: of('chains'),
  versions: of('versions'),
});
