/** Where a folder is, and why it cannot be reached. */

/**
 * `base` is a path that this machine's own configuration names: links in it are followed. `folder` is a path from there,
 * as the database and people name it: links in it are never followed.
 */
export interface Where {
  readonly base: string;
  readonly folder: string;
  /** What the volume is known by: whatever else is found at `base` is not it. */
  readonly volume?: string | undefined;
}

export type UnreachableCode = 'root-missing' | 'path-refused' | 'path-link' | 'path-missing';

export class Unreachable extends Error {
  constructor(
    readonly code: UnreachableCode,
    readonly path: string,
    readonly detail: string,
  ) {
    super(`${code}: ${path} (${detail})`);
  }
}

/** An error with a code, as the system's own calls throw them. */
export const failed = (code: string, path: string): Error & { readonly code: string } =>
  Object.assign(new Error(`${code}: ${path}`), { code, path });
