/** How a package is, in words. */
import type { PackageRow } from '@nesting/contract';
import { count, size } from '../../app/words';

export const isUnderWay = ({ state }: PackageRow): boolean =>
  state === 'queued' || state === 'packing' || state === 'proving';

/** What one may wait for. */
export const isBusy = (row: PackageRow): boolean => isUnderWay(row) || row.act !== null;

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

const ACT_WORDS: Readonly<Record<NonNullable<PackageRow['act']>, string>> = {
  prove: 'is read again',
  free: 'the original is being freed',
  back: 'is being brought back',
  part: 'a folder is being taken out',
};

function doneWords({ act, isWhole, provedAt, freedAt, backAt }: PackageRow): string {
  if (act !== null) return ACT_WORDS[act];
  if (isWhole === false) return 'is not whole any more';
  if (isWhole === null && provedAt !== null) return 'could not be read';
  if (freedAt !== null && (backAt === null || backAt < freedAt)) return 'whole, and the only one';
  return 'whole';
}

/** Somebody has to look at it. */
export const isWrong = ({ state, isWhole, actFailure }: PackageRow): boolean =>
  state === 'failed' || state === 'waits' || isWhole === false || actFailure !== '';
