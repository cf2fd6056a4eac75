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

/** @throws Refused where its volume cannot be reached, and where the folder is gone or a link */
export async function projectWhere(world: World, project: Place): Promise<Where> {
  const hindrance = await hindranceAt(world, project);
  const where = whereOf(world, project);
  if (hindrance === null && where !== null) return where;
  throw unreachable(hindrance ?? 'no-volume', project);
}

/**
 * A missing folder and a missing volume are two things: after the one the project is looked for, after the other it is
 * left in peace.
 */
export function unreachable(code: UnreachableCode | 'no-volume', { volume, folder }: Place): Refused {
  switch (code) {
    case 'no-volume':
    case 'root-missing':
      return new Refused(code, { volume });
    case 'path-link':
    case 'path-missing':
      return new Refused(code, { path: folder });
    case 'path-refused':
      return new Refused(code);
  }
}

const UNREACHABLE: readonly string[] = ['root-missing', 'path-refused', 'path-link', 'path-missing'];

const isUnreachable = (code: string): code is UnreachableCode => UNREACHABLE.includes(code);

/** What is said of a disk that failed where no flow knew it could. */
export function diskRefusal(error: DiskError): Refused | null {
  switch (error.code) {
    case 'root-missing':
      return new Refused('root-missing', { volume: '' });
    case 'path-link':
      return new Refused('path-link', { path: error.path });
    case 'path-missing':
      return new Refused('path-missing', { path: error.path });
    case 'path-refused':
      return new Refused('path-refused');
    case 'DISK-SILENT':
      return new Refused('disk-silent');
    case 'CANCELLED':
      return new Refused('cancelled');
    default:
      // What the system itself said.
      return /^E[A-Z0-9]+$/.test(error.code)
        ? new Refused('disk-refused', { system: error.code, path: error.path })
        : null;
  }
}
