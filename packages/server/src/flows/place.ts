/** Where things lie on the server's disks: the one place where the name of a volume and a folder become a place. */
import { hindranceWords } from '@nesting/core/words';
import { DiskError, type UnreachableCode, type Where } from '@nesting/disk';
import { Refused, type World } from './world';

export interface Place {
  readonly volume: string;
  /** From the volume's root. */
  readonly folder: string;
}

/** Where a volume is mounted, to be shown; `undefined` for one that is not configured. */
export const volumeRoot = ({ config }: Pick<World, 'config'>, volume: string): string | undefined =>
  config.volumes.get(volume);

/** Where a folder on a volume is; `null` where the volume is not configured. Nothing is looked at. */
export function whereOf(world: Pick<World, 'config' | 'identities'>, { volume, folder }: Place): Where | null {
  const base = volumeRoot(world, volume);
  return base === undefined ? null : { base, folder, volume: world.identities.of(volume) };
}

/** Why a folder cannot be worked in; `null` where it can. */
export async function hindranceAt(world: World, place: Place): Promise<UnreachableCode | 'no-volume' | null> {
  const where = whereOf(world, place);
  if (where === null) return 'no-volume';
  try {
    await world.disks.run('reach', { where });
    return null;
  } catch (error) {
    if (error instanceof DiskError && isUnreachable(error.code)) return error.code;
    throw error;
  }
}

/** A folder on a volume that can be worked in; `null` where it cannot. */
export async function reached(world: World, place: Place): Promise<Where | null> {
  return (await hindranceAt(world, place)) === null ? whereOf(world, place) : null;
}

/**
 * A project's folder. What holds all the same is said with the refusal: "Nothing was changed."
 *
 * @throws Refused 503 where its volume cannot be reached, 404 where the volume or the folder is gone or a link
 */
export async function projectWhere(world: World, project: Place, holds: string): Promise<Where> {
  const hindrance = await hindranceAt(world, project);
  const where = whereOf(world, project);
  if (hindrance === null && where !== null) return where;
  const code = hindrance ?? 'no-volume';
  throw new Refused(code === 'root-missing' ? 503 : 404, code, `${placeWords(code, project)} ${holds}`);
}

const UNREACHABLE: readonly string[] = ['root-missing', 'path-refused', 'path-link', 'path-missing'];

const isUnreachable = (code: string): code is UnreachableCode => UNREACHABLE.includes(code);

/**
 * A missing folder and a missing volume are two things: after the one the project is looked for, after the other it is
 * left in peace.
 */
function placeWords(code: UnreachableCode | 'no-volume', { volume, folder }: Place): string {
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

/** What is said of a disk that failed where no flow knew it could. */
export function diskRefusal(error: DiskError): Refused | null {
  switch (error.code) {
    case 'root-missing':
      return new Refused(503, error.code, 'The volume cannot be reached. Nothing was changed.');
    case 'path-link':
      return new Refused(404, error.code, `${error.path} is a link, and links are not followed.`);
    case 'path-missing':
      return new Refused(404, error.code, `${error.path} is not there any more.`);
    case 'path-refused':
      return new Refused(400, error.code, 'This path leads out of its folder.');
    case 'DISK-SILENT':
      return new Refused(
        503,
        'disk-silent',
        'The disk did not answer in time, and the look at it was ended. Try again, or ask whoever keeps the volume.',
      );
    case 'CANCELLED':
      return new Refused(503, 'cancelled', 'Nobody waits for this answer any more.');
    default:
      // What the system itself said.
      return /^E[A-Z0-9]+$/.test(error.code)
        ? new Refused(409, 'disk-refused', hindranceWords(error.code, error.path))
        : null;
  }
}
