import type { Field, ScalarRule, Values } from '../../name/pattern/field';
import type { Template } from '../node';
import type { Seen } from './tree';

export interface Known {
  readonly number?: string | undefined;
  readonly client?: string | undefined;
  readonly title?: string | undefined;
  /**
   * What was asked for when the project started, and what was said: its lists keep their names, its other fields stay
   * fields.
   */
  readonly fields?: readonly Field[] | undefined;
  readonly values?: Values | undefined;
}

export interface Question {
  readonly code: 'folder-rare' | 'number-twice' | 'file-alone' | 'names-unlike';
  /** The folder of the template it is about. */
  readonly node: string;
  readonly path: string;
  readonly names: readonly string[];
  /** The names with what is known of the project as fields. */
  readonly patterns: readonly string[];
}

export interface Derived {
  readonly template: Template;
  /** With these values the template gives the very tree it came from. */
  readonly values: Values;
  readonly questions: readonly Question[];
}

/** A name and the entries of the lists it lies under. */
export interface FileSeen {
  readonly name: string;
  readonly entries: Readonly<Record<string, string>>;
}

/** The same folder of the template as it is in several places. */
export interface Instance {
  readonly seen: Seen;
  readonly entries: Readonly<Record<string, string>>;
  readonly path: string;
}

export interface ListMade {
  readonly key: string;
  readonly as: string;
  readonly label: string;
  readonly rule: ScalarRule;
  readonly within: string | null;
  /** Entries by those of the list it stands within; under the empty text where it stands alone. */
  readonly by: Map<string, Set<string>>;
}
