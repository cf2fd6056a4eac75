/** Volumes on which loose material arrives, and what lies there. */
import type { Inbox } from '@nesting/contract';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import {
  type BroughtHeap,
  broughtHeaps,
  readInboxes,
  writeDouble,
  writeInbox,
} from '../../db/queries/projects/intakes';
import { type Arriving, heapsArriving } from '../../db/queries/projects/uploads';
import { untilAskerLeaves } from '../../request-context';
import { whereOf } from '../place';
import { Refused, type World } from '../world';
import { isThere, stateOfVolume } from './volumes';

export async function listInboxes(world: World): Promise<Inbox[]> {
  const [inboxes, brought] = [await readInboxes(world.db), await broughtHeaps(world.db)];
  const arriving = await heapsArriving(world.db);
  const volumes = [...world.config.volumes.keys()].filter((volume) => inboxes.has(volume));
  return Promise.all(volumes.map((volume) => inboxOf(world, volume, brought, arriving)));
}

async function inboxOf(
  world: World,
  volume: string,
  brought: readonly BroughtHeap[],
  arriving: readonly Arriving[],
): Promise<Inbox> {
  const where = whereOf(world, { volume, folder: '' });
  if (where === null || !isThere(await stateOfVolume(world, volume)))
    return { volume, isThere: false, zips: [], heaps: [] };
  const listing = await world.disks.run('folder', { where, mounts: [], path: '' }, untilAskerLeaves());
  const heapOf = (folder: string, files: number): Inbox['heaps'][number] => {
    const last = brought.find((heap) => heap.volume === volume && heap.folder === folder);
    const { project, number, title, at } = last ?? { at: new Date() };
    const told =
      project === undefined || number === undefined || title === undefined
        ? null
        : { project, number, title, at: at.toISOString() };
    const sender = arriving.find((heap) => heap.volume === volume && heap.folder === folder)?.by ?? null;
    return { folder, files, arriving: sender, brought: told };
  };
  const files = listing?.files.filter(({ name }) => !name.startsWith('.')) ?? [];
  const zips = files.filter(({ name }) => /.\.zip$/i.test(name)).map(({ name, size }) => ({ name, size }));
  const own = files.length - zips.length;
  const folders = [...(listing?.folders ?? [])].filter((name) => !name.startsWith('.')).sort();
  return {
    volume,
    isThere: true,
    zips,
    heaps: [...folders.map((name) => heapOf(name, 0)), ...(own > 0 ? [heapOf('', own)] : [])],
  };
}

export async function saveInbox(world: World, person: string, volume: string, isInbox: boolean): Promise<void> {
  if (!world.config.volumes.has(volume)) throw new Refused('no-volume', { volume });
  await transaction(world.db, async (client) => {
    await writeInbox(client, volume, isInbox);
    await recordActivity(client, 'inbox-changed', person, null, { volume, isInbox }, `volume:${volume}`);
  });
}

export async function saveDouble(world: World, person: string, volume: string, double: string | null): Promise<void> {
  const { volumes } = world.config;
  for (const name of [volume, double])
    if (name !== null && !volumes.has(name)) throw new Refused('no-volume', { volume: name });
  if (volume === double) throw new Refused('double-itself', { volume });
  await transaction(world.db, async (client) => {
    await writeDouble(client, volume, double);
    await recordActivity(client, 'double-changed', person, null, { volume, double }, `volume:${volume}`);
  });
}
