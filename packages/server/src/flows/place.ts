/** Where things lie on the server's disks: the one place where the name of a volume and a folder become a path. */
import { failure, type Result } from '@nesting/core';
import { type GuardFault, inside } from '@nesting/disk';
import { Refused, type World } from './world';

export interface Place {
  readonly volume: string;
  /** From the volume's root. */
  readonly folder: string;
}

type PlaceFault = GuardFault | { readonly code: 'no-volume' };

/** Where a volume is mounted; `undefined` for one that is not configured. */
export const volumeRoot = ({ config }: Pick<World, 'config'>, volume: string): string | undefined =>
  config.volumes.get(volume);

/** A folder on a volume, or what is in the way. */
export function folderAt(world: Pick<World, 'config'>, { volume, folder }: Place): Result<string, PlaceFault> {
  const root = volumeRoot(world, volume);
  return root === undefined ? failure([{ code: 'no-volume' }]) : inside(root, folder);
}

/**
 * A project's folder. What holds all the same is said with the refusal: "Nothing was changed."
 *
 * @throws Refused 503 where its volume cannot be reached, 404 where the volume or the folder is gone or a link
 */
export function projectRoot(world: Pick<World, 'config'>, project: Place, holds: string): string {
  const root = folderAt(world, project);
  if (root.ok) return root.value;
  const code = root.faults[0]?.code ?? 'path-missing';
  throw new Refused(code === 'root-missing' ? 503 : 404, code, `${placeWords(code, project)} ${holds}`);
}

/**
 * A missing folder and a missing volume are two things: after the one the project is looked for, after the other it is
 * left in peace.
 */
function placeWords(code: PlaceFault['code'] | 'path-missing', { volume, folder }: Place): string {
  switch (code) {
    case 'no-volume':
      return `The volume ${volume} is not configured any more.`;
    case 'root-missing':
      return `The volume ${volume} cannot be reached.`;
    case 'path-link':
      return `${folder} on ${volume} is a link, and links are not followed.`;
    default:
      return `The folder ${folder} is not on ${volume} any more: it was moved, renamed or removed.`;
  }
}
