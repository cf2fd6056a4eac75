/**
 * The volumes the configuration allows: their state, how each system sees them, and projects that lie elsewhere than
 * their rows say.
 */
import { randomUUID } from 'node:crypto';
import { type FoundProject, type Prefixes, parseMarker, SYSTEMS, type VolumeRow } from '@nesting/contract';
import { DiskError, type VolumeState } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { projectsByVolume, readPrefixes, writeIdentity, writePrefixes } from '../../db/queries/house/volumes';
import { copiesLeft } from '../../db/queries/projects/copies';
import { readDoubles, readInboxes } from '../../db/queries/projects/intakes';
import { type PlacedProject, placedProjects, placeProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { reached, whereOf } from '../place';
import { Refused, type World } from '../world';

export async function volumeRows(world: World): Promise<VolumeRow[]> {
  const [counts, prefixes, inboxes, doubles] = await Promise.all([
    projectsByVolume(world.db),
    readPrefixes(world.db),
    readInboxes(world.db),
    readDoubles(world.db),
  ]);
  return Promise.all(
    [...world.config.volumes].map(async ([name, root]) => ({
      name,
      root,
      ...(await stateOfVolume(world, name)),
      projects: counts.get(name) ?? 0,
      isInbox: inboxes.has(name),
      double: doubles.get(name) ?? null,
      prefixes: prefixes.get(name) ?? { windows: '', macos: '', linux: '' },
    })),
  );
}

export type StateOfVolume = Pick<VolumeRow, 'state' | 'freeBytes'>;

/** Whether it is the volume that is meant, and can at least be read. */
export const isThere = ({ state }: StateOfVolume): boolean => state === 'ready' || state === 'read-only';

const MISSING: VolumeState = { state: 'missing', freeBytes: null, identity: null };

/** A volume that does not answer is as one that is not there. */
export async function stateOfVolume(world: World, volume: string): Promise<StateOfVolume> {
  const { state, freeBytes, identity } = await lookAtVolume(world, volume);
  await world.identities.refresh();
  const known = world.identities.of(volume);
  if (state === 'missing' || identity === known) return { state, freeBytes };
  // Its mount point may be there and the volume not: what is found there is another one.
  return { state: known === '' ? 'new' : 'other', freeBytes: null };
}

async function lookAtVolume(world: World, volume: string): Promise<VolumeState> {
  const base = world.config.volumes.get(volume);
  if (base === undefined) return MISSING;
  try {
    return await world.disks.run('volumeState', { base });
  } catch (error) {
    if (error instanceof DiskError && error.code === 'DISK-SILENT') return MISSING;
    throw error;
  }
}

/**
 * A coordinator says that what is mounted there is the volume. It gets a file that says so, and is known by it from then
 * on; one that was another before is taken up only where that is said.
 */
export async function takeUpVolume(world: World, person: string, volume: string, isAnother: boolean): Promise<void> {
  const base = world.config.volumes.get(volume);
  if (base === undefined) throw new Refused('no-volume', { volume });
  const { state, identity } = await lookAtVolume(world, volume);
  if (state === 'missing') throw new Refused('volume-missing', { volume });
  await world.identities.refresh();
  const known = world.identities.of(volume);
  if (known !== '' && known === identity) return;
  if (known !== '' && !isAnother) throw new Refused('volume-changed', { volume });
  const asked = identity ?? (known === '' ? randomUUID() : known);
  // The file first: where the row fails, taking it up again finds the file. No disk is waited for in a transaction.
  const id = await world.disks.run('takeUpVolume', { where: { base, folder: '' }, id: asked, name: volume });
  try {
    await transaction(world.db, async (client) => {
      await writeIdentity(client, volume, id);
      await recordActivity(client, 'volume-taken-up', person, null, { volume }, `volume:${volume}`);
    });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'volume_identity_id_key') throw new Refused('volume-twice', { volume });
    throw error;
  }
  await world.identities.refresh();
}

/** A drive letter or a shared folder; a folder from the root. */
const FORMS = {
  windows: /^(?:[A-Za-z]:(?:\\[^<>:"/|?*\\]+)*\\?|\\\\[^<>:"/|?*\\\s]+\\[^<>:"/|?*\\]+(?:\\[^<>:"/|?*\\]+)*\\?)$/,
  macos: /^\/[^\n\0]*$/,
  linux: /^\/[^\n\0]*$/,
} as const;
const FORM_WORDS = { windows: 'S:\\ or \\\\server\\share', macos: '/Volumes/studio', linux: '/mnt/studio' } as const;

export async function savePrefixes(world: World, person: string, volume: string, prefixes: Prefixes): Promise<void> {
  if (!world.config.volumes.has(volume)) throw new Refused('no-volume', { volume });
  for (const system of SYSTEMS) {
    const prefix = prefixes[system].trim();
    if (prefix !== '' && !FORMS[system].test(prefix))
      throw new Refused('prefix-refused', { prefix, form: FORM_WORDS[system] });
  }
  await transaction(world.db, async (client) => {
    await writePrefixes(client, volume, prefixes);
    await recordActivity(client, 'prefixes-changed', person, null, { volume, ...prefixes }, `volume:${volume}`);
  });
}

/** Folders this deep are looked at for projects: people put them away by year or client. */
const DEPTH = 3;
const MOST_LOOKED = 20_000;

interface MarkersOnVolume {
  /** Folders by project. */
  readonly places: ReadonlyMap<string, readonly string[]>;
  /** Folders whose marker cannot be read, with the system's code. */
  readonly unread: ReadonlyMap<string, string>;
}

/** Every project's folder by the marker in it; folders of projects are not entered. */
async function markersOn(world: World, volume: string): Promise<MarkersOnVolume> {
  const places = new Map<string, string[]>();
  const where = whereOf(world, { volume, folder: '' });
  if (where === null) return { places, unread: new Map() };
  const asked = { where, depth: DEPTH, most: MOST_LOOKED };
  const { found, unread } = await world.disks.run('markersBelow', asked, untilAskerLeaves());
  for (const { folder, marker } of found) {
    const parsed = parseMarker(marker);
    if (parsed.ok) places.set(parsed.value.project, [...(places.get(parsed.value.project) ?? []), folder]);
  }
  return { places, unread: new Map(unread.map(({ path, code }) => [path, code])) };
}

export async function findProjects(world: World): Promise<FoundProject[]> {
  const places = new Map<string, { volume: string; folder: string }[]>();
  const read = new Map<string, MarkersOnVolume>();
  for (const volume of world.config.volumes.keys()) {
    if (!isThere(await stateOfVolume(world, volume))) continue;
    const markers = await markersOn(world, volume);
    read.set(volume, markers);
    for (const [project, folders] of markers.places)
      places.set(project, [...(places.get(project) ?? []), ...folders.map((folder) => ({ volume, folder }))]);
  }
  const left = new Set((await copiesLeft(world.db)).map((c) => `${c.project} ${c.volume} ${c.folder}`));
  return (await placedProjects(world.db)).flatMap((row) =>
    stateOf(
      row,
      (places.get(row.id) ?? []).filter((p) => !left.has(`${row.id} ${p.volume} ${p.folder}`)),
      read.get(row.volume) ?? null,
    ),
  );
}

function stateOf(
  { id, number, title, volume, folder }: PlacedProject,
  places: readonly { volume: string; folder: string }[],
  markers: MarkersOnVolume | null,
): FoundProject[] {
  const home = places.some((p) => p.volume === volume && p.folder === folder);
  const elsewhere = places.filter((p) => p.volume !== volume || p.folder !== folder);
  const row = { project: id, number, title, was: { volume, folder }, places: elsewhere };
  if (home) return elsewhere.length === 0 ? [] : [{ ...row, state: 'copied' }];
  if (elsewhere.length > 0) return [{ ...row, state: 'moved' }];
  // A volume that is away says nothing about what lies on it.
  if (markers === null) return [];
  const why = markers.unread.get(folder);
  return [why === undefined ? { ...row, state: 'missing' } : { ...row, state: 'unread', why }];
}

/** The row follows the folder, after the marker in it is looked at once more. Nothing on a disk is touched. */
export async function relink(
  world: World,
  person: string,
  project: string,
  volume: string,
  folder: string,
): Promise<void> {
  const where = await reached(world, { volume, folder });
  const text = where === null ? undefined : (await world.disks.run('marker', { where }))?.marker;
  const marker = text === undefined ? null : parseMarker(text);
  if (!marker?.ok || marker.value.project !== project) throw new Refused('not-there', { folder, volume });
  try {
    await transaction(world.db, async (client) => {
      const was = await placeProject(client, project, volume, folder);
      if (was === null) throw new Refused('no-project');
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
    if (sqlFault(error)?.constraint === 'project_folder_once') throw new Refused('folder-taken', { folder });
    throw error;
  }
}
