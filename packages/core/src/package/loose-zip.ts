/** A zip of loose files: what would deceive whoever unpacks it, beyond what its own list tells. */
import { parentOf } from '../listing/entry';
import type { PackageFault } from './verdict';

/** The program's own folder, wherever it would lie; a file that stands where a folder is needed for another. */
export function looseZipFault(paths: ReadonlySet<string>, ownFolder: string): PackageFault | null {
  for (const path of paths) {
    if (path.split('/').some((name) => name.toLowerCase() === ownFolder)) return { code: 'path-unsafe', path };
    for (let at = parentOf(path); at !== ''; at = parentOf(at))
      if (paths.has(at)) return { code: 'entry-twice', path: at };
  }
  return null;
}
