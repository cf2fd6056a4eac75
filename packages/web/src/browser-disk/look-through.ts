/** What lies in a folder of this computer: listings, and the files themselves. */
import { type FolderListing, FRAMES_NOTE, frameRange, join } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';

export interface LookedThrough {
  /** By path, the project's own folder left out. */
  readonly listings: Map<string, FolderListing>;
  /** As it is now; `null` where it is gone, or not given. */
  readonly fileOf: (path: string) => Promise<File | null>;
  /** Paths that could not be seen. */
  readonly unseen: string[];
}

/** A folder while it is being listed. */
interface Listed {
  readonly path: string;
  readonly folders: string[];
  readonly files: { name: string; size: number; modified: number }[];
  readonly others: string[];
  readonly ranges: Record<string, readonly [number, number]>;
}

export async function lookThrough(
  root: FileSystemDirectoryHandle,
  progress: (files: number, folders: number, stage: 'walking') => void,
  isStopped: () => boolean,
): Promise<LookedThrough> {
  const listings = new Map<string, FolderListing>();
  const handles = new Map<string, FileSystemFileHandle>();
  const unseen: string[] = [];
  const queue: [string, FileSystemDirectoryHandle][] = [['', root]];
  let files = 0;
  for (let next = queue.pop(); next !== undefined && !isStopped(); next = queue.pop()) {
    const [path, folder] = next;
    const listing: Listed = { path, folders: [], files: [], others: [], ranges: {} };
    try {
      for await (const [name, handle] of folder.entries()) {
        const at = join(path, name);
        if (handle.kind === 'directory') {
          if (at === OWN_FOLDER) continue;
          listing.folders.push(name);
          queue.push([at, handle]);
          continue;
        }
        const file = await handle.getFile().catch(() => null);
        if (file === null) {
          unseen.push(at);
          continue;
        }
        handles.set(at, handle);
        listing.files.push({ name, size: file.size, modified: file.lastModified });
        const range = name.endsWith(FRAMES_NOTE) && file.size <= 100 ? frameRange(await file.text()) : null;
        if (range !== null) listing.ranges[name.slice(0, -FRAMES_NOTE.length)] = range;
        if (++files % 500 === 0) progress(files, listings.size, 'walking');
      }
    } catch {
      unseen.push(path);
    }
    listings.set(path, listing);
  }
  return {
    listings,
    unseen,
    fileOf: async (path) =>
      (await handles
        .get(path)
        ?.getFile()
        .catch(() => null)) ?? null,
  };
}
