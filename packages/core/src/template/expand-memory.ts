import type { Field, Registers, Values } from '../name/pattern/field';
import type { Elsewhere, PlannedLine } from './expansion';
import type { Mark, Template } from './node';
import type { ResolvedFolder } from './resolve';
import { type KeptValues, keepValues } from './values';

/** What a folder hands down to what is in it. */
export interface Frame {
  readonly key: string;
  readonly path: string;
  readonly depth: number;
  readonly made: boolean;
  readonly elsewhere: Elsewhere | null;
  readonly mark: Mark | null;
  readonly entries: Readonly<Record<string, string>>;
  /** Every entry on the way down: a list within itself keeps both. */
  readonly chain: string;
  readonly values: Values;
  readonly fields: readonly Field[];
  /** Names the fields in hand, so that compiled patterns are shared only where they mean the same. */
  readonly scope: string;
  /** Entry of each list in hand, for lists within lists. */
  readonly within: Readonly<Record<string, string>>;
}

export type Placed = Pick<PlannedLine, 'kind' | 'presence' | 'mark' | 'rules' | 'folder' | 'starter'>;

/**
 * What came of a folder, and what that rests on: values and registers are the very same objects while nobody changes
 * them.
 */
export interface Remembered {
  readonly frame: Frame;
  readonly kept: KeptValues;
  readonly registers: Registers;
  readonly checks: Template['checks'];
  readonly before: number;
  readonly lines: readonly PlannedLine[];
  readonly longest: number;
}

export const remembered = new WeakMap<ResolvedFolder, Remembered>();

/** Values kept for given ones, the very same while nothing about them changes. */
const keptFor = new WeakMap<
  Values,
  { readonly fields: readonly Field[]; readonly registers: Registers; readonly kept: KeptValues }
>();

export function keptValues(fields: readonly Field[], values: Values, registers: Registers): KeptValues {
  const known = keptFor.get(values);
  if (known !== undefined && known.fields === fields && known.registers === registers) return known.kept;
  const kept = keepValues(fields, values, registers);
  keptFor.set(values, { fields, registers, kept });
  return kept;
}

/** Where a line lies if not with the project: redirected itself, or in a folder that is. */
export function awayOf(frame: Frame, volume: string | undefined, wanted: boolean): Elsewhere | null {
  if (volume !== undefined) return { volume, made: (frame.made || frame.elsewhere?.made === true) && wanted };
  return frame.elsewhere === null ? null : { volume: frame.elsewhere.volume, made: frame.elsewhere.made && wanted };
}

export const sameFrame = (a: Frame, b: Frame): boolean =>
  a.key === b.key &&
  a.path === b.path &&
  a.depth === b.depth &&
  a.made === b.made &&
  a.mark === b.mark &&
  a.chain === b.chain;
