/** Opens what is to be worked in, after a look whether it lies on the volume that is meant. */
import { readIdentity } from './identity';
import { Root } from './root';
import { Unreachable, type Where } from './where';

/** @throws Unreachable */
export function openRoot(where: Where): Root {
  const volume = Root.open({ base: where.base, folder: '' });
  let isKept = false;
  try {
    if (where.volume !== undefined && readIdentity(volume) !== where.volume)
      throw new Unreachable('root-missing', where.base, 'another volume');
    isKept = where.folder === '';
    return isKept ? volume : volume.sub(where.folder);
  } finally {
    if (!isKept) volume.close();
  }
}

/** Works in a folder, and closes it. @throws Unreachable */
export function inRoot<T>(where: Where, work: (root: Root) => T): T {
  const root = openRoot(where);
  let waits = false;
  try {
    const done = work(root);
    if (done instanceof Promise) {
      waits = true;
      return done.finally(() => root.close()) as T;
    }
    return done;
  } finally {
    if (!waits) root.close();
  }
}
