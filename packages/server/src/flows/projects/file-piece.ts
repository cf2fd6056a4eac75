/** A piece of a project's file, for whoever copies it to their own computer. */
import type { FilePieceAsked } from '@nesting/contract';
import { PIECE_BYTES } from '@nesting/core';
import { nameOf, relPathOf } from '@nesting/core/listing';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { mountsOf } from '../checks/check-project';
import { Refused, type World } from '../world';
import { liveFolder } from './reshape-project';

export async function filePiece(
  world: World,
  id: string,
  { path, at, size, modified }: FilePieceAsked,
): Promise<{ readonly name: string; readonly bytes: Uint8Array; readonly sha256: Uint8Array }> {
  const project = await readProject(world.db, id);
  if (project === null) throw new Refused('no-project');
  const checked = relPathOf(path);
  if (!checked.ok) throw new Refused('file-gone', { path });
  const where = await liveFolder(world, project);
  const mounts = await mountsOf(world, project);
  const task = { where, mounts, path: checked.value, at, most: PIECE_BYTES, expects: { size, modified } };
  const piece = await world.disks.run('pieceOfFile', task, untilAskerLeaves());
  if (piece === 'gone') throw new Refused('file-gone', { path });
  if (piece === 'changed') throw new Refused('disk-changed');
  return { name: nameOf(path), ...piece };
}
