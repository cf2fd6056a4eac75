/** What a rule is. Each stands in a file of its own under `rules/`, and is named once, in the registry. */

import type { FileEntry, FolderListing } from '../listing/entry';
import type { Explanation } from '../name/mend/suggest';
import type { FolderConvention } from '../project/folder-convention';
import type { ProjectRules } from '../project/rules';
import type { Params } from '../result';
import type { PlannedLine } from '../template/expansion';
import type { Weight } from '../template/node';
import type { FoldersSettled } from './folders';
import type { FolderRow, Gathered } from './gathered';
import type { FolderItems } from './items';
import type { FolderState } from './match';

/** Lists a folder once more, to look at the names of what a hash said; `null` where it is gone. */
export type ListAgain = (path: string) => FolderListing | null;

/** What a parameter of a finding is; `?` for one that is not always there. */
export type ParamKind = 'text' | 'texts' | 'count';
export type ParamShape = Readonly<Record<string, ParamKind | `${ParamKind}?`>>;

type ValueOf<Kind> = Kind extends `text${'' | '?'}`
  ? string
  : Kind extends `count${'' | '?'}`
    ? number
    : readonly string[];

/** Parameters of a shape, as its words and its remedy take them. */
export type ParamsOf<Shape extends ParamShape> = {
  readonly [Name in keyof Shape as Shape[Name] extends ParamKind ? Name : never]: ValueOf<Shape[Name]>;
} & {
  readonly [Name in keyof Shape as Shape[Name] extends ParamKind ? never : Name]?: ValueOf<Shape[Name]>;
};

/** A finding before it has its weight and id. */
export interface RawFinding<Given = Params> {
  readonly path: string;
  /** What the finding's identity hangs on, where that is not its path. */
  readonly subject?: string;
  readonly params: Given;
  readonly explanation?: Explanation;
  /** Other paths of the same finding. */
  readonly related?: readonly string[];
  /** When what it is about was last written, milliseconds since 1970. */
  readonly modified?: number;
}

/** Ways out that a person chooses among. */
export type Choice =
  | 'planned-name'
  | 'move-contents'
  | 'keep-as-own'
  | 'take-number'
  | 'move-to-project'
  | 'known-code'
  | 'add-to-lists'
  | 'which-stays'
  | 'next-version'
  | 'another-name'
  | 'shorter-names'
  | 'move'
  | 'clear';

/** What puts a finding right, as data: whoever plans makes changes of it. */
export type Remedy =
  /** What is missing is made. */
  | { readonly act: 'make' }
  /** To the name that is meant, or the one that is suggested. */
  | { readonly act: 'rename'; readonly to: 'meant' | 'suggested' }
  /** To its home; to the folder that takes it; to the one for older versions; up, or where else it says. */
  | { readonly act: 'move'; readonly to: 'home' | 'taker' | 'older' | 'document' }
  /** It takes the place of the file of the lasting name. */
  | { readonly act: 'replace' }
  /** References lead to where the file is. */
  | { readonly act: 'point-to-file' }
  | { readonly act: 'set-aside' }
  | { readonly act: 'accept' }
  | { readonly act: 'choose'; readonly among: readonly Choice[] }
  /** Nothing that a program can do: what to do is said. */
  | { readonly act: 'none' };

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
  readonly part: Gathered;
  readonly again: ListAgain;
  /** Folders that could not be read. */
  readonly unread: readonly string[];
  readonly folders: FoldersSettled;
  /** Keys of planned files that were seen. */
  readonly starters: ReadonlySet<string>;
}

/** A rule says all there is to know of it; its words stand in `words/rules.ts`. */
export interface Rule<Code extends string = string, Shape extends ParamShape = ParamShape> {
  readonly code: Code;
  /** Where a template says nothing. */
  readonly weight: Weight;
  readonly about: 'folder' | 'file';
  readonly params: Shape;
  readonly remedy: Remedy;
  /** What it says of a name is all that is said of it. */
  readonly claims?: true;
  /** Judged folder by folder. */
  readonly folder?: (c: FolderCase) => readonly RawFinding<ParamsOf<Shape>>[];
  /** Judged file by file: of each the first rule that alone explains the difference. */
  readonly file?: (c: FileCase) => RawFinding<ParamsOf<Shape>> | null;
  /** Judged when every folder has been seen. */
  readonly end?: (c: EndCase) => readonly RawFinding<ParamsOf<Shape>>[];
  // Without any of them it is judged where files are looked into: `contents.ts`.
}

/** Declares a rule: what it finds is held against the parameters it names. */
export const rule = <const Code extends string, const Shape extends ParamShape>(
  declared: Rule<Code, Shape>,
): Rule<Code, Shape> => declared;

/** Whether parameters that were stored are those of the shape; what is there besides is passed over. */
export const hasParams = (shape: ParamShape, params: Params): boolean =>
  Object.entries(shape).every(([name, kind]) => isOfKind(kind, params[name]));

function isOfKind(kind: ParamShape[string], value: Params[string] | undefined): boolean {
  if (value === undefined) return kind.endsWith('?');
  if (kind.startsWith('texts')) return Array.isArray(value);
  return typeof value === (kind.startsWith('count') ? 'number' : 'string');
}
