/** Names that lie on a volume, as text: what templates are derived from. Nothing but names is read. */
import type { FolderChoice, ListingText } from '@nesting/contract';
import type { FolderListing } from '@nesting/core/listing';
import type { Where } from '@nesting/disk';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { hindranceAt, unreachable, whereOf } from '../place';
import { Refused, type World } from '../world';

type Project = NonNullable<Awaited<ReturnType<typeof readProject>>>;

/** Names listed at once: beyond them the rest says nothing new. */
const MOST_LISTED = 200_000;
/** Folders offered to choose from at once. */
const MOST_FOLDERS = 1000;

/** A path a line under the folder's own name; folders end in a slash. */
async function listingOf(world: World, where: Where, name: string): Promise<ListingText> {
  const { paths, whole } = await world.disks.run('namesBelow', { where, most: MOST_LISTED }, untilAskerLeaves());
  return { listing: paths.map((path) => `${name}/${path}`).join('\n'), whole };
}

export async function projectListing(world: World, projectId: string): Promise<ListingText> {
  const project = await readProject(world.db, projectId);
  if (project === null) throw new Refused('no-project');
  return listingOf(world, await folderOn(world, project.volume, project.folder), project.folder);
}

export async function volumeListing(world: World, volume: string, path: string): Promise<ListingText> {
  return listingOf(world, await folderOn(world, volume, path), path.split('/').at(-1) ?? volume);
}

/** The folders in a folder of a volume, to choose one of them. */
export async function foldersIn(world: World, volume: string, path: string): Promise<FolderChoice> {
  const where = await folderOn(world, volume, path);
  const [names] = await world.disks.run('namesInEach', { where, paths: [''] }, untilAskerLeaves());
  const folders = (names?.folders ?? []).filter((name) => !name.startsWith('.')).sort();
  return { folders: folders.slice(0, MOST_FOLDERS), files: names?.files.length ?? 0 };
}

/** The files in one folder of a project. */
export async function listProjectFolder(world: World, project: Project, path: string): Promise<FolderListing> {
  const place = { volume: project.volume, folder: path === '' ? project.folder : `${project.folder}/${path}` };
  const hindrance = await hindranceAt(world, place);
  const where = whereOf(world, project);
  if (hindrance !== null || where === null) throw unreachable(hindrance ?? 'no-volume', place);
  const listing = await world.disks.run('folder', { where, mounts: [], path }, untilAskerLeaves());
  if (listing === null) throw new Refused('not-readable', { path });
  return listing;
}

async function folderOn(world: World, volume: string, path: string): Promise<Where> {
  const place = { volume, folder: path };
  const hindrance = await hindranceAt(world, place);
  const where = whereOf(world, place);
  if (hindrance === 'no-volume' || where === null) throw new Refused('no-volume', { volume });
  if (hindrance !== null) throw new Refused('no-folder', { folder: path, volume });
  return where;
}
