/** Files on their way to other projects: what is in their way there, and the folders that are made for them. */
import type { Change } from '../../change/change';
import { home, type Place, placeKey } from '../../change/place';
import { type FileEntry, nameOf, parentOf } from '../../listing/entry';
import { clashKey } from '../../portable/name';
import { Moves } from '../../references/moves';
import { kindIn } from './neighbour';
import type { Neighbour } from './option';

interface Sent {
  readonly id: string;
  readonly to: Place;
  readonly file: FileEntry | null;
}

/** Whose line wants a place that it cannot have, and who has it; `null` where something lies there. */
type OnClash = (id: string, at: string, other: string | null) => void;

export class Sendings {
  /** By the path they have here. */
  private readonly sent = new Map<string, Sent>();

  constructor(private readonly neighbours: readonly Neighbour[]) {}

  get all(): ReadonlyMap<string, Sent> {
    return this.sent;
  }

  has(path: string): boolean {
    return this.sent.has(path);
  }

  add(from: string, sent: Sent): void {
    this.sent.set(from, sent);
  }

  clashes(clash: OnClash): void {
    const ends = new Map<string, string>();
    for (const { id, to } of this.sent.values()) {
      const neighbour = this.neighbourOf(to);
      const key = placeKey({ ...to, path: clashKey(to.path) });
      const other = ends.get(key);
      ends.set(key, id);
      if (other !== undefined) {
        clash(id, to.path, other);
        clash(other, to.path, id);
      } else if (neighbour === undefined || isTaken(neighbour, to.path)) clash(id, to.path, null);
    }
  }

  /** Whole places of what goes, for what refers to it: the folder of the other project, and the path in it. */
  moves(): Moves {
    return new Moves(
      new Map([...this.sent].map(([from, { to }]) => [from, `${this.neighbourOf(to)?.folder ?? ''}/${to.path}`])),
      new Map(),
    );
  }

  changes(same: (finding: string) => Pick<Change, 'id' | 'subject' | 'group' | 'content'>): Change[] {
    const folders = this.missingFolders().map(
      ({ id, at }): Change => ({ ...same(id), entry: 'folder', before: null, after: at }),
    );
    const files = [...this.sent].map(([path, { id, to, file }]): Change => {
      const expects = file === null ? {} : { expects: { size: file.size, modified: file.modified } };
      return { ...same(id), entry: 'file', before: home(path), after: to, ...expects };
    });
    return [...folders, ...files];
  }

  private neighbourOf({ root }: Place): Neighbour | undefined {
    return this.neighbours.find((one) => one.root === root);
  }

  /** Outer ones first. */
  private missingFolders(): { readonly id: string; readonly at: Place }[] {
    const made = new Map<string, { readonly id: string; readonly at: Place }>();
    for (const { id, to } of this.sent.values()) {
      const neighbour = this.neighbourOf(to);
      const missing: Place[] = [];
      for (let path = parentOf(to.path); path !== '' && neighbour !== undefined; path = parentOf(path)) {
        if (kindIn(neighbour, path) === 'folder') break;
        missing.unshift({ root: to.root, path });
      }
      for (const at of missing) if (!made.has(placeKey(at))) made.set(placeKey(at), { id, at });
    }
    return [...made.values()];
  }
}

/** Something has the name, or a file is where a folder on the way to it should be. */
function isTaken(neighbour: Neighbour, path: string): boolean {
  const listing = neighbour.list(parentOf(path));
  if (listing === null) return blocked(neighbour, parentOf(path));
  const key = clashKey(nameOf(path));
  return [...listing.folders, ...listing.files.map((f) => f.name), ...listing.others].some(
    (name) => clashKey(name) === key,
  );
}

function blocked(neighbour: Neighbour, folder: string): boolean {
  for (let at = folder; at !== ''; at = parentOf(at)) {
    const kind = kindIn(neighbour, at);
    if (kind !== null) return kind === 'file';
  }
  return false;
}
