import { accessSync, constants, lstatSync, realpathSync, statfsSync } from 'node:fs';
import { readIdentity } from './identity';
import { inRoot } from './open';

export interface VolumeState {
  readonly state: 'ready' | 'read-only' | 'missing';
  readonly freeBytes: number | null;
  /** What it is known by; `null` where it was never taken up. */
  readonly identity: string | null;
}

const MISSING: VolumeState = { state: 'missing', freeBytes: null, identity: null };

/** Whether a volume's root is there, may be written to, and has room. */
export function volumeState(base: string): VolumeState {
  try {
    if (!lstatSync(realpathSync(base)).isDirectory()) return MISSING;
    const stats = statfsSync(base);
    const freeBytes = stats.bavail * stats.bsize;
    const identity = inRoot({ base, folder: '' }, readIdentity);
    try {
      accessSync(base, constants.W_OK | constants.X_OK);
      return { state: 'ready', freeBytes, identity };
    } catch {
      return { state: 'read-only', freeBytes, identity };
    }
  } catch {
    return MISSING;
  }
}
