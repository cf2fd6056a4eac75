/** Files that carry another project's number or client go to that project's folder, in the same batch. */
import type { Place, RootId } from '../../change/place';
import { join, nameOf, parentOf } from '../../listing/entry';
import type { ProjectRules } from '../../project/rules';
import { routesOf } from '../intake/route';
import { namesOfItem, renamedItem } from './item';
import { type Act, type Option, type ProjectView, type RepairCase, textOf } from './option';

/** Another project that files can be moved to. */
export interface Neighbour {
  readonly root: RootId;
  /** Its folder, from its volume. */
  readonly folder: string;
  readonly rules: ProjectRules;
  readonly list: ProjectView['list'];
}

/** Folders of one project that are offered. */
const MOST_PLACES = 3;

/** To the folder of that project that takes it. */
export function toNeighbour(c: RepairCase): Option[] {
  const { file, finding, neighbours } = c;
  if (file === null || file.isFolder) return [];
  const [number, client] = [textOf(finding, 'number'), textOf(finding, 'client')];
  const meant = neighbours.filter(({ rules }) => (number !== '' ? rules.number === number : rules.client === client));
  return meant.flatMap((neighbour) =>
    routesOf(neighbour.rules, file, '')
      .slice(0, MOST_PLACES)
      .flatMap(({ line, name, reason }): Option[] => {
        const acts = sentItem(c, { root: neighbour.root, path: line.path }, name);
        const to = `${neighbour.folder}/${join(line.path, name)}`;
        const key = `move-to-project:${neighbour.root} ${line.path}`;
        const confidence = reason === 'convention' ? 'likely' : 'guess';
        return acts === null ? [] : [{ key, way: 'move-to-project', confidence, to: null, value: to, acts }];
      }),
  );
}

function sentItem(c: RepairCase, folder: Place, name: string): readonly Act[] | null {
  const from = parentOf(c.finding.path);
  const pairs = renamedItem(namesOfItem(c), name);
  return (
    pairs?.map(([old, now]) => ({
      do: 'send',
      from: join(from, old),
      to: { ...folder, path: join(folder.path, now) },
    })) ?? null
  );
}

/** What lies in another project's folder already under a name that no system tells from this one. */
export const kindIn = ({ list }: Neighbour, path: string): 'folder' | 'file' | null => {
  if (path === '') return 'folder';
  const listing = list(parentOf(path));
  const name = nameOf(path);
  if (listing?.folders.includes(name)) return 'folder';
  return listing?.files.some((f) => f.name === name) || listing?.others.includes(name) ? 'file' : null;
};
