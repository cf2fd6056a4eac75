/** What is packed, and what one form of package does with it. */
import type { Layout, PackageKind } from '@nesting/core/package';
import type { PackItem } from '@nesting/core/planners';
import type { PackedFile } from '@nesting/core/report';
import type { PlainFile } from '../roots/plain-file';
import type { Root } from '../roots/root';
import type { Tree } from '../roots/tree';
import type { WrittenEntry } from './zip-file';

export interface ToPack {
  readonly source: Tree;
  /** What goes. */
  readonly items: readonly PackItem[];
  readonly kind: PackageKind;
  readonly layout: Layout;
  /** By the path in the project: where it lies in the package, from its top folder. */
  readonly placeOf: (path: string) => string;
  /** The folder that it is written into, and its name there. */
  readonly target: Root;
  readonly name: string;
  /** Milliseconds since 1970, for what is written anew. */
  readonly at: number;
  /** Files that describe it, made when all others are in it. */
  readonly record: (files: readonly PackedFile[], leftOut: readonly NotPacked[]) => readonly RecordFile[];
  readonly info: readonly (readonly [label: string, value: string])[];
  /** What cannot be read, or is written all the time, may be missing. */
  readonly mayLeaveOut: boolean;
}

export interface RecordFile {
  /** From the top folder. */
  readonly path: string;
  readonly text: string;
}

/** `ECHANGED` where somebody writes to it. */
export interface NotPacked {
  readonly path: string;
  readonly code: string;
}

export interface Packed {
  readonly files: number;
  readonly bytes: number;
  /** Bytes on the disk. */
  readonly size: number;
  /** Of a file as a whole; of a bag of its list of lists. */
  readonly sha256: string;
  readonly isPastCache: boolean;
  readonly leftOut: readonly NotPacked[];
}

/** A file of the project that was packed. */
export interface PackedLine {
  /** From the project's root. */
  readonly path: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly sha256: string;
  /** In a zip. */
  readonly entry: WrittenEntry | null;
}

export type Made = Omit<Packed, 'files' | 'bytes' | 'leftOut'>;

/** What one form of package does with files. */
export interface Form {
  /** Whether what an earlier try says is in it is there; of a zip only what lies before the first that is not. */
  readonly kept: readonly PackedLine[];
  add(path: string, place: string, file: PlainFile): PackedLine;
  /** Writes the record, and proves all. */
  finish(files: readonly PackedFile[], record: readonly RecordFile[]): Promise<Made>;
  sync(): void;
  close(): void;
}

/** Behind the name of what is not whole yet. */
export const PART = '.part';
export const LOG = '.part.lines';
