import { type Foreign, foreignIn } from '../../name/mend/foreign';
import type { Reading } from '../../name/pattern/field';
import { readName } from '../../name/read/read';
import type { FolderConvention } from '../../project/folder-convention';
import { frameless } from '../../project/frameless';
import { type FileCase, rule } from '../rule';

/** A name that is right but for another project's number or client. */
export const foreignProject = rule({
  code: 'foreign-project',
  weight: 'must',
  about: 'file',
  params: { name: 'text', number: 'text', client: 'text', own: 'text' },
  remedy: { act: 'choose', among: ['take-number', 'move-to-project'] },
  file: (c) => {
    for (const convention of c.conventions) {
      const foreign = readAsForeign(c, convention);
      if (foreign !== null)
        return { path: c.path, ...frameless(convention.strict, c.path), params: { name: c.file.name, ...foreign } };
    }
    return null;
  },
});

/** Read with any project's number and client. */
export function readForeign({ foreign, bound }: FolderConvention, name: string): Reading | null {
  if (foreign === null) return null;
  const { number: _number, client: _client, ...rest } = bound;
  return readName(foreign, name, rest);
}

/** The same name as this project would have it. */
export const ownOf = ({ bound }: FolderConvention, reading: Reading): Reading => ({
  ...reading,
  ...(bound.number !== undefined && { number: bound.number }),
  ...(bound.client !== undefined && { client: bound.client }),
});

function readAsForeign({ rules, file }: FileCase, convention: FolderConvention): (Foreign & { own: string }) | null {
  const reading = readForeign(convention, file.name);
  const own = { number: rules.number ?? null, client: rules.client ?? null };
  const foreign = reading === null ? null : foreignIn(reading, own);
  return foreign && { ...foreign, own: own.number ?? own.client ?? '' };
}
