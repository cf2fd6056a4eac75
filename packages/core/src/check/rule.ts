/** What a rule is. Each stands in a file of its own under `rules/` and is named once, in the registry. */
import type { Params } from '../answer';
import type { FileEntry, FolderListing } from '../listing/entry';
import type { Explanation } from '../name/suggest';
import type { PlannedLine } from '../template/expand';
import type { Again } from './check';
import type { RuleCode } from './finding';
import type { FoldersSettled } from './folders';
import type { CheckGround, FolderConvention } from './ground';
import type { FolderItems } from './items';
import type { FolderState } from './match';
import type { CheckPart, FolderRow } from './part';

/** A finding before it has its weight and id. */
export interface Found {
  readonly path: string;
  /** What the finding's identity hangs on, where that is not its path. */
  readonly subject?: string;
  readonly params: Params;
  readonly explanation?: Explanation;
  /** Other paths of the same finding. */
  readonly related?: readonly string[];
  /** When what it is about was last written, milliseconds since 1970. */
  readonly modified?: number;
}

/** One folder on the disk with what the plan says of it. */
export interface FolderCase {
  readonly ground: CheckGround;
  readonly listing: FolderListing;
  readonly state: FolderState;
  readonly items: FolderItems;
}

/** One file in a planned folder that no rule has cleared yet. */
export interface FileCase {
  readonly ground: CheckGround;
  readonly path: string;
  readonly file: FileEntry;
  readonly line: PlannedLine;
  readonly listing: FolderListing;
  /** Conventions of the folder that are for files of this family; empty where none is. */
  readonly conventions: readonly FolderConvention[];
}

/** What is known when every folder has been seen. */
export interface EndCase {
  readonly ground: CheckGround;
  readonly rows: readonly FolderRow[];
  readonly part: CheckPart;
  readonly again: Again;
  /** Folders that could not be read. */
  readonly unread: readonly string[];
  readonly folders: FoldersSettled;
  /** Keys of planned files that were seen. */
  readonly starters: ReadonlySet<string>;
}

export type Rule =
  | { readonly code: RuleCode; readonly scope: 'folder'; readonly judge: (c: FolderCase) => readonly Found[] }
  | { readonly code: RuleCode; readonly scope: 'file'; readonly judge: (c: FileCase) => Found | null }
  | { readonly code: RuleCode; readonly scope: 'end'; readonly judge: (c: EndCase) => readonly Found[] }
  /** Judged where files were looked into: `contents.ts`. */
  | { readonly code: RuleCode; readonly scope: 'contents' };
