/**
 * What is brought in stands in two places: every copy is made once more, under the same path, in the folder that
 * stands for the project on another volume. What gives way in the project gives way there too.
 */
import type { Change, Expected } from '../change/change';
import { HOME, type Place, type RootId } from '../change/place';
import { join, nameOf, parentOf } from '../listing/entry';
import { foldersInto } from './bringing';

export interface Double {
  readonly root: RootId;
  /** What stands for the project's folder there, from that root. */
  readonly folder: string;
  /** Names in a folder of it, from that root; none where there is no such folder. */
  readonly there: (folder: string) => readonly string[];
  readonly fileAt: (path: string) => Expected | null;
}

export interface Doubled {
  readonly changes: readonly Change[];
  /** Places of copies that something lies in, from the double's root. */
  readonly taken: readonly string[];
}

export function doubled(changes: readonly Change[], double: Double): Doubled {
  const placed = (place: Place | null): Place | null =>
    place?.root === HOME ? { root: double.root, path: join(double.folder, place.path) } : place;
  const copies: Change[] = [];
  const givingWay: Change[] = [];
  for (const change of changes) {
    if (change.entry !== 'file') continue;
    const { before, after, content } = change;
    const twin = { ...change, id: `double ${change.id}`, before: placed(before), after: placed(after) };
    if (content?.kind === 'copy') copies.push(twin);
    else if (content === null && before?.root === HOME) {
      const there = double.fileAt(twin.before?.path ?? '');
      if (there !== null) givingWay.push({ ...twin, expects: there });
    }
  }
  const gone = new Set(givingWay.map(({ before }) => before?.path));
  const places = [...copies, ...givingWay].flatMap(({ after }) => (after === null ? [] : [after.path]));
  const taken = places.filter((path) => !gone.has(path) && double.there(parentOf(path)).includes(nameOf(path)));
  const folders = foldersInto(double.there, places.map(parentOf), double.root).map(
    (change): Change => ({ ...change, id: `double ${change.id}` }),
  );
  return { changes: [...folders, ...givingWay, ...copies], taken };
}
