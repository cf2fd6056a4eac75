import { grouped } from '../../grouped';
import { join } from '../../listing/entry';
import { clashKey } from '../../portable/name';
import { singlesOf } from '../items';
import { rule } from '../rule';

const TELLING = /[A-Z]|[^ -~]/;

/**
 * Names in one folder that some system cannot tell apart: they differ in capitals or in the form of their accents
 * alone.
 */
export const nameClash = rule({
  code: 'name-clash',
  weight: 'must',
  about: 'file',
  params: { name: 'text', others: 'texts' },
  remedy: { act: 'rename', to: 'suggested' },
  claims: true,
  folder: ({ listing, state, items }) => {
    // A disk holds no name twice: only where capitals or accents are can two be one to another system.
    const files = state.kind === 'planned' ? singlesOf(listing, items) : listing.files;
    if (!files.some((f) => TELLING.test(f.name)) && !listing.folders.some((name) => TELLING.test(name))) return [];
    const names = [...listing.folders, ...listing.files.map((f) => f.name)];
    if (new Set(names.map(clashKey)).size === names.length) return [];
    return [...grouped(names, clashKey)].flatMap(([key, alike]) => {
      const [name = '', ...others] = [...alike].sort();
      return others.length === 0
        ? []
        : [
            {
              path: join(listing.path, name),
              subject: join(listing.path, key),
              params: { name, others },
              related: others.map((o) => join(listing.path, o)),
            },
          ];
    });
  },
});
