/** What is free on a volume is shared out once: whoever is about to write says under its lease how much it will be. */
import { bytesNeeded, type Change, HOME, type NewContent } from '@nesting/core/change';
import { type Contents, contentKey } from '@nesting/disk';
import { transaction } from '../../db/client';
import { reserveBytes, reservedBeside } from '../../db/queries/batches/space';
import { stateOfVolume } from '../house/volumes';
import { Refused, type World } from '../world';
import type { ToRun } from './prepared';
import { rootsOf } from './roots';

/** @throws Refused 507 where a volume has no room for it. Where it is not known what is free the disk itself tells. */
export async function reserveSpace(world: World, run: ToRun): Promise<void> {
  const { id, project, changes, contents } = run;
  const volumes = new Map(rootsOf(run).map(({ root, volume }) => [root, volume]));
  const byVolume = new Map<string, number>();
  for (const [root, bytes] of bytesNeeded(changes, bytesIn(contents))) {
    const volume = root === HOME ? project.volume : volumes.get(root);
    if (volume !== undefined) byVolume.set(volume, (byVolume.get(volume) ?? 0) + bytes);
  }
  for (const [volume, bytes] of byVolume) await reserveOn(world, id, volume, bytes);
}

/** For a start, which writes contents of one list on each volume. */
export async function reserveForStart(
  world: World,
  id: string,
  volume: string,
  changes: readonly Change[],
  bytesOf: (content: NewContent) => Uint8Array,
): Promise<void> {
  let all = 0;
  for (const bytes of bytesNeeded(changes, (content) => bytesOf(content).length).values()) all += bytes;
  await reserveOn(world, id, volume, all);
}

const bytesIn =
  (contents: Contents) =>
  (content: NewContent): number =>
    content.kind === 'text' ? Buffer.byteLength(content.text) : (contents.get(contentKey(content))?.length ?? 0);

export async function reserveOn(world: World, work: string, volume: string, bytes: number): Promise<void> {
  // The disk is asked before the database is locked.
  const { freeBytes } = await stateOfVolume(world, volume);
  if (freeBytes === null) return;
  await transaction(world.db, async (client) => {
    const left = freeBytes - (await reservedBeside(client, volume, work));
    if (bytes > left) throw new Refused('no-room', { volume, bytes, free: Math.max(0, left) });
    await reserveBytes(client, work, volume, bytes);
  });
}
