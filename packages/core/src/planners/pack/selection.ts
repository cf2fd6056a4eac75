/** What of a project goes into a package. It can be kept with a template and used again. */
import type { Comes, Criterion } from '../carry-over/way';

export interface Selection {
  /** Only what lies in this folder, from the project's root; empty for all of it. */
  readonly within: string;
  /** What of a folder goes, where nothing else is said of it or of one above. */
  readonly comes: Exclude<Comes, 'empty' | 'nothing'>;
  /** What programs made along the way goes too: caches, previews, autosaves. */
  readonly withGenerated: boolean;
  /** By the template's id of the folder; its subfolders follow. */
  readonly folders: Readonly<Record<string, Comes>>;
  readonly take: readonly Criterion[];
  /** Stronger than `take`. */
  readonly leave: readonly Criterion[];
  /** Single files, and folders with all that is in them, by their path: stronger than all else. */
  readonly picked: Readonly<Record<string, boolean>>;
  /** Only this document and all that it refers to, however far; `null` for no such. */
  readonly document: string | null;
  /** It leaves the studio: folders that are not for outsiders stay, but for what is picked by hand. */
  readonly isForOutsiders: boolean;
}

export const WHOLE_PROJECT: Selection = {
  within: '',
  comes: 'everything',
  withGenerated: false,
  folders: {},
  take: [],
  leave: [],
  picked: {},
  document: null,
  isForOutsiders: true,
};
