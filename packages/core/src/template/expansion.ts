import type { Registers, Values } from '../name/pattern/field';
import type { WrittenPiece } from '../name/write';
import type { Diagnostic } from './diagnose';
import type { FolderNode, Mark, Presence, Starter, Template } from './node';
import type { FolderRules } from './resolve';
import type { KeptValues } from './values';

export interface PlannedLine {
  /** Identity: the node's id and its entries' keys. It stays when a name changes. */
  readonly key: string;
  readonly node: string;
  readonly parent: string | null;
  readonly kind: 'folder' | 'file';
  readonly name: string;
  readonly pieces: readonly WrittenPiece[];
  /** From the project's root, parted by `/`; empty for the root itself. */
  readonly path: string;
  readonly depth: number;
  readonly presence: Presence;
  /** Made at the start: always present, and all above it too. */
  readonly made: boolean;
  readonly mark: Mark | null;
  /** The list entries it was made for, by the name they have in patterns. */
  readonly entries: Readonly<Record<string, string>>;
  readonly rules: FolderRules;
  readonly folder: FolderNode | null;
  readonly starter: Starter | null;
  /**
   * Of a folder redirected to another volume, and of what is in it: where, and whether it is made there at the start.
   * Here it may be absent.
   */
  readonly elsewhere?: Elsewhere | undefined;
}

export interface Elsewhere {
  readonly volume: string;
  readonly made: boolean;
}

export interface Expansion {
  readonly rootName: string;
  readonly lines: readonly PlannedLine[];
  readonly diagnostics: readonly Diagnostic[];
  readonly folders: number;
  readonly files: number;
  /** Longest whole path in UTF-16 units, the prefix of the volume counted in. */
  readonly longest: number;
  readonly budget: number;
  readonly values: KeptValues;
  readonly registers: Registers;
}

export interface ExpandOptions {
  /** What stands before the project's root on the system with the longest prefix, its last separator included. */
  readonly prefix?: string;
  /** Keeps what came of each folder, for the next expansion of nearly the same template with the same values. */
  readonly remember?: boolean;
}

export interface Expander {
  readonly template: Template;
  readonly registers: Registers;
  expand(values: Values, options?: ExpandOptions): Expansion;
}
