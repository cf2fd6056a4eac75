/**
 * The volumes the configuration allows: their state, how each system sees them, and projects that lie elsewhere than
 * their rows say.
 */
import { type FoundProject, type Prefixes, parseMarker, SYSTEMS, type VolumeRow } from '@nesting/contract';
import { readMarker, volumeState } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { projectsByVolume, readPrefixes, writePrefixes } from '../../db/queries/house/volumes';
import { copiesLeft } from '../../db/queries/projects/batches';
import { type PlacedProject, placedProjects, placeProject } from '../../db/queries/projects/projects';
import { folderAt } from '../place';
import { Refused, type World } from '../world';

export async function volumeRows(world: World): Promise<VolumeRow[]> {
  const [counts, prefixes] = await Promise.all([projectsByVolume(world.db), readPrefixes(world.db)]);
  return [...world.config.volumes].map(([name, root]) => ({
    name,
    root,
    ...volumeState(root),
    projects: counts.get(name) ?? 0,
    prefixes: prefixes.get(name) ?? { windows: '', macos: '', linux: '' },
  }));
}

/** A drive letter or a shared folder; a folder from the root. */
const FORMS = {
  windows: /^(?:[A-Za-z]:(?:\\[^<>:"/|?*\\]+)*\\?|\\\\[^<>:"/|?*\\\s]+\\[^<>:"/|?*\\]+(?:\\[^<>:"/|?*\\]+)*\\?)$/,
  macos: /^\/[^\n\0]*$/,
  linux: /^\/[^\n\0]*$/,
} as const;
const FORM_WORDS = { windows: 'S:\\ or \\\\server\\share', macos: '/Volumes/studio', linux: '/mnt/studio' } as const;

export async function savePrefixes(world: World, person: string, volume: string, prefixes: Prefixes): Promise<void> {
  if (!world.config.volumes.has(volume)) throw new Refused(404, 'no-volume', `There is no volume ${volume}.`);
  for (const system of SYSTEMS) {
    const prefix = prefixes[system].trim();
    if (prefix !== '' && !FORMS[system].test(prefix))
      throw new Refused(
        422,
        'prefix-refused',
        `“${prefix}” is no place as that system writes it: ${FORM_WORDS[system]}. Nothing was changed.`,
      );
  }
  await transaction(world.db, async (client) => {
    await writePrefixes(client, volume, prefixes);
    await recordActivity(client, 'prefixes-changed', person, null, { volume, ...prefixes }, `volume:${volume}`);
  });
}

/** Folders this deep are looked at for projects: people put them away by year or client. */
const DEPTH = 3;
const MOST_LOOKED = 20_000;

/** Every project's folder by the marker in it; folders of projects are not entered. */
async function markersOn(world: World, root: string): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  for (const { folder, marker } of await world.reads.run('markersBelow', { root, depth: DEPTH, most: MOST_LOOKED })) {
    const parsed = parseMarker(marker);
    if (parsed.ok) found.set(parsed.value.project, [...(found.get(parsed.value.project) ?? []), folder]);
  }
  return found;
}

export async function findProjects(world: World): Promise<FoundProject[]> {
  const places = new Map<string, { volume: string; folder: string }[]>();
  const ready = new Set<string>();
  for (const [volume, root] of world.config.volumes) {
    if (volumeState(root).state === 'missing') continue;
    ready.add(volume);
    for (const [project, folders] of await markersOn(world, root))
      places.set(project, [...(places.get(project) ?? []), ...folders.map((folder) => ({ volume, folder }))]);
  }
  const left = new Set((await copiesLeft(world.db)).map((c) => `${c.project} ${c.volume} ${c.folder}`));
  return (await placedProjects(world.db)).flatMap((row) =>
    stateOf(
      row,
      (places.get(row.id) ?? []).filter((p) => !left.has(`${row.id} ${p.volume} ${p.folder}`)),
      ready.has(row.volume),
    ),
  );
}

function stateOf(
  { id, number, title, volume, folder }: PlacedProject,
  places: readonly { volume: string; folder: string }[],
  reachable: boolean,
): FoundProject[] {
  const home = places.some((p) => p.volume === volume && p.folder === folder);
  const elsewhere = places.filter((p) => p.volume !== volume || p.folder !== folder);
  const row = { project: id, number, title, was: { volume, folder }, places: elsewhere };
  if (home) return elsewhere.length === 0 ? [] : [{ ...row, state: 'copied' }];
  if (elsewhere.length > 0) return [{ ...row, state: 'moved' }];
  // A volume that is away says nothing about what lies on it.
  return reachable ? [{ ...row, state: 'missing' }] : [];
}

/** The row follows the folder, after the marker in it is looked at once more. Nothing on a disk is touched. */
export async function relink(
  world: World,
  person: string,
  project: string,
  volume: string,
  folder: string,
): Promise<void> {
  const at = folderAt(world, { volume, folder });
  const text = at.ok ? readMarker(at.value)?.marker : undefined;
  const marker = text === undefined ? null : parseMarker(text);
  if (!marker?.ok || marker.value.project !== project)
    throw new Refused(
      409,
      'not-there',
      `In ${folder} on ${volume} there is no folder of this project. Nothing was changed.`,
    );
  try {
    await transaction(world.db, async (client) => {
      const was = await placeProject(client, project, volume, folder);
      if (was === null) throw new Refused(404, 'not-found', 'There is no such project.');
      await recordActivity(
        client,
        'project-relinked',
        person,
        project,
        { was: `${was.volume}/${was.folder}`, now: `${volume}/${folder}` },
        `project:${project}`,
      );
    });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'project_folder_once')
      throw new Refused(409, 'folder-taken', `Another project lies in ${folder} by its row. Nothing was changed.`);
    throw error;
  }
}
