/** Whose work a name is: another project's number or client stands in it. */
import type { Reading } from '../pattern/field';
import { sameDomain } from './near';

interface Owner {
  readonly number: string | null;
  readonly client: string | null;
}

export interface Foreign {
  /** Empty where it is this project's own, as is the client. */
  readonly number: string;
  readonly client: string;
}

/**
 * What a name carries of another project; `null` where it carries nothing of one. Any text at all may stand where a
 * number does: only one of the same form is another project's.
 */
export function foreignIn(reading: Reading, own: Owner): Foreign | null {
  const number = String(reading.number ?? '');
  const client = String(reading.client ?? '');
  const isOtherNumber = number !== '' && own.number !== null && number !== own.number;
  const isOtherClient = client !== '' && own.client !== null && client !== own.client;
  if (isOtherNumber && !sameDomain(number, own.number ?? '')) return null;
  if (!isOtherNumber && !isOtherClient) return null;
  return { number: isOtherNumber ? number : '', client: isOtherClient ? client : '' };
}
