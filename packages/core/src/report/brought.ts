/** What a batch copied: checksums of it, and the names it came with. */
import type { Change } from '../change/change';
import { csv } from '../text/csv';

/** By the change's id: the hash of what was written, proved by reading it back. */
export type Proved = Readonly<Record<string, string>>;

/** Lines as `sha256sum` writes and checks them; paths from the project's root. */
export function checksumLines(changes: readonly Change[], proved: Proved): string {
  return changes
    .flatMap(({ id, after }) => {
      const hash = Object.hasOwn(proved, id) ? proved[id] : undefined;
      return hash === undefined || after === null ? [] : [sumLine(hash, after.path)];
    })
    .join('');
}

/** A name with a line break or a backslash is written with these escaped, and the line says so. */
function sumLine(hash: string, path: string): string {
  const escaped = path.replace(/[\\\n\r]/g, (ch) => (ch === '\\' ? '\\\\' : ch === '\n' ? '\\n' : '\\r'));
  return `${escaped === path ? '' : '\\'}${hash}  ${escaped}\n`;
}

export const broughtCsv = (changes: readonly Change[], proved: Proved): string =>
  csv([
    ['from', 'to', 'sha256'],
    ...changes.flatMap(({ id, subject, entry, before, after, content }) => {
      const from = content?.kind === 'copy' ? content.from : before;
      if (subject.kind !== 'file' || entry !== 'file' || from === null || after === null) return [];
      return [[from.path, after.path, (Object.hasOwn(proved, id) ? proved[id] : undefined) ?? '']];
    }),
  ]);
