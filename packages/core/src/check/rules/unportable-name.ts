import { join, nameOf } from '../../listing/entry';
import { nameFaults } from '../../portable/name';
import { singlesOf } from '../items';
import { type ParamsOf, type RawFinding, rule } from '../rule';

const FAULT = {
  at: 'count?',
  character: 'text?',
  code: 'text?',
  systems: 'texts?',
  found: 'count?',
  limit: 'count?',
  unit: 'text?',
} as const;
const UNPORTABLE = { name: 'text', fault: 'text', ...FAULT } as const;

/** A name that some system the project is meant for cannot hold. */
export const unportableName = rule({
  code: 'unportable-name',
  weight: 'must',
  about: 'file',
  params: UNPORTABLE,
  remedy: { act: 'rename', to: 'suggested' },
  claims: true,
  folder: ({ rules, listing, state, items }) => {
    const out: RawFinding<ParamsOf<typeof UNPORTABLE>>[] = [];
    const look = (name: string, folder: string | null) => {
      const fault = nameFaults(name, rules.profiles).find((f) => f.weight === 'refused');
      if (fault !== undefined)
        out.push({
          path: folder === null ? listing.path : join(folder, name),
          // Of each fault those that it has.
          params: { ...(fault.params as ParamsOf<typeof FAULT>), name, fault: fault.code },
        });
    };
    if (listing.path !== '') look(nameOf(listing.path), null);
    if (state.kind === 'planned' || state.kind === 'free')
      for (const name of listing.unnamed ?? [])
        out.push({ path: join(listing.path, name), params: { name, fault: 'name-not-utf-8' } });
    // Frames of one sequence differ in digits alone: what one may be called, all may.
    if (state.kind === 'planned') for (const file of singlesOf(listing, items)) look(file.name, listing.path);
    // In what nobody planned only its place is said.
    else if (state.kind === 'free') for (const file of listing.files) look(file.name, listing.path);
    return out;
  },
});
