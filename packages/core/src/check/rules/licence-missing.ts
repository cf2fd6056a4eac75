import { join } from '../../listing/entry';
import type { PlannedLine } from '../../template/expansion';
import { rule } from '../rule';

/** A file that says what others may be used for. */
export const NOTE = /licen[cs]e/i;

/** What a folder of licensed material holds besides, whatever families it takes. */
export const isNoteOf = (line: PlannedLine, name: string): boolean => line.folder?.licensed === true && NOTE.test(name);

/** Licensed material without its note: one that begins like it, or one for the whole folder. */
export const licenceMissing = rule({
  code: 'licence-missing',
  weight: 'must',
  about: 'file',
  params: { name: 'text' },
  remedy: { act: 'make' },
  folder: ({ rules, listing, state }) => {
    if (state.kind !== 'planned' || state.line.folder?.licensed !== true) return [];
    const notes = listing.files.filter((f) => NOTE.test(f.name)).map((f) => f.name.toLowerCase());
    if (notes.some((n) => NOTE.test(n.slice(0, 7)))) return [];
    return listing.files.flatMap((file) => {
      if (NOTE.test(file.name) || rules.planned(join(listing.path, file.name))?.kind === 'file') return [];
      const stem = file.name
        .slice(0, file.name.lastIndexOf('.') < 1 ? undefined : file.name.lastIndexOf('.'))
        .toLowerCase();
      return notes.some((n) => n.startsWith(stem))
        ? []
        : [{ path: join(listing.path, file.name), params: { name: file.name } }];
    });
  },
});
