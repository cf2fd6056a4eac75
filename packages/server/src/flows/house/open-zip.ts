/** A zip that arrived is unpacked beside itself, where loose material arrives and nowhere else. */
import { createHash } from 'node:crypto';
import { relPathOf } from '@nesting/core/listing';
import { packageFaultWords } from '@nesting/core/words';
import { DiskError } from '@nesting/disk';
import { readInboxes } from '../../db/queries/projects/intakes';
import { untilAskerLeaves } from '../../request-context';
import { readyVolume } from '../projects/claim-start';
import { Refused, type World } from '../world';
import { stateOfVolume } from './volumes';

/** Files of a heap that are looked at. */
const MOST_FILES = 200_000;

/** Zips that somebody is at: each by its volume and path. */
const underWay = new Set<string>();

/** @returns the folder it was unpacked to, from the volume's root */
export async function openZip(
  world: World,
  volume: string,
  path: string,
): Promise<{ readonly folder: string; readonly files: number }> {
  if (!(await readInboxes(world.db)).has(volume)) throw new Refused('no-inbox', { volume });
  if (!relPathOf(path).ok) throw new Refused('path-refused');
  const where = await readyVolume(world, volume);
  const { freeBytes } = await stateOfVolume(world, volume);
  const key = `${volume}/${path}`;
  if (underWay.has(key)) throw new Refused('zip-under-way', { path });
  underWay.add(key);
  try {
    const id = createHash('sha256').update(key).digest('hex').slice(0, 16);
    const task = { where, path, id, mostFiles: MOST_FILES, mostBytes: freeBytes ?? Number.MAX_SAFE_INTEGER };
    const opened = await world.disks.run('openZip', task, untilAskerLeaves());
    switch (opened.state) {
      case 'opened':
        return { folder: opened.folder, files: opened.files };
      case 'faulty':
        throw new Refused('zip-unusable', { path, why: packageFaultWords(opened.fault) });
      case 'too-many':
        throw new Refused('zip-unusable', { path, why: `it holds ${opened.files} files` });
      case 'no-room':
        throw new Refused('no-room', { volume, bytes: opened.bytes, free: freeBytes ?? 0 });
    }
  } catch (error) {
    if (error instanceof DiskError && error.code === 'ENOENT') throw new Refused('file-gone', { path });
    if (error instanceof DiskError && error.code === 'ECONTENT')
      throw new Refused('zip-unusable', { path, why: `${error.path} is broken in it` });
    throw error;
  } finally {
    underWay.delete(key);
  }
}
