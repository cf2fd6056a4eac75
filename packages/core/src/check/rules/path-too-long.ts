import { join, nameOf, parentOf } from '../../listing/entry';
import type { Found, Rule } from '../rule';

/**
 * A path longer than the template's budget, the project's own folder and what stands before it counted in. Of a folder
 * and what is in it only the folder is said.
 */
export const pathTooLong: Rule = {
  code: 'path-too-long',
  scope: 'folder',
  judge: ({ ground, listing }) => {
    const { before } = ground;
    const found = (path: string): Found => ({
      path,
      params: { name: nameOf(path), length: before + path.length, budget: ground.budget },
    });
    if (before + listing.path.length > ground.budget)
      return before + parentOf(listing.path).length > ground.budget ? [] : [found(listing.path)];
    // Lengths alone are enough to know: a path is made only where it is told.
    const left = ground.budget - before - (listing.path === '' ? 0 : listing.path.length + 1);
    return listing.files.filter((file) => file.name.length > left).map((file) => found(join(listing.path, file.name)));
  },
};
