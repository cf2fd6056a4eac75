/** What a rule is. Each stands in a file of its own under `rules/` and is named once, in the registry. */

import type { FileEntry, FolderListing } from '../listing/entry';
import type { Explanation } from '../name/mend/suggest';
import type { FolderConvention } from '../project/folder-convention';
import type { RuleCode } from '../project/rule-weights';
import type { ProjectRules } from '../project/rules';
import type { Params } from '../result';
import type { PlannedLine } from '../template/expansion';
import type { FoldersSettled } from './folders';
import type { FolderItems } from './items';
import type { FolderState } from './match';
import type { FolderRow, PartialResult } from './partial-result';

/** Lists a folder once more, to look at the names of what a hash said; `null` where it is gone. */
export type ListAgain = (path: string) => FolderListing | null;

/** A finding before it has its weight and id. */
export interface RawFinding {
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
  readonly rules: ProjectRules;
  readonly listing: FolderListing;
  readonly state: FolderState;
  readonly items: FolderItems;
}

/** One file in a planned folder that no rule has cleared yet. */
export interface FileCase {
  readonly rules: ProjectRules;
  readonly path: string;
  readonly file: FileEntry;
  readonly line: PlannedLine;
  readonly listing: FolderListing;
  /** Conventions of the folder that are for files of this family; empty where none is. */
  readonly conventions: readonly FolderConvention[];
}

/** What is known when every folder has been seen. */
export interface EndCase {
  readonly rules: ProjectRules;
  readonly rows: readonly FolderRow[];
  readonly part: PartialResult;
  readonly again: ListAgain;
  /** Folders that could not be read. */
  readonly unread: readonly string[];
  readonly folders: FoldersSettled;
  /** Keys of planned files that were seen. */
  readonly starters: ReadonlySet<string>;
}

export type Rule =
  | { readonly code: RuleCode; readonly scope: 'folder'; readonly judge: (c: FolderCase) => readonly RawFinding[] }
  | { readonly code: RuleCode; readonly scope: 'file'; readonly judge: (c: FileCase) => RawFinding | null }
  | { readonly code: RuleCode; readonly scope: 'end'; readonly judge: (c: EndCase) => readonly RawFinding[] }
  /** Judged where files were looked into: `contents.ts`. */
  | { readonly code: RuleCode; readonly scope: 'contents' };
