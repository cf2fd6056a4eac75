/**
 * A project → the next one: what comes along, what it is called there, where it lies, what refers to what.
 *
 * 1. Each file of the source is read, and asked whether it comes (`source`).
 * 2. Its folder in the new project is the one of the same identity in its plan, else it lies as it lay (`placing`).
 * 3. Its name is written anew by what it means, else word by word (`names`).
 * 4. What would stand in each other's way is left out, and said at both.
 * 5. Documents are rewritten on the way, so that they refer to what lies in the new project (`referring`).
 *
 * The source is only read. The new project has been started: its planned folders are there.
 */
import type { Change } from '../../change/change';
import { nameOf, parentOf } from '../../listing/entry';
import type { ProjectRules } from '../../project/rules';
import { broughtChange, foldersInto } from '../bringing';
import { type Carried, type CarryGiven, type CarryItem, isBrought } from './given';
import { NewNames } from './names';
import { Placing } from './placing';
import { type Patches, Referring } from './referring';
import { readSource, type Source } from './source';

export function carryOver(given: CarryGiven): Carried {
  const { source, target, way } = given;
  const read = readSource(source, given.listings, given);
  const names = new NewNames(source, target, way, given.revision);
  const placed = new Placing(given, names, read);
  const items = placed.items();
  const coming = items.filter(isBrought);
  const refs = new Referring(given, placed, new Map(coming.map((item) => [item.from, item.to])));
  const { documents, byHand, patches } = refs.rewritten();
  return {
    items,
    folders: placed.foldersOf(items),
    words: names.oldWordsIn(items.filter(({ comes, by }) => comes && by !== 'meaning').map(({ from }) => nameOf(from))),
    changes: [...foldersFor(given, placed, read, coming), ...coming.map((item) => copied(given, item, patches))],
    documents,
    byHand,
    ...refs.bound(),
  };
}

/** Folders that something goes into, or that come as they are. */
function foldersFor(
  { there }: CarryGiven,
  placed: Placing,
  { folders }: Source,
  coming: readonly CarryItem[],
): readonly Change[] {
  const kept = folders.filter(({ node, comes }) => node === null && comes !== 'nothing');
  return foldersInto(there, [...kept.map(({ path }) => placed.folder(path)), ...coming.map(({ to }) => parentOf(to))]);
}

const copied = ({ rootOf }: CarryGiven, { from, to, size, modified }: CarryItem, patches: Patches): Change =>
  broughtChange({
    from: { root: rootOf(from), path: from },
    to,
    expects: { size, modified },
    patches: patches.get(from),
  });

/** What a project that was only just started holds: what its plan makes. */
export function namesPlanned({ expansion }: ProjectRules, startersCome: boolean): CarryGiven['there'] {
  const names = new Map<string, string[]>();
  for (const { path, made, kind } of expansion.lines) {
    if (!made || path === '' || (kind === 'file' && startersCome)) continue;
    const known = names.get(parentOf(path));
    if (known === undefined) names.set(parentOf(path), [nameOf(path)]);
    else known.push(nameOf(path));
  }
  return (folder) => names.get(folder) ?? [];
}
