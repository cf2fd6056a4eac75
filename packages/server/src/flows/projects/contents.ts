/** What new files are made with. */
import { type Change, type NewContent, orderChanges } from '@nesting/core/change';
import type { Registers, Values } from '@nesting/core/name';
import { fillText, type Template } from '@nesting/core/template';
import { type Contents, contentKey } from '@nesting/disk';
import { Refused } from '../world';

/** What starter files are filled in with. */
interface Filling {
  readonly values: Values;
  readonly fields: Template['fields'];
  readonly registers: Registers;
}

/**
 * What a file is made with: a text as it is, a starter file from beside its template, filled in where it asks for it.
 */
export function contentBytes(
  content: NewContent,
  starters: ReadonlyMap<string, Uint8Array>,
  { values, fields, registers }: Filling,
): Uint8Array {
  if (content.kind === 'text') return Buffer.from(content.text);
  const bytes = starters.get(content.key);
  if (bytes === undefined) throw new Refused('starter-missing', { path: content.key });
  if (!content.isFilled) return bytes;
  return Buffer.from(fillText(Buffer.from(bytes).toString('utf8'), values, fields, registers));
}

/** Changes that can be done together. @throws Refused where two things would have one place */
export function requireOrder(changes: readonly Change[]): readonly Change[] {
  const [fault] = orderChanges(changes).faults;
  if (fault === undefined) return changes;
  throw new Refused('plan-refused', { at: fault.at.path, because: { code: fault.code, params: {} } });
}

/** Everything that changes write, to be handed to the process that writes it. */
export function contentsOf(changes: readonly Change[], bytesOf: (content: NewContent) => Uint8Array): Contents {
  const contents = new Map<string, Uint8Array>();
  for (const { content } of changes)
    if (content?.kind === 'starter') contents.set(contentKey(content), bytesOf(content));
  return contents;
}
