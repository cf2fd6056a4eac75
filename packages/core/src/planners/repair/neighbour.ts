/** Files that carry another project's number or client go to that project's folder, in the same batch. */
import type { Place } from '../../change/place';
import { faultOfFile } from '../../check/file-fault';
import { type FileEntry, join, nameOf, parentOf } from '../../listing/entry';
import type { ProjectRules } from '../../project/rules';
import { routesOf } from '../intake/route';
import { namesOfItem, renamedItem } from './item';
import { type Act, type Neighbour, type Option, type RepairCase, textOf } from './option';

/** Folders of one project that are offered. */
const MOST_PLACES = 3;

/** To the folder of that project that takes it: the one that it lies in here before all others. */
export function toNeighbour(c: RepairCase): Option[] {
  const { file, finding, neighbours } = c;
  if (file === null || file.isFolder) return [];
  const [number, client] = [textOf(finding, 'number'), textOf(finding, 'client')];
  const meant = neighbours.filter(({ rules }) => (number !== '' ? rules.number === number : rules.client === client));
  return meant.flatMap((neighbour) => {
    const same = samePlace(neighbour.rules, finding.path, file);
    const routes = routesOf(neighbour.rules, file, '').filter(({ line }) => line.path !== same);
    const other = routes.map(({ line, name, reason }) => ({
      folder: line.path,
      name,
      isSure: reason === 'convention',
    }));
    const places = same === null ? other : [{ folder: same, name: file.name, isSure: true }, ...other];
    return places.slice(0, MOST_PLACES).flatMap(({ folder, name, isSure }, i) => {
      const acts = sentItem(c, { root: neighbour.root, path: folder }, name);
      const confidence = isSure && i === 0 ? 'likely' : 'guess';
      return acts === null ? [] : [sending(neighbour, join(folder, name), acts, confidence)];
    });
  });
}

function samePlace(rules: ProjectRules, path: string, file: FileEntry): string | null {
  const line = rules.planned(parentOf(path));
  if (line?.kind !== 'folder' || line.elsewhere !== undefined) return null;
  return faultOfFile(rules, line, file) === null ? line.path : null;
}

const sending = (
  { root, folder }: Neighbour,
  to: string,
  acts: readonly Act[],
  confidence: Option['confidence'],
): Option => ({
  key: `move-to-project:${root} ${parentOf(to)}`,
  way: 'move-to-project',
  confidence,
  to: null,
  value: `${folder}/${to}`,
  acts,
});

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
