/** Lists of checksums, laid beside what a batch brought, where the template asks for them. */
import type { Change } from '../change/change';
import { HOME, home } from '../change/place';
import { grouped } from '../grouped';
import { join, parentOf } from '../listing/entry';
import { sumLine } from '../package';
import { checksumListName } from '../project/checksum-list';
import type { ProjectRules } from '../project/rules';

interface ToList {
  /** What the batch changed, and by a change's id the hash of what was written, proved by reading it back. */
  readonly changes: readonly Change[];
  readonly proved: Readonly<Record<string, string>>;
  /** When it was done, ISO 8601. */
  readonly at: string;
}

/**
 * A file in each folder that keeps such lists, for all that came into it and below: lines as `sha256sum` writes and
 * checks them, paths from that folder.
 */
export function checksumLists(rules: ProjectRules, { changes, proved, at }: ToList): readonly Change[] {
  const sums = changes.flatMap(({ id, entry, after }) => {
    const hash = Object.hasOwn(proved, id) ? proved[id] : undefined;
    const folder = hash === undefined || entry !== 'file' || after?.root !== HOME ? null : keeperOf(rules, after.path);
    return folder === null || hash === undefined || after === null ? [] : [{ folder, hash, path: after.path }];
  });
  return [...grouped(sums, ({ folder }) => folder)].map(([folder, inside]): Change => {
    const path = join(folder, checksumListName(at));
    const lines = inside.map(({ hash, path: whole }) => sumLine({ hash, path: below(folder, whole) }));
    return {
      id: path,
      subject: { kind: 'file' },
      group: null,
      entry: 'file',
      before: null,
      after: home(path),
      content: { kind: 'text', text: lines.sort().join('') },
    };
  });
}

const below = (folder: string, path: string): string => (folder === '' ? path : path.slice(folder.length + 1));

/** The nearest folder above that keeps lists; `null` where none does. */
function keeperOf(rules: ProjectRules, path: string): string | null {
  for (let at = parentOf(path); ; at = parentOf(at)) {
    const line = rules.planned(at);
    if (line?.kind === 'folder' && line.folder?.checksums === true) return at;
    if (at === '') return null;
  }
}
