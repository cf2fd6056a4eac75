/** A compiled name: its pattern as a straight line, and what each slot may hold. */
import type { Part, Pattern, Slot } from './ast';
import type { ReadValue } from './field';
import type { SlotDomain } from './slot-domain';

/** One expression with a numbered group for each slot. */
export interface Expression {
  readonly regexp: RegExp;
  readonly slots: readonly ExpressionSlot[];
}

/** How a group's text becomes a value: most are the text itself, within a length. */
export interface ExpressionSlot {
  readonly field: string;
  readonly max: number;
  readonly number: boolean;
  /** For the few that are looked up or looked at once more. */
  readonly value: ((text: string) => ReadValue | undefined) | null;
}

export interface CompiledSlot {
  readonly field: string;
  readonly slot: Slot;
  readonly domain: SlotDomain;
}

/** The pattern as a straight line: an optional group is an `enter` that may jump behind it. */
export type Op =
  | { readonly kind: 'literal'; readonly text: string; readonly at: number }
  | { readonly kind: 'slot'; readonly slot: CompiledSlot }
  | { readonly kind: 'enter'; readonly skipTo: number };

export interface CompiledName {
  readonly pattern: Pattern;
  readonly parts: readonly Part[];
  readonly ops: readonly Op[];
  readonly slots: readonly CompiledSlot[];
  /** The form of each slot of the pattern's tree, for writing. */
  readonly domains: ReadonlyMap<Slot, SlotDomain>;
}

/** The words that say how far a version is, in their order, and the field that holds one. */
export interface StateWords {
  readonly field: string;
  readonly words: readonly string[];
}

export interface CompiledConvention extends CompiledName {
  /** `null` where versions have no states, or names no versions. */
  readonly states: StateWords | null;
  /** Fields that stand more than once and must have one value. */
  readonly repeated: ReadonlySet<string>;
  /** Known to read one way whatever the limits of its parts. */
  readonly oneWay: boolean;
  /**
   * One expression with a numbered group for each slot, where it reads one way; else `null`, and the linear matcher
   * reads.
   */
  readonly fast: Expression | null;
}
