/** What a plan that carries a project over is given, and what it comes to. */
import type { Change } from '../../change/change';
import type { RootId } from '../../change/place';
import type { FolderListing } from '../../listing/entry';
import type { ProjectRules } from '../../project/rules';
import type { Coded } from '../../result';
import type { ByHand, DocumentFacts, DocumentText, RewrittenDocument, Unread } from '../repair/documents';
import type { Torn } from '../torn';
import type { NamedBy, OldWordFound } from './names';
import type { Picked, Revision } from './source';
import type { CarryWay, Comes } from './way';

export interface CarryGiven {
  readonly source: ProjectRules;
  readonly target: ProjectRules;
  /** Of the source, in any order. */
  readonly listings: Iterable<FolderListing>;
  readonly way: CarryWay;
  readonly picked: Picked;
  /** Where source and target are one project, before and after; `null` for another project. */
  readonly revision: Revision | null;
  /** Starter files are brought as they are; else the new project has its own. */
  readonly startersCome: boolean;
  readonly documents: readonly DocumentFacts[];
  readonly read: (path: string) => DocumentText | Unread;
  /** Whole paths of both roots, as each system has them, in the same order; `null` where the target's are not known. */
  readonly roots: { readonly source: readonly string[]; readonly target: readonly string[] | null };
  /** What the batch knows the folder by that a file of the source lies in. */
  readonly rootOf: (path: string) => RootId;
  /** Names in a folder of the new project, as it is now; none where there is no such folder. */
  readonly there: (folder: string) => readonly string[];
}

/** A file of the source: what becomes of it, or would. */
export interface CarryItem {
  /** From the source's root. */
  readonly from: string;
  /** From the new project's root. */
  readonly to: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly family: string | null;
  readonly by: NamedBy;
  /** The sequence that it is a frame of: its path with `#` for its frame; `null` where it is none. */
  readonly run: string | null;
  readonly comes: boolean;
  /** The name cannot be, or the path is too long. */
  readonly fault: Coded | null;
  /** The place that is wanted twice, or that something has already. */
  readonly clash: boolean;
}

/** A folder of the source, with the files in itself alone. */
export interface CarriedFolder {
  readonly path: string;
  readonly to: string;
  /** The template's id of it; `null` where no plan makes it. */
  readonly node: string | null;
  readonly comes: Comes;
  /** Whether that is said of itself, or of a folder above. */
  readonly isSaid: boolean;
  readonly files: number;
  readonly current: number;
  readonly coming: number;
  /** Of what comes. */
  readonly bytes: number;
}

export interface Carried extends Torn {
  readonly items: readonly CarryItem[];
  readonly folders: readonly CarriedFolder[];
  /** Words that become others in names that read by no convention. */
  readonly words: readonly OldWordFound[];
  readonly changes: readonly Change[];
  readonly documents: readonly RewrittenDocument[];
  readonly byHand: readonly ByHand[];
}

/** One that is brought. */
export const isBrought = ({ comes, fault, clash }: Pick<CarryItem, 'comes' | 'fault' | 'clash'>): boolean =>
  comes && fault === null && !clash;
