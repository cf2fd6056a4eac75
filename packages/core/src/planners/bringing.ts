/** Files that are brought into a project from another folder: the folders they need, and their copies. */
import type { Change, Expected, Patch } from '../change/change';
import { HOME, home, type Place, type RootId } from '../change/place';
import { nameOf, parentOf } from '../listing/entry';

/** Those of these folders of a root, and of all above them, that are not there. */
export function foldersInto(
  there: (folder: string) => readonly string[],
  folders: Iterable<string>,
  root: RootId = HOME,
): readonly Change[] {
  const wanted = new Set<string>();
  for (const folder of folders) for (let at = folder; at !== '' && !wanted.has(at); at = parentOf(at)) wanted.add(at);
  return [...wanted]
    .sort()
    .filter((path) => !there(parentOf(path)).includes(nameOf(path)))
    .map((path) => ({
      id: `folder ${path}`,
      subject: { kind: 'file' },
      group: null,
      entry: 'folder',
      before: null,
      after: { root, path },
      content: null,
    }));
}

export interface Brought {
  readonly from: Place;
  /** From the project's root. */
  readonly to: string;
  readonly expects: Expected;
  readonly patches?: readonly Patch[] | undefined;
}

/** The file itself comes. */
export function movedInstead(change: Change): Change {
  const { content } = change;
  if (content?.kind !== 'copy') return change;
  return { ...change, before: content.from, content: null, expects: content.expects };
}

export const broughtChange = ({ from, to, expects, patches }: Brought): Change => ({
  id: from.path,
  subject: { kind: 'file' },
  group: null,
  entry: 'file',
  before: null,
  after: home(to),
  content: { kind: 'copy', from, expects, ...(patches !== undefined && { patches }) },
});
