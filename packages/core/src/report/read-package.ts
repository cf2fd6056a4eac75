/** What a package of this program says of itself, read back. */
import { join } from '../listing/entry';
import { relPathOf } from '../listing/path';
import { isPackageRecord, type PackageForm, type PackedFiles } from '../package';
import { OWN_FOLDER } from '../project/own-folder';
import { undefused } from '../text/csv';
import { readCsv } from '../text/read-csv';
import { CONTENTS, type PackageRecord, REGISTERS_IN_PACKAGE, TEMPLATE_IN_PACKAGE } from './packed';

/** A file of the project, and where it lies in the package. */
export interface UnpackedFile {
  /** From the project's root. */
  readonly path: string;
  /** From where the package was looked at. */
  readonly place: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly sha256: string;
}

export interface ReadPackage {
  readonly record: PackageRecord;
  readonly files: readonly UnpackedFile[];
  /** As they stand in it; empty where they are missing. */
  readonly template: string;
  readonly registers: string;
}

/** Bytes of a text in a package that is read. */
const MOST_TEXT = 512 * 2 ** 20;

/**
 * @param form - by what it was proved, and `root` the folder that the list lies in
 * @returns `null` where it is none of this program's, or leads out of its folder
 */
export async function readPackage(packed: PackedFiles, form: PackageForm, root: string): Promise<ReadPackage | null> {
  const start = root === '' ? 0 : root.length + 1;
  const own = [...packed.sizes.keys()].find(
    (path) => path.startsWith(root) && isPackageRecord(path.slice(start), form),
  );
  if (own === undefined) return null;
  const folder = own.slice(0, own.lastIndexOf('/') + 1);
  const text = async (name: string): Promise<string> =>
    packed.sizes.has(`${folder}${name}`) ? packed.text(`${folder}${name}`, MOST_TEXT) : '';
  const record = recordIn(await packed.text(own, MOST_TEXT));
  const files = filesIn(await text(CONTENTS), root);
  if (record === null || files === null) return null;
  return { record, files, template: await text(TEMPLATE_IN_PACKAGE), registers: await text(REGISTERS_IN_PACKAGE) };
}

function recordIn(text: string): PackageRecord | null {
  let record: PackageRecord;
  try {
    record = JSON.parse(text) as PackageRecord;
  } catch {
    return null;
  }
  if (record?.format !== 'nesting/package' || typeof record.folder !== 'string' || typeof record.project !== 'string')
    return null;
  const isName = record.folder !== '' && !record.folder.includes('/') && relPathOf(record.folder).ok;
  const folders: unknown = record.emptyFolders;
  const areFolders =
    Array.isArray(folders) && folders.every((one) => typeof one === 'string' && relPathOf(one).ok && !isOwn(one));
  return isName && areFolders && typeof record.values === 'object' && record.values !== null ? record : null;
}

/** The program's own folder is made anew: what a package says of it is not believed. */
const isOwn = (path: string): boolean => path.split('/')[0]?.toLowerCase() === OWN_FOLDER;

function filesIn(contents: string, root: string): readonly UnpackedFile[] | null {
  const files = readCsv(contents, ',').map((row) => ({
    path: undefused(row.path ?? ''),
    place: join(root, undefused(row['in the package'] ?? '')),
    size: Number(row.bytes),
    modified: Date.parse(row.modified ?? ''),
    sha256: row.sha256 ?? '',
  }));
  const isFine = files.every(
    ({ path, place, size, modified }) =>
      path !== '' &&
      relPathOf(path).ok &&
      !isOwn(path) &&
      relPathOf(place).ok &&
      Number.isSafeInteger(size) &&
      !Number.isNaN(modified),
  );
  return isFine ? files : null;
}
