/** Short looks at the folders of projects that somebody has before his eyes: only their times, and not more often than every few seconds. */
import { deserialize } from 'node:v8';
import { inflateRaw } from 'node:zlib';
import { promisify } from 'node:util';
import type { CheckPart } from '@nesting/core';
import { hasChangedSince, type Mount } from '@nesting/disk';

const inflate = promisify(inflateRaw);

/** Milliseconds between two looks at one project, however many watch it. */
const EVERY = 3000;
/** Projects whose folders are remembered here. */
const MOST = 50;

async function unpacked(bytes: Buffer): Promise<CheckPart | null> {
  try {
    return deserialize(await inflate(bytes)) as CheckPart;
  } catch {
    return null;
  }
}

interface Known {
  readonly print: string;
  readonly folders: readonly { readonly path: string; readonly changed: number | undefined; readonly settling: boolean }[];
  last: number;
}

export class Glances {
  private readonly known = new Map<string, Known>();

  /** `memory` is what the last check left: it is unpacked once. */
  async hasChanged(project: string, root: string, mounts: readonly Mount[], memory: { readonly rules: string; readonly part: Buffer }): Promise<boolean> {
    const print = `${memory.rules}:${memory.part.length}:${memory.part.subarray(-64).toString('base64')}`;
    let known = this.known.get(project);
    if (known?.print !== print) {
      const part = await unpacked(memory.part);
      // Nothing to compare with: a check makes it anew.
      if (part === null) return true;
      known = { print, folders: part.rows.map((r) => ({ path: r.path, changed: r.changed, settling: r.settling === true })), last: 0 };
      this.known.delete(project);
      this.known.set(project, known);
      if (this.known.size > MOST) this.known.delete(this.known.keys().next().value as string);
    }
    if (Date.now() - known.last < EVERY) return false;
    known.last = Date.now();
    return hasChangedSince(root, mounts, known.folders, Date.now());
  }
}
