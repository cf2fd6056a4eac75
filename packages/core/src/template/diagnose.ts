/** What is wrong with a template or the values put into it, at its node. Words are made by `words/`. */

import type { CompileFault } from '../name/pattern/compile';
import type { PatternFault } from '../name/pattern/parse';
import type { WriteFault } from '../name/write';
import type { NameFault } from '../portable/name';
import type { Params } from '../result';
import type { ValueFault } from './values';

export type TemplateFaultCode =
  | 'block-unknown'
  | 'block-in-itself'
  | 'list-unknown'
  | 'list-empty'
  | 'field-unknown'
  | 'option-unknown'
  | 'convention-unknown'
  | 'family-unknown'
  | 'siblings-alike'
  | 'starter-no-document'
  | 'number-twice'
  | 'path-over-budget'
  | 'too-deep'
  | 'too-many-lines'
  | 'name-absent'
  | 'banned-word-in-name'
  | 'target-exists';

export type DiagnosticCode =
  | TemplateFaultCode
  | PatternFault['code']
  | CompileFault['code']
  | WriteFault['code']
  | NameFault['code']
  | ValueFault['code'];

export interface Diagnostic {
  readonly code: DiagnosticCode;
  /** `refused`: nothing is written while it stands. `awkward`: said, and written all the same. */
  readonly weight: 'refused' | 'awkward';
  /** The template's node, starter or convention; `null` where a field's value is at fault. */
  readonly node: string | null;
  /** The planned line, where one is meant. */
  readonly line: string | null;
  readonly field: string | null;
  readonly params: Params;
}
