/** What would put a finding right: one way or several, each as acts in the places that things have now. */
import type { Place, RootId } from '../../change/place';
import type { RuleCode } from '../../check/registry';
import { type FileEntry, type FolderListing, nameOf, parentOf } from '../../listing/entry';
import type { Confidence } from '../../name/mend/suggest';
import type { ProjectRules } from '../../project/rules';
import { Remembered } from '../../remembered';
import type { Params } from '../../result';
import type { PlannedLine } from '../../template/expansion';

export const WAYS = [
  'make',
  'write-note',
  'rename',
  'take-number',
  'move-to-project',
  'known-code',
  'next-version',
  'another-name',
  'planned-name',
  'move',
  'move-contents',
  'move-up',
  'to-older',
  'replace',
  'keep-this',
  'set-aside',
  'clear',
  'point',
  'accept',
] as const;
export type Way = (typeof WAYS)[number];

export type Act =
  | { readonly do: 'make'; readonly line: PlannedLine }
  | { readonly do: 'write'; readonly to: string; readonly text: string }
  /** Where a folder goes to one that is there, the two are put together. */
  | { readonly do: 'move'; readonly entry: 'folder' | 'file'; readonly from: string; readonly to: string }
  /** To another project's folder. */
  | { readonly do: 'send'; readonly from: string; readonly to: Place }
  /** Kept with the batch. What refers to it leads to `instead` from then on. */
  | { readonly do: 'set-aside'; readonly from: string; readonly instead?: string | undefined }
  /** A reference of a document, as it is written, leads to a file of the project. */
  | { readonly do: 'point'; readonly document: string; readonly target: string; readonly to: string };

export interface FileFacts {
  /** Milliseconds since 1970. */
  readonly modified: number;
  /** Bytes. */
  readonly size: number;
  /** Documents of the project that refer to it. */
  readonly referrers: number;
}

export interface Option {
  /** Names it among the others of its finding; the same for findings that are alike. */
  readonly key: string;
  readonly way: Way;
  readonly confidence: Confidence;
  /** Where what it is about comes to be; `null` where it goes, or stays. */
  readonly to: string | null;
  /** What tells it from others of the same way: a code, a number, a file. */
  readonly value: string | null;
  /** Of a file that is chosen among others: what tells them apart. */
  readonly facts?: FileFacts | undefined;
  readonly acts: readonly Act[];
}

/** A finding as it was stored: of older ones the parameters may be others than their rule declares. */
export interface ToRepair {
  readonly id: string;
  readonly rule: RuleCode;
  readonly weight: string;
  readonly path: string;
  readonly params: Params;
  readonly suggestion: { readonly name: string; readonly confidence: Confidence } | null;
  readonly related: readonly string[];
}

/** What lies in the project now. */
export interface ProjectView {
  /** `null` where there is no such folder, or it cannot be read. */
  readonly list: (folder: string) => FolderListing | null;
  /** Every file of this name in the project. */
  readonly find: (name: string) => readonly string[];
  /** References of a document, as they are written; none where it has no form that is read. */
  readonly targets: (path: string) => readonly string[];
}

/** Another project that files can be moved to. */
export interface Neighbour {
  readonly root: RootId;
  /** Its folder, from its volume. */
  readonly folder: string;
  readonly rules: ProjectRules;
  readonly list: ProjectView['list'];
}

/** How many documents refer to a file. */
export type Referrers = (path: string) => number;

/** One finding, with what is known of its place. */
export interface RepairCase {
  readonly rules: ProjectRules;
  readonly view: ProjectView;
  /** Whole paths of the project's root, as each system has it. */
  readonly roots: readonly string[];
  /** Other projects that names may belong to. */
  readonly neighbours: readonly Neighbour[];
  readonly finding: ToRepair;
  readonly referrers: Referrers;
  /** The folder it lies in; `null` where that is gone. */
  readonly listing: FolderListing | null;
  /** The planned folder it lies in, the one for older versions counted in; `null` where no rule knows it. */
  readonly line: PlannedLine | null;
  /** The file it is about; `null` for a folder, and for what is gone. */
  readonly file: FileEntry | null;
}

const byName = new Remembered(
  ({ files }: FolderListing): ReadonlyMap<string, FileEntry> => new Map(files.map((f) => [f.name, f])),
);

/** One file of a folder: folders hold thousands, and each is asked for by its name. */
export const fileIn = (listing: FolderListing | null, name: string): FileEntry | null =>
  listing === null ? null : (byName.of(listing).get(name) ?? null);

export function factsOf({ view, referrers }: RepairCase, path: string): FileFacts | undefined {
  const file = fileIn(view.list(parentOf(path)), nameOf(path));
  return file === null ? undefined : { modified: file.modified, size: file.size, referrers: referrers(path) };
}

export const textOf = ({ params }: ToRepair, name: string): string => {
  const value = params[name];
  return typeof value === 'string' ? value : '';
};
export const textsOf = ({ params }: ToRepair, name: string): readonly string[] => {
  const value = params[name];
  return Array.isArray(value) ? value : [];
};

export const RANK: Readonly<Record<Confidence, number>> = { sure: 0, likely: 1, guess: 2 };

/** Surest first; of equals as they came. */
export const bestFirst = (options: readonly Option[]): Option[] => {
  const seen = new Set<string>();
  return [...options]
    .sort((a, b) => RANK[a.confidence] - RANK[b.confidence])
    .filter(({ key }) => !seen.has(key) && seen.add(key));
};
