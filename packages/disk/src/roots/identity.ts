/**
 * What a volume is known by: a file in its root, made when somebody takes it up. Where it is not mounted its mount point
 * is still there, and empty: without the file it is not the volume.
 */
import { codeOf } from '@nesting/core/change';
import { readText } from './plain-file';
import { writeNew } from './port';
import type { Root } from './root';

export const VOLUME_FILE = '.nesting-volume';

export interface VolumeIdentity {
  readonly format: 'nesting/volume';
  readonly id: string;
  readonly name: string;
}

const MOST_BYTES = 4096;

/** `null` where there is none, or nothing that can be read as one. */
export function readIdentity(root: Root): string | null {
  try {
    const read: unknown = JSON.parse(readText(root, VOLUME_FILE, MOST_BYTES));
    if (typeof read !== 'object' || read === null) return null;
    const { format, id } = read as Partial<VolumeIdentity>;
    return format === 'nesting/volume' && typeof id === 'string' && id !== '' ? id : null;
  } catch {
    return null;
  }
}

/** The identity of a volume that is taken up: the one it has, or the one given. */
export function takeUp(root: Root, id: string, name: string): string {
  const known = readIdentity(root);
  if (known !== null) return known;
  const identity: VolumeIdentity = { format: 'nesting/volume', id, name };
  try {
    writeNew(root, VOLUME_FILE, Buffer.from(`${JSON.stringify(identity)}\n`));
    return id;
  } catch (error) {
    // Two who take it up at once: the first one's holds.
    const first = codeOf(error) === 'EEXIST' ? readIdentity(root) : null;
    if (first === null) throw error;
    return first;
  }
}
