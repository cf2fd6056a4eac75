import { join, nameOf, parentOf } from '../../listing/entry';
import { rule } from '../rule';

/**
 * A path longer than the template's budget, the project's own folder and what stands before it counted in. Of a folder
 * and what is in it only the folder is said.
 */
export const pathTooLong = rule({
  code: 'path-too-long',
  weight: 'must',
  about: 'file',
  params: { name: 'text', length: 'count', budget: 'count' },
  remedy: { act: 'choose', among: ['shorter-names'] },
  claims: true,
  folder: ({ rules, listing }) => {
    const { before } = rules;
    const found = (path: string) => ({
      path,
      params: { name: nameOf(path), length: before + path.length, budget: rules.budget },
    });
    if (before + listing.path.length > rules.budget)
      return before + parentOf(listing.path).length > rules.budget ? [] : [found(listing.path)];
    // Lengths alone are enough to know: a path is made only where it is told.
    const left = rules.budget - before - (listing.path === '' ? 0 : listing.path.length + 1);
    return listing.files.filter((file) => file.name.length > left).map((file) => found(join(listing.path, file.name)));
  },
});
