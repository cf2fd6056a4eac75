/** Where what belongs to a package lies in it. */
import { grouped } from '../grouped';
import { join } from '../listing/entry';
import type { PackageForm } from './verdict';

export const PACKAGE_KINDS = ['zip', 'bag', 'bag-zip'] as const;
/** A zip that anybody can open, a bag as a folder, a bag in a zip. */
export type PackageKind = (typeof PACKAGE_KINDS)[number];

/** What this program knows a package of its own by. */
export const PACKAGE_JSON = 'package.json';

/** Beside the project's folders in a zip; the record of a bag lies at its top. */
const RECORD_FOLDER = '_package';
const SUMS = 'sha256sums';

/** Whether a path, from the folder that the list lies in, is the record of a package of this program's. */
export const isPackageRecord = (path: string, form: PackageForm): boolean =>
  form === 'bag' ? path === PACKAGE_JSON : /^_package(-\d+)?\/package\.json$/.test(path);

export interface Layout {
  /** The one folder that all lies in; a package can be unpacked anywhere. */
  readonly top: string;
  /** From there: of a file of the project. */
  readonly payload: (path: string) => string;
  /** Of a file that describes the package. */
  readonly record: (name: string) => string;
  /** The list of checksums; `null` for a bag, which has manifests. */
  readonly sums: string | null;
}

/** @param tops - the names at the top of what is packed: what describes the package stands in nobody's way */
export function layoutOf(kind: PackageKind, top: string, tops: ReadonlySet<string>): Layout {
  if (kind !== 'zip') return { top, payload: (path) => join('data', path), record: (name) => name, sums: null };
  const folder = free(RECORD_FOLDER, '', tops);
  return { top, payload: (path) => path, record: (name) => join(folder, name), sums: free(SUMS, '.txt', tops) };
}

function free(name: string, extension: string, taken: ReadonlySet<string>): string {
  const lower = new Set([...taken].map((one) => one.toLowerCase()));
  let made = `${name}${extension}`;
  for (let n = 2; lower.has(made.toLowerCase()); n++) made = `${name}-${n}${extension}`;
  return made;
}

/**
 * Everything side by side, for who wants no folders: each file by its own name, and where several have one, with the
 * names of their folders in front, the nearest first.
 *
 * @returns by path
 */
export function sideBySide(paths: readonly string[]): ReadonlyMap<string, string> {
  const out = new Map<string, string>();
  const taken = new Set<string>();
  const give = (path: string, name: string): void => {
    taken.add(name.toLowerCase());
    out.set(path, name);
  };
  let open = [...paths];
  for (let depth = 1; open.length > 0; depth++) {
    const groups = grouped(open, (path) => nameAt(path, depth).toLowerCase());
    open = [];
    for (const [name, group] of groups)
      for (const path of group) {
        if (group.length === 1 && !taken.has(name)) give(path, nameAt(path, depth));
        else if (path.split('/').length > depth) open.push(path);
        else give(path, counted(nameAt(path, depth), taken));
      }
  }
  return out;
}

/** With so many of its folders in front. */
const nameAt = (path: string, depth: number): string => path.split('/').slice(-depth).join('_');

/** Where even all of its folders tell it from no other. */
function counted(name: string, taken: ReadonlySet<string>): string {
  let made = name;
  for (let n = 2; taken.has(made.toLowerCase()); n++) made = `${n}_${name}`;
  return made;
}
