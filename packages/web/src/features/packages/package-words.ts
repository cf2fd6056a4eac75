/** How a package is, in words. */
import type { PackageRow } from '@nesting/contract';
import { count, size } from '../../app/words';

export const isUnderWay = ({ state }: PackageRow): boolean =>
  state === 'queued' || state === 'packing' || state === 'proving';

/** What one may wait for. */
export const isBusy = (row: PackageRow): boolean => isUnderWay(row) || row.isProving;

export function stateWords(row: PackageRow): string {
  switch (row.state) {
    case 'queued':
      return 'waits for its turn';
    case 'packing':
      return `packed ${count(row.doneFiles)} of ${count(row.files)}, ${size(row.doneBytes)} of ${size(row.bytes)}`;
    case 'proving':
      return 'is read back';
    case 'waits':
      return 'waits for you';
    case 'stopped':
      return 'stopped';
    case 'failed':
      return 'failed';
    case 'done':
      return doneWords(row);
  }
}

function doneWords({ isProving, isWhole, proofFailure }: PackageRow): string {
  if (isProving) return 'is read again';
  if (proofFailure !== '') return 'could not be read';
  if (isWhole === false) return 'is not whole any more';
  return 'whole';
}

/** Somebody has to look at it. */
export const isWrong = ({ state, isWhole, proofFailure }: PackageRow): boolean =>
  state === 'failed' || state === 'waits' || isWhole === false || proofFailure !== '';
