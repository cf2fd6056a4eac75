/** What goes wrong with a package, as it is told. */
import { codeOf } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import { DiskError } from '@nesting/disk';
import { isAway } from '../../db/client';
import { diskRefusal } from '../place';
import { Refused } from '../world';

export const pathOf = ({ folder, name }: { readonly folder: string; readonly name: string }): string =>
  join(folder, name);

/** A disk that does not answer has codes that a database has too. */
export const isDatabaseAway = (error: unknown): boolean => !(error instanceof DiskError) && isAway(error);

export function refusalOf(error: unknown, place: { readonly volume: string; readonly path: string }): Refused | null {
  if (error instanceof Refused) return error;
  switch (codeOf(error)) {
    case 'EEXIST':
      return new Refused('package-there', place);
    case 'ENOENT':
      return new Refused('path-missing', { path: place.path });
    case 'EOTHERPLAN':
      return new Refused('package-changed');
    case 'ENOSPC':
      return new Refused('volume-full', { volume: place.volume, at: '', stayed: [] });
    default:
      return error instanceof DiskError ? diskRefusal(error) : null;
  }
}
