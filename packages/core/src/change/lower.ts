/**
 * Changes that no disk does in one act, in terms of those it does: where a folder goes to another file system, or to
 * another place of a disk that moves files alone, its folders are made there, its files go one by one, and the folders
 * they leave are taken back.
 */
import type { Change } from './change';
import type { ApplyFault } from './fault';
import { isSamePlace, type Place, placeIn, placeKey } from './place';
import { lookAt, type Port, soon } from './port';

export interface Lowered {
  readonly changes: readonly Change[];
  readonly faults: readonly ApplyFault[];
}

export async function lowerChanges(changes: readonly Change[], port: Port): Promise<Lowered> {
  if (changes.every((change) => isSimple(change, port))) return { changes, faults: [] };
  const lowering = new Lowering(changes, port);
  for (const change of changes) await lowering.take(change);
  return { changes: lowering.out, faults: lowering.faults };
}

/** Whether one act does it. */
function isSimple({ entry, before, after }: Change, port: Port): boolean {
  if (before === null || after === null || isSamePlace(before, after)) return true;
  const reach = port.reach(before.root, after.root);
  return reach === 'all' || (reach === 'files' && entry === 'file');
}

class Lowering {
  readonly out: Change[] = [];
  readonly faults: ApplyFault[] = [];
  private readonly changed: ReadonlySet<string>;

  constructor(
    changes: readonly Change[],
    private readonly port: Port,
  ) {
    this.changed = new Set(changes.flatMap(({ before }) => (before === null ? [] : [placeKey(before)])));
  }

  async take(change: Change): Promise<void> {
    const { before, after } = change;
    if (before === null || after === null || isSimple(change, this.port)) this.out.push(change);
    else if (change.entry === 'file') await this.file(change, before);
    else await this.folder(change, before, after);
  }

  /** What is copied is held to what it was, so that nobody's work is removed after its copy. */
  private async file(change: Change, before: Place): Promise<void> {
    const there = await lookAt(this.port, before);
    if (there === null) this.faults.push({ code: 'gone', id: change.id, at: before });
    else this.out.push({ expects: { size: there.size, modified: there.modified }, ...change });
  }

  private async folder(change: Change, top: Place, target: Place): Promise<void> {
    const { id, subject } = change;
    const queue: (readonly [from: Place, to: Place, rel: string])[] = [[top, target, '']];
    for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
      const [from, to, rel] = next;
      const same = { subject, group: id, content: null };
      this.out.push({ ...same, id: `${id}${rel}+`, entry: 'folder', before: null, after: to });
      this.out.push({ ...same, id: `${id}${rel}-`, entry: 'folder', before: from, after: null });
      const listing = this.port.list(from);
      const inside = soon(listing) ? await listing : listing;
      if (inside === null) this.faults.push({ code: 'gone', id, at: from });
      for (const [name, kind] of inside ?? []) {
        const [inner, goal, path] = [placeIn(from, name), placeIn(to, name), `${rel}/${name}`];
        // It has a change of its own.
        if (this.changed.has(placeKey(inner))) continue;
        if (kind === 'folder') queue.push([inner, goal, path]);
        else if (kind === 'file')
          await this.take({ ...same, id: `${id}${path}`, entry: 'file', before: inner, after: goal });
        else this.faults.push({ code: 'other-kind', id, at: inner });
      }
    }
  }
}
