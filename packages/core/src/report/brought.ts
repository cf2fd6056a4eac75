/** What a batch copied: checksums of it, and the names it came with. */
import type { Change } from '../change/change';
import { HOME } from '../change/place';
import { sumLine } from '../package';
import { csv } from '../text/csv';

/** By the change's id: the hash of what was written, proved by reading it back. */
export type Proved = Readonly<Record<string, string>>;

/** Lines as `sha256sum` writes and checks them; paths from the project's root. A second copy elsewhere has the same. */
export function checksumLines(changes: readonly Change[], proved: Proved): string {
  return changes
    .flatMap(({ id, after }) => {
      const hash = Object.hasOwn(proved, id) ? proved[id] : undefined;
      return hash === undefined || after?.root !== HOME ? [] : [sumLine({ hash, path: after.path })];
    })
    .join('');
}

export const broughtCsv = (changes: readonly Change[], proved: Proved): string =>
  csv([
    ['from', 'to', 'sha256'],
    ...changes.flatMap(({ id, subject, entry, before, after, content }) => {
      const from = content?.kind === 'copy' ? content.from : before;
      if (subject.kind !== 'file' || entry !== 'file' || from === null || after?.root !== HOME) return [];
      return [[from.path, after.path, (Object.hasOwn(proved, id) ? proved[id] : undefined) ?? '']];
    }),
  ]);
