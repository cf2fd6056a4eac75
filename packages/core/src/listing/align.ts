/** Where a project's root is in a listing that was made from outside it: by its name, else by what is in it. */
import { type FolderListing, nameOf } from './entry';

export interface Aligned {
  readonly folders: readonly FolderListing[];
  /** The root as the listing has it; empty where it is the listing's own. */
  readonly root: string;
  /** How it was told: by its name, by the planned folders in it, or as the only one. `null` for the listing's own root. */
  readonly by: 'name' | 'fit' | 'only' | null;
  /** Files and folders that lie beside it. */
  readonly outside: number;
}

/** What a project's root is called, and the folders planned directly in it. */
export interface RootPlan {
  readonly name: string;
  readonly inside: ReadonlySet<string>;
}

export function alignListing(folders: readonly FolderListing[], plan: RootPlan): Aligned {
  const fit = (folder: FolderListing) => folder.folders.reduce((n, name) => n + (plan.inside.has(name) ? 1 : 0), 0);
  const own = folders.find((f) => f.path === '');
  // Its own folders at the top: nothing stands in front of them.
  if (own !== undefined && fit(own) > 0) return { folders, root: '', by: null, outside: 0 };
  const below = folders.filter((folder) => folder.path !== '');
  const named = shallowest(below.filter((folder) => nameOf(folder.path).normalize('NFC') === plan.name));
  const fitting = named ?? bestFit(below, fit);
  const found = fitting ?? onlyOne(folders);
  if (found === null) return { folders, root: '', by: null, outside: 0 };
  return { ...within(folders, found.path), by: named !== null ? 'name' : fitting !== null ? 'fit' : 'only' };
}

function bestFit(folders: readonly FolderListing[], fit: (folder: FolderListing) => number): FolderListing | null {
  const most = folders.reduce((n, folder) => Math.max(n, fit(folder)), 0);
  return most === 0 ? null : shallowest(folders.filter((folder) => fit(folder) === most));
}

const depthOf = (path: string): number => path.split('/').length;

const shallowest = (folders: readonly FolderListing[]): FolderListing | null =>
  folders.reduce<FolderListing | null>(
    (best, folder) => (best === null || depthOf(folder.path) < depthOf(best.path) ? folder : best),
    null,
  );

/** A listing that has one folder at its top was made from above it. */
function onlyOne(folders: readonly FolderListing[]): FolderListing | null {
  const top = folders.find((f) => f.path === '');
  const [only, second] = top?.folders ?? [];
  if (only === undefined || second !== undefined || (top?.files.length ?? 0) > 0) return null;
  return folders.find((f) => f.path === only) ?? null;
}

function within(folders: readonly FolderListing[], root: string): Pick<Aligned, 'folders' | 'root' | 'outside'> {
  let outside = 0;
  const above = root.split('/').map((_, i, parts) => parts.slice(0, i).join('/'));
  const kept = folders.flatMap((folder): FolderListing[] => {
    if (folder.path === root) return [{ ...folder, path: '' }];
    if (folder.path.startsWith(`${root}/`)) return [{ ...folder, path: folder.path.slice(root.length + 1) }];
    outside += folder.files.length + (above.includes(folder.path) ? 0 : 1);
    return [];
  });
  return { folders: kept, root, outside };
}
