/** The order in which a start asks: what the job is, for whom, until when; what is mostly settled already comes last. */
import type { Field } from '@nesting/core/name';

function rankOf(field: Field): number {
  const { key, type } = field;
  if (key === 'title') return 0;
  // The first revision is mostly made when there is something to revise.
  if (field.type === 'list' && field.revisions !== undefined) return 6;
  if (type === 'list') return 1;
  if (type === 'client') return 2;
  if (type === 'date') return 3;
  return type === 'person' ? 5 : 4;
}

export const inStartOrder = (fields: readonly Field[]): readonly Field[] =>
  fields.toSorted((a, b) => rankOf(a) - rankOf(b));

/** The field that says who leads: the first that asks for a person. */
export const leaderField = (fields: readonly Field[]): string | null =>
  fields.find((f) => f.type === 'person')?.key ?? null;
