/** Tasks that prove packages, and unpack them. */
import { createHash } from 'node:crypto';
import { grouped } from '@nesting/core';
import { nameOf, parentOf } from '@nesting/core/listing';
import {
  type PackageForm,
  type PackedFiles,
  type Progress,
  type ReturnedRow,
  returned,
  type Verdict,
  verifyPackage,
} from '@nesting/core/package';
import { type ReadPackage, readPackage } from '@nesting/core/report';
import { eachPiece, filesInFolder, filesInZip, type ZipFiles } from '../package/packed-files';
import { unpack } from '../package/unpack';
import { hashWhole } from '../roots/hash-thread';
import { inRoot } from '../roots/open';
import { eachChunk, hashOf, readAll, readText, withPlainFile, withPlainFileAsync } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import type { Root } from '../roots/root';
import { failed, type Where } from '../roots/where';
import type { Context } from './context';
import type { OfWhere } from './looks';

export interface PackageTask extends OfWhere {
  /** The zip or the folder, from there. */
  readonly path: string;
}

export interface Verified extends Verdict {
  /** Whether the checksum that stands beside it is its own; `null` where none stands there. */
  readonly isOuterRight: boolean | null;
}

/** Milliseconds between two words on how far it is. */
const TOLD_EVERY = 100;

/** @throws Unreachable, `ENOENT` where nothing is there, `STOPPED` */
export const verifyFiles = ({ where, path }: PackageTask, context: Context<Progress>): Promise<Verified> =>
  inRoot(where, (root) => opened(root, path, context, ({ files, outer }) => proved(files, outer, telling(context))));

export interface LookedAt {
  readonly verdict: Verified;
  /** `null` where it is not whole, or none of this program's. */
  readonly read: ReadPackage | null;
}

/** Proves a package, and says what is in it. */
export const lookAtPackage = ({ where, path }: PackageTask, context: Context<Progress>): Promise<LookedAt> =>
  inRoot(where, (root) =>
    opened(root, path, context, async ({ files, outer }) => {
      const verdict = await proved(files, outer, telling(context));
      return { verdict, read: verdict.isWhole ? await readPackage(files, verdict.form, verdict.root) : null };
    }),
  );

export interface UnpackTask extends PackageTask {
  /** As it was read from it. */
  readonly read: ReadPackage;
  /** The folder that the project's folder is made in, and its name there. */
  readonly into: Where;
  readonly folder: string;
  readonly own: readonly { readonly path: string; readonly text: string }[];
  readonly id: string;
}

/** @throws Unreachable, and what `unpack` throws */
export const unpackPackage = (
  { where, path, read, into, folder, own, id }: UnpackTask,
  context: Context<Progress>,
): Promise<void> =>
  inRoot(where, (root) =>
    inRoot(into, (target) =>
      opened(root, path, context, ({ pieces }) => {
        const tell = telling(context);
        const [allFiles, allBytes] = [read.files.length, read.files.reduce((sum, { size }) => sum + size, 0)];
        const tick = (files: number, bytes: number) => tell({ files, bytes, allFiles, allBytes });
        return unpack({ read, pieces, target, folder, own, id, tick });
      }),
    ),
  );

interface Opened {
  readonly files: PackedFiles;
  /** Whether the checksum beside it is its own. */
  readonly outer: () => Promise<boolean | null>;
  readonly pieces: (place: string, take: (bytes: Buffer) => void) => Promise<void>;
}

/** Works with a package, a folder or a zip, and closes it. */
async function opened<T>(
  root: Root,
  path: string,
  { cancel }: Pick<Context<Progress>, 'cancel'>,
  work: (opened: Opened) => Promise<T>,
): Promise<T> {
  const tick = () => {
    if (cancel.aborted) throw failed('STOPPED', '');
  };
  if (path === '' || standingAt(root, path)?.kind === 'folder') {
    const folder = root.sub(path);
    try {
      const pieces = async (place: string, take: (bytes: Buffer) => void) =>
        withPlainFile(folder, place, (file) =>
          eachChunk(file, [0, Number.POSITIVE_INFINITY], (bytes) => {
            take(bytes);
            return true;
          }),
        );
      return await work({
        files: filesInFolder(folder, tick),
        outer: async () => outerOfBag(root, path, folder),
        pieces,
      });
    } finally {
      folder.close();
    }
  }
  return withPlainFileAsync(root, path, async (file) => {
    const files: ZipFiles = await filesInZip(file, tick);
    const pieces = (place: string, take: (bytes: Buffer) => void) => eachPiece(file, files.entryAt(place), take);
    return work({ files, outer: () => outerOfFile(root, path), pieces });
  });
}

async function proved(
  files: PackedFiles,
  outer: () => Promise<boolean | null>,
  tell: (progress: Progress) => Promise<void>,
): Promise<Verified> {
  const whole = outer();
  // Whatever becomes of the files, it is awaited: nothing else would hear of its failing.
  whole.catch(() => undefined);
  const verdict = await verifyPackage(files, tell);
  const isOuterRight = await whole;
  if (isOuterRight !== false) return { ...verdict, isOuterRight };
  return { ...verdict, isOuterRight, isWhole: false, faults: [...verdict.faults, { code: 'whole-differs', path: '' }] };
}

/** Between two files a cancellation is heard, and now and then it is told how far it is. */
function telling({ cancel, tell }: Context<Progress>): (progress: Progress) => Promise<void> {
  let told = 0;
  return async (progress) => {
    await new Promise((resolve) => setImmediate(resolve));
    if (cancel.aborted) throw failed('STOPPED', '');
    const now = Date.now();
    if (now - told < TOLD_EVERY) return;
    told = now;
    void tell(progress);
  };
}

/** The checksum that is written beside a package; `null` where none is, empty where it cannot be understood. */
function outerIn(root: Root, path: string): string | null {
  try {
    const text = readText(root, `${path}.sha256`, 1 << 16);
    return /^\\?([0-9a-f]{64}) [ *]/i.exec(text)?.[1]?.toLowerCase() ?? '';
  } catch {
    return null;
  }
}

async function outerOfFile(root: Root, path: string): Promise<boolean | null> {
  const outer = outerIn(root, path);
  return outer === null ? null : (await hashWhole(root.at(path))).sha256 === outer;
}

/** Of a bag it is that of the list of its lists. */
function outerOfBag(root: Root, path: string, folder: Root): boolean | null {
  const outer = path === '' ? null : outerIn(root, path);
  if (outer === null) return null;
  try {
    const list = readText(folder, 'tagmanifest-sha256.txt', 2 ** 30);
    return createHash('sha256').update(list).digest('hex') === outer;
  } catch {
    return false;
  }
}

export interface StretchTask extends OfWhere {
  readonly path: string;
  readonly from: number;
  readonly to: number;
}

/** Bytes from one place to before another, fewer where the file ends. @throws Unreachable, and the system's codes */
export const stretchOfFile = ({ where, path, from, to }: StretchTask): Uint8Array =>
  inRoot(where, (root) => withPlainFile(root, path, ({ fd }) => readAll(fd, from, to - from)));

export interface ContentsTask extends PackageTask {
  readonly form: PackageForm;
  /** The folder in it that the list lies in. */
  readonly root: string;
}

/** Names in a package of this program's, by the folders of its project; none where it is none. Nothing is proved. */
export const contentsOfPackage = (
  { where, path, form, root: top }: ContentsTask,
  context: Context<never>,
): Promise<readonly { readonly path: string; readonly names: readonly string[] }[]> =>
  inRoot(where, (root) =>
    opened(root, path, context, async ({ files }) => {
      const read = await readPackage(files, form, top);
      const folders = grouped(read?.files ?? [], (file) => parentOf(file.path));
      return [...folders].map(([folder, inside]) => ({ path: folder, names: inside.map((file) => nameOf(file.path)) }));
    }),
  );

export interface ReturnTask extends PackageTask {
  /** The folder that came back. */
  readonly back: Where;
}

export interface CameBackFrom {
  readonly rows: readonly ReturnedRow[];
  /** What could not be read: of that nothing is known. */
  readonly unseen: readonly string[];
}

/** Holds a folder that came back against what was sent; `null` where the package is not whole, or none of this program's. */
export const compareReturned = async (
  { back, ...sent }: ReturnTask,
  context: Context<Progress>,
): Promise<CameBackFrom | null> => {
  const { read } = await lookAtPackage(sent, context);
  if (read === null) return null;
  return inRoot(back, async (root) => {
    const tell = telling(context);
    const files = filesInFolder(root, () => undefined);
    const found: { path: string; sha256: string }[] = [];
    const unseen = files.faults.map(({ path }) => path);
    const allBytes = [...files.sizes.values()].reduce((sum, size) => sum + size, 0);
    let bytes = 0;
    for (const [path, size] of files.sizes) {
      try {
        found.push({ path, sha256: withPlainFile(root, path, hashOf) });
      } catch {
        unseen.push(path);
      }
      bytes += size;
      await tell({ files: found.length, bytes, allFiles: files.sizes.size, allBytes });
    }
    return { rows: returned(read.files, found), unseen };
  });
};
