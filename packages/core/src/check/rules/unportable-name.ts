import { join, nameOf } from '../../listing/entry';
import { nameFaults } from '../../portable/name';
import { singlesOf } from '../items';
import type { RawFinding, Rule } from '../rule';

/** A name that some system the project is meant for cannot hold. */
export const unportableName: Rule = {
  code: 'unportable-name',
  scope: 'folder',
  judge: ({ rules, listing, state, items }) => {
    const out: RawFinding[] = [];
    const look = (name: string, folder: string | null) => {
      const fault = nameFaults(name, rules.profiles).find((f) => f.weight === 'refused');
      if (fault !== undefined)
        out.push({
          path: folder === null ? listing.path : join(folder, name),
          params: { ...fault.params, name, fault: fault.code },
        });
    };
    if (listing.path !== '') look(nameOf(listing.path), null);
    // Frames of one sequence differ in digits alone: what one may be called, all may.
    if (state.kind === 'planned') for (const file of singlesOf(listing, items)) look(file.name, listing.path);
    else for (const file of listing.files) look(file.name, listing.path);
    return out;
  },
};
