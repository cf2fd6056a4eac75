import { join } from '../../listing/entry';
import { rule } from '../rule';

/** A file of no bytes. One that was just made is left in peace, and what the plan makes empty is meant so. */
export const emptyFile = rule({
  code: 'empty-file',
  weight: 'should',
  about: 'file',
  params: { name: 'text' },
  remedy: { act: 'set-aside' },
  folder: ({ rules, listing, state }) =>
    state.kind !== 'planned' || !listing.files.some((file) => file.size === 0)
      ? []
      : listing.files.flatMap((file) => {
          if (file.size > 0 || file.isFolder) return [];
          const path = join(listing.path, file.name);
          return file.modified === 0 || rules.isSettling(file.modified) || rules.planned(path)?.kind === 'file'
            ? []
            : [{ path, params: { name: file.name } }];
        }),
});
