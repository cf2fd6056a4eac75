/** What the server asks of a disk beyond one folder, as plain functions of plain data: they run in a worker thread. */
import { join } from '@nesting/core/listing';
import { type Extra, type Reshape, reshape } from '@nesting/core/planners';
import { type CheckInput, OWN_FOLDER, ProjectRules } from '@nesting/core/project';
import { livePort } from '../disk-port';
import { inside } from '../guard';
import { readMarker } from '../marker';
import { fileNames, foldersBelow, listFolder, namesIn } from '../walk';

export interface Names {
  /** Paths from the root, a folder before what is in it; folders end in a slash. */
  readonly paths: readonly string[];
  /** `false` where there are more than were asked for. */
  readonly whole: boolean;
}

/** Names of everything below a folder. Nothing is looked at but the folders themselves. */
function namesBelow({ root, most }: { readonly root: string; readonly most: number }): Names {
  const paths: string[] = [];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    if (paths.length >= most) return { paths, whole: false };
    if (path !== '') paths.push(`${path}/`);
    const { files, folders } = namesIn(root, path);
    for (const name of files) paths.push(join(path, name));
    for (const name of folders) if (path !== '' || name !== OWN_FOLDER) queue.push(join(path, name));
  }
  return { paths, whole: true };
}

export interface Sizes {
  readonly sizes: ReadonlyMap<string, number>;
  readonly folders: number;
  readonly bytes: number;
  /** Milliseconds since 1970; 0 where there is no file. */
  readonly newest: number;
}

/** Every file below a folder with its size. */
function sizesBelow({ root }: { readonly root: string }): Sizes {
  const sizes = new Map<string, number>();
  let [folders, bytes, newest] = [0, 0, 0];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(root, path, () => undefined);
    if (listing === null) continue;
    folders++;
    for (const file of listing.files) {
      sizes.set(join(path, file.name), file.size);
      bytes += file.size;
      newest = Math.max(newest, file.modified);
    }
    for (const name of listing.folders) queue.push(join(path, name));
  }
  return { sizes, folders, bytes, newest };
}

export interface FoundMarker {
  readonly folder: string;
  readonly marker: string;
}

/** Folders that hold a project's marker, to a depth; they themselves are not entered. */
function markersBelow({
  root,
  depth,
  most,
}: {
  readonly root: string;
  readonly depth: number;
  readonly most: number;
}): FoundMarker[] {
  const found: FoundMarker[] = [];
  const queue = [{ path: '', at: 0 }];
  let seen = 0;
  for (let next = queue.shift(); next !== undefined && seen < most; next = queue.shift()) {
    seen++;
    for (const name of namesIn(root, next.path).folders) {
      if (name.startsWith('.nesting-unfinished-')) continue;
      const folder = join(next.path, name);
      const place = inside(root, folder);
      const marker = place.ok ? readMarker(place.value)?.marker : undefined;
      if (marker !== undefined) found.push({ folder, marker });
      else if (next.at + 1 < depth) queue.push({ path: folder, at: next.at + 1 });
    }
  }
  return found;
}

export interface ReshapeTask {
  readonly root: string;
  readonly before: CheckInput;
  readonly after: CheckInput;
  readonly renamed: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly extra: readonly Extra[];
  readonly keep: readonly string[];
}

/** A project's plan from one set of rules to another, by what lies on the disk. */
function planOnDisk({ root, before, after, renamed, extra, keep }: ReshapeTask): Reshape {
  const port = livePort(root);
  return reshape({
    before: new ProjectRules(before),
    after: new ProjectRules(after),
    there: {
      look: (path) => {
        const there = port.look(path);
        return there instanceof Promise ? null : there;
      },
      files: (folder) => fileNames(root, folder),
    },
    renamed,
    extra,
    keep: new Set(keep),
  });
}

export const TASKS = {
  namesBelow,
  namesIn: ({ root }: { readonly root: string }) => namesIn(root, ''),
  foldersBelow: ({ root, most }: { readonly root: string; readonly most: number }) => foldersBelow(root, most),
  sizesBelow,
  markersBelow,
  planOnDisk,
} as const;

export type TaskName = keyof typeof TASKS;
export type TaskInput<K extends TaskName> = Parameters<(typeof TASKS)[K]>[0];
export type TaskOutput<K extends TaskName> = ReturnType<(typeof TASKS)[K]>;
