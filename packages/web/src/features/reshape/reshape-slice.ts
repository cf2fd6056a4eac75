/**
 * A project as it is to become, while somebody writes it; kept here and on the server until it is carried out or thrown
 * away.
 */
import type { ProjectPage, ReshapeRequest } from '@nesting/contract';
import type { Value, Values } from '@nesting/core/name';
import { isKeyed } from '@nesting/core/name';
import type { ReshapeLine } from '@nesting/core/planners';
import type { Adjustments } from '@nesting/core/template';
import { draftSlice } from '../../app/draft-slice';
import { withAdjustment } from '../start/overrides';

/** All that is asked for but the project's version, which is always the newest one that was seen. */
export interface Wish {
  readonly template: string;
  readonly edition: number;
  readonly values: Values;
  readonly adjusted: Adjustments;
  readonly renamed: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly extra: readonly { readonly starter: string; readonly folder: string; readonly name: string }[];
  readonly keep: readonly string[];
  readonly keepFolder: boolean;
}

export const reshapes = draftSlice<Wish>('reshapes', 'nesting-reshapes');

export const wishOf = (p: ProjectPage): Wish => ({
  template: p.template.id,
  edition: p.template.edition,
  values: p.values,
  adjusted: p.adjusted,
  renamed: {},
  extra: [],
  keep: [],
  keepFolder: false,
});

export const askedOf = (wish: Wish, version: number): ReshapeRequest => ({ ...wish, version });

export const isSameWish = (a: Wish, b: Wish): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Entries of a list, or of it within one entry of another. */
export function entriesIn(value: Value | undefined, outer: string | null): readonly string[] {
  const own = outer !== null && isKeyed(value) ? value[outer] : value;
  return Array.isArray(own)
    ? own.map(String)
    : typeof own === 'string' && own !== ''
      ? own
          .split(/[,;\n]/)
          .map((e) => e.trim())
          .filter((e) => e !== '')
      : [];
}

export function withEntries(values: Values, list: string, outer: string | null, given: Value): Values {
  const value = values[list];
  if (outer === null) return { ...values, [list]: given };
  const by = isKeyed(value) ? value : {};
  return { ...values, [list]: { ...by, [outer]: given } };
}

/**
 * The line stays as it is: a folder keeps its name as the project's own, a file is left, what would be made is left
 * out.
 */
export function leave(wish: Wish, line: ReshapeLine): Wish {
  if (line.key.startsWith('file:')) return { ...wish, keep: [...wish.keep, line.key] };
  if (line.key.startsWith('extra:'))
    return { ...wish, extra: wish.extra.filter((e) => !line.key.endsWith(`/${e.name}`)) };
  if (line.before === null) return { ...wish, adjusted: withAdjustment(wish.adjusted, line.key, { leaveOut: true }) };
  return {
    ...wish,
    adjusted: withAdjustment(wish.adjusted, line.key, { name: line.before.slice(line.before.lastIndexOf('/') + 1) }),
  };
}

export const callIt = (wish: Wish, line: ReshapeLine, name: string): Wish => ({
  ...wish,
  adjusted: withAdjustment(wish.adjusted, line.key, { name }),
});

/** An entry is called otherwise from now on: what was made for it is renamed, and not made anew. */
export function renamedEntry(wish: Wish, list: string, from: string, to: string, values: Values): Wish {
  const was = Object.entries(wish.renamed[list] ?? {}).find(([, name]) => name === from)?.[0] ?? from;
  return { ...wish, values, renamed: { ...wish.renamed, [list]: { ...wish.renamed[list], [was]: to } } };
}
