/** The day that a name says. */

import type { Reading } from '../name/pattern/field';
import { ownValue } from '../own-value';
import type { FolderConvention } from './folder-convention';

/** A name's own date, ISO; none where the folder gives it. */
export function dateIn(by: FolderConvention, reading: Reading): string | null {
  for (const { field, domain } of by.strict.slots) {
    const value = ownValue(reading, field);
    if (domain.kind === 'date' && typeof value === 'string' && ownValue(by.bound, field) === undefined) return value;
  }
  return null;
}
