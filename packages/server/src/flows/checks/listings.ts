/** Names that lie on a volume, as text: what templates are derived from. Nothing but names is read. */
import type { FolderChoice, ListingText } from '@nesting/contract';
import { readProject } from '../../db/queries/projects/projects';
import { folderAt } from '../place';
import { Refused, type World } from '../world';

/** Names listed at once: beyond them the rest says nothing new. */
const MOST_LISTED = 200_000;
/** Folders offered to choose from at once. */
const MOST_FOLDERS = 1000;

/** A path a line under the folder's own name; folders end in a slash. */
async function listingOf(world: World, root: string, name: string): Promise<ListingText> {
  const { paths, whole } = await world.reads.run('namesBelow', { root, most: MOST_LISTED });
  return { listing: paths.map((path) => `${name}/${path}`).join('\n'), whole };
}

export async function projectListing(world: World, projectId: string): Promise<ListingText> {
  const project = await readProject(world.db, projectId);
  if (project === null) throw new Refused(404, 'not-found', 'There is no such project.');
  return listingOf(world, rootOn(world, project.volume, project.folder), project.folder);
}

export async function volumeListing(world: World, volume: string, path: string): Promise<ListingText> {
  return listingOf(world, rootOn(world, volume, path), path.split('/').at(-1) ?? volume);
}

/** The folders in a folder of a volume, to choose one of them. */
export async function foldersIn(world: World, volume: string, path: string): Promise<FolderChoice> {
  const names = await world.reads.run('namesIn', { root: rootOn(world, volume, path) });
  const folders = names.folders.filter((name) => !name.startsWith('.')).sort();
  return { folders: folders.slice(0, MOST_FOLDERS), files: names.files.length };
}

function rootOn(world: World, volume: string, path: string): string {
  const root = folderAt(world, { volume, folder: path });
  if (!root.ok && root.faults[0]?.code === 'no-volume')
    throw new Refused(404, 'no-volume', `There is no volume ${volume}.`);
  if (!root.ok) throw new Refused(404, 'no-folder', `The folder ${path} cannot be reached on ${volume}.`);
  return root.value;
}
