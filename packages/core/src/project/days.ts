/** The day that a name says. */
import type { Reading } from '../name/pattern/field';
import type { FolderConvention } from './folder-convention';

/** A name's own date, ISO; none where the folder gives it. */
export function dateIn(by: FolderConvention, reading: Reading): string | null {
  for (const { field, domain } of by.strict.slots) {
    const value = reading[field];
    if (domain.kind === 'date' && typeof value === 'string' && by.bound[field] === undefined) return value;
  }
  return null;
}
