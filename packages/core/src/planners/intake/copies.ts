/** Which files of a heap were brought, as they lie there now, and in how many places their copies still stand. */

export interface HeapFile {
  /** In the heap. */
  readonly path: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
}

/** One that was copied, as it was then. */
export interface HeapCopy extends HeapFile {
  /** In the root it was copied to. */
  readonly to: string;
  /** Proved by reading what was written. */
  readonly sha256: string;
}

/** Copies in one root. */
export interface CopiesPlace {
  readonly volume: string;
  readonly copies: readonly HeapCopy[];
  /** What was written there was read back from the disk itself; memory proves nothing that one may erase by. */
  readonly isProved: boolean;
  /** Bytes of what lies there now; `null` where nothing does. */
  readonly sizeAt: (path: string) => number | null;
}

export interface HeapCopies {
  readonly files: number;
  readonly bytes: number;
  /** Files of which the same bytes stand on two volumes, on one, on none. */
  readonly inTwo: number;
  readonly inOne: number;
  readonly inNone: number;
  /** Those that are not in two, the first of them. */
  readonly alone: readonly string[];
  /** On which any of them stand, proved. */
  readonly volumes: readonly string[];
  /** On which copies stand that do not count: what was written there could be read back from memory only. */
  readonly unproved: readonly string[];
}

const MOST_ALONE = 50;

export function heapCopies(files: readonly HeapFile[], places: readonly CopiesPlace[]): HeapCopies {
  const copies = new Map<string, { readonly volume: string; readonly sha256: string }[]>();
  const known = new Map(files.map((file) => [file.path, file]));
  const unproved = new Set<string>();
  for (const { volume, copies: made, isProved, sizeAt } of places)
    for (const { path, size, modified, to, sha256 } of made) {
      const file = known.get(path);
      const isSame = file?.size === size && Math.abs(file.modified - modified) <= 1;
      if (!isSame || sizeAt(to) !== size) continue;
      if (isProved) copies.set(path, [...(copies.get(path) ?? []), { volume, sha256 }]);
      else unproved.add(volume);
    }
  const counts = { inTwo: 0, inOne: 0, inNone: 0 };
  const alone: string[] = [];
  for (const { path } of files) {
    const volumes = volumesOf(copies.get(path) ?? []);
    counts[volumes > 1 ? 'inTwo' : volumes === 1 ? 'inOne' : 'inNone']++;
    if (volumes < 2 && alone.length < MOST_ALONE) alone.push(path);
  }
  return {
    files: files.length,
    bytes: files.reduce((sum, { size }) => sum + size, 0),
    ...counts,
    alone,
    volumes: [...new Set([...copies.values()].flat().map(({ volume }) => volume))].sort(),
    unproved: [...unproved].sort(),
  };
}

/** On how many volumes the same bytes stand. */
function volumesOf(copies: readonly { readonly volume: string; readonly sha256: string }[]): number {
  const byHash = new Map<string, Set<string>>();
  for (const { volume, sha256 } of copies) byHash.set(sha256, (byHash.get(sha256) ?? new Set()).add(volume));
  return Math.max(0, ...[...byHash.values()].map((volumes) => volumes.size));
}
