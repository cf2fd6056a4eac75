/**
 * Files of somebody's computer come to a volume on which loose material arrives. They are sent in pieces, and the volume
 * itself says how far each is: whoever asks for the same once more goes on with it. A file takes its place when it was
 * read back and is what was sent.
 */
import { createHash, randomUUID } from 'node:crypto';
import type { BeginUpload, Me, Upload, UploadFile } from '@nesting/contract';
import { endOfPiece, PIECE_BYTES } from '@nesting/core';
import { codeOf } from '@nesting/core/change';
import { relPathOf } from '@nesting/core/listing';
import { nameFaults } from '@nesting/core/portable';
import { OWN_FOLDER } from '@nesting/core/project';
import type { ArrivingFile, Where } from '@nesting/disk';
import { readInboxes } from '../../db/queries/projects/intakes';
import * as uploads from '../../db/queries/projects/uploads';
import { untilAskerLeaves } from '../../request-context';
import { stateOfVolume } from '../house/volumes';
import { whereOf } from '../place';
import { Refused, type World } from '../world';
import { readyVolume } from './claim-start';

/** Names are those of a server: what some other system refuses is looked at when files are brought in. */
const PROFILES = ['posix'] as const;

/** That one person has begun and not ended: nobody fills the lists and the volume with beginnings. */
const MOST_UNDER_WAY = 100;

export async function beginUpload(world: World, me: Me, { volume, name, files }: BeginUpload): Promise<Upload> {
  requireNames([name, ...files.map(({ path }) => path)]);
  if (!(await readInboxes(world.db)).has(volume)) throw new Refused('no-inbox', { volume });
  const where = await readyVolume(world, volume);
  const fingerprint = createHash('sha256')
    .update(JSON.stringify([name, files]))
    .digest('hex');
  const begun = await uploads.uploadUnderWay(world.db, { person: me.id, volume }, fingerprint);
  if (begun !== null) return told(world, begun);
  if ((await uploads.countUnderWay(world.db, me.id)) >= MOST_UNDER_WAY) throw new Refused('uploads-full');
  await requireRoom(world, volume, files);
  const folder = await world.disks.run('makeHeap', { where, name }, untilAskerLeaves());
  const upload = { id: randomUUID(), person: me.id, volume, folder, files };
  if (await uploads.insertUpload(world.db, upload, fingerprint)) return told(world, { ...upload, isEnded: false });
  // Asked for twice at once: the other one's folder is the one.
  await world.disks.run('dropArrived', { where, heap: folder, files: 0 });
  const first = await uploads.uploadUnderWay(world.db, { person: me.id, volume }, fingerprint);
  if (first === null) throw new Refused('no-upload');
  return told(world, first);
}

function requireNames(paths: readonly string[]): void {
  for (const path of paths) {
    const names = path.split('/');
    if (
      !relPathOf(path).ok ||
      names.some((part) => part === '' || part === '.' || part === '..') ||
      names[0] === OWN_FOLDER
    )
      throw new Refused('path-refused');
    for (const name of names) {
      const fault = nameFaults(name, PROFILES).find(({ weight }) => weight === 'refused');
      if (fault !== undefined)
        throw new Refused('name-not-sent', { name, because: { code: fault.code, params: fault.params } });
    }
  }
}

async function requireRoom(world: World, volume: string, files: readonly UploadFile[]): Promise<void> {
  const bytes = files.reduce((sum, { size }) => sum + size, 0);
  const { freeBytes } = await stateOfVolume(world, volume);
  if (freeBytes !== null && bytes > freeBytes) throw new Refused('no-room', { volume, bytes, free: freeBytes });
}

/** Somebody else's is none. */
async function ownUpload(world: World, me: Me, id: string): Promise<{ upload: uploads.StoredUpload; where: Where }> {
  const upload = await uploads.readUpload(world.db, id);
  if (upload === null || upload.isEnded || upload.person !== me.id) throw new Refused('no-upload');
  return { upload, where: await readyVolume(world, upload.volume) };
}

const numbered = (files: readonly UploadFile[]): Omit<ArrivingFile, 'heap'>[] =>
  files.map((file, index) => ({ ...file, index }));

async function told(world: World, { id, volume, folder, files }: uploads.StoredUpload): Promise<Upload> {
  const where = whereOf(world, { volume, folder: '' });
  if (where === null) throw new Refused('no-volume', { volume });
  const task = { where, heap: folder, files: numbered(files) };
  return { id, volume, folder, received: await world.disks.run('arrived', task, untilAskerLeaves()) };
}

export const howFar = async (world: World, me: Me, id: string): Promise<Upload> =>
  told(world, (await ownUpload(world, me, id)).upload);

/** What the volume is, the process looks at that works on it. */
async function ownFile(
  world: World,
  me: Me,
  id: string,
  index: number,
): Promise<{ readonly file: ArrivingFile; readonly where: Where; readonly volume: string }> {
  const upload = await uploads.readUploadOfFile(world.db, id, index);
  if (upload === null || upload.isEnded || upload.person !== me.id || upload.file === null)
    throw new Refused('no-upload');
  const { volume, folder: heap, file } = upload;
  const where = whereOf(world, { volume, folder: '' });
  if (where === null) throw new Refused('no-volume', { volume });
  return { file: { ...file, heap, index }, where, volume };
}

interface Piece {
  readonly file: number;
  readonly at: number;
}

/** One that does not begin where the last one ended is not written. Whether all are what was sent, the end proves. */
export async function takePiece(
  world: World,
  me: Me,
  id: string,
  { file: index, at }: Piece,
  bytes: Uint8Array,
): Promise<{ readonly received: number }> {
  const { file, where, volume } = await ownFile(world, me, id, index);
  const isPiece = at % PIECE_BYTES === 0 && at < file.size && bytes.length === endOfPiece(at, file.size) - at;
  try {
    const task = { where, file, at, bytes };
    const isNext = isPiece && (await world.disks.run('takePiece', task, untilAskerLeaves()));
    return { received: isNext ? at + bytes.length : await there(world, where, file) };
  } catch (error) {
    throw full(volume, error);
  }
}

async function there(world: World, where: Where, { heap, ...file }: ArrivingFile): Promise<number> {
  const [received] = await world.disks.run('arrived', { where, heap, files: [file] }, untilAskerLeaves());
  return received ?? file.size;
}

export async function endFile(
  world: World,
  me: Me,
  id: string,
  { file: index, pieces }: { readonly file: number; readonly pieces: readonly string[] },
): Promise<{ readonly state: 'placed' | 'differs' | 'taken'; readonly received: number }> {
  const { file, where, volume } = await ownFile(world, me, id, index);
  try {
    const placing = await world.disks.run('endArriving', { where, file, pieces });
    return { state: placing.state, received: placing.state === 'differs' ? placing.received : file.size };
  } catch (error) {
    throw full(volume, error);
  }
}

const full = (volume: string, error: unknown): unknown =>
  codeOf(error) === 'ENOSPC' || codeOf(error) === 'EDQUOT'
    ? new Refused('volume-full', { volume, at: '', stayed: [] })
    : error;

/** What is whole stays, what is not goes. */
export async function endUpload(world: World, me: Me, id: string): Promise<void> {
  const { upload, where } = await ownUpload(world, me, id);
  await world.disks.run('dropArrived', { where, heap: upload.folder, files: upload.files.length });
  await uploads.endUpload(world.db, id);
}

/** Days after which nobody goes on with what was cut short. */
const FORGOTTEN_DAYS = 30;
const SWEPT_AT_ONCE = 5;

/** What was begun long ago and never ended leaves no parts behind. A volume that is away is looked at another time. */
export async function sweepUploads(world: World): Promise<void> {
  if (!world.config.worksBatches) return;
  for (const upload of await uploads.forgottenUploads(world.db, FORGOTTEN_DAYS, SWEPT_AT_ONCE)) {
    const where = await readyVolume(world, upload.volume).catch(() => null);
    if (where === null) continue;
    await world.disks.run('dropArrived', { where, heap: upload.folder, files: upload.files.length });
    await uploads.endUpload(world.db, upload.id);
  }
}
