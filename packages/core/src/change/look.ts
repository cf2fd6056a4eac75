/**
 * Everything a batch expects, before its first step. Folders are listed once; single files are looked at only where
 * more than their being there matters.
 */
import { type Change, isAsExpected, type Step } from './change';
import type { ApplyFault } from './fault';
import type { Bystander } from './journal';
import { folderOf, isSamePlace, lastName, type Place, placeIn, placeKey } from './place';
import { codeOf, lookAt, type Port, type Standing, soon } from './port';

export interface Looked {
  readonly faults: readonly ApplyFault[];
  /** Identities of what is moved, by the change's id. */
  readonly ids: Readonly<Record<string, string>>;
}

/** Folders by their listings. Most entries are in the folder of the one before. */
class Listed {
  private readonly known = new Map<string, ReadonlyMap<string, Standing['kind']> | null>();
  private last: Place | null = null;
  private lastNames: ReadonlyMap<string, Standing['kind']> | null = null;

  constructor(private readonly port: Port) {}

  /** What is at a place; a promise only where the listing is one. */
  kindAt(place: Place): Standing['kind'] | null | Promise<Standing['kind'] | null> {
    const { path } = place;
    const cut = path.lastIndexOf('/');
    const name = path.slice(cut + 1);
    const { last } = this;
    const isSame = last?.root === place.root && last.path.length === Math.max(0, cut) && path.startsWith(last.path);
    if (isSame) return this.lastNames?.get(name) ?? null;
    const folder = folderOf(place);
    const known = this.known.get(placeKey(folder));
    const names = known === undefined ? this.port.list(folder) : known;
    if (soon(names)) return names.then((found) => this.keep(folder, found)?.get(name) ?? null);
    return this.keep(folder, names)?.get(name) ?? null;
  }

  private keep(folder: Place, names: ReadonlyMap<string, Standing['kind']> | null): typeof names {
    this.known.set(placeKey(folder), names);
    this.last = folder;
    this.lastNames = names;
    return names;
  }
}

export async function checkExpectations(changes: readonly Change[], port: Port): Promise<Looked> {
  const faults: ApplyFault[] = [];
  const ids: Record<string, string> = {};
  const here = placesBefore(changes);
  const befores = new Set<string>();
  const afters = new Set<string>();
  for (const { before, after } of changes) {
    if (before !== null && (after === null || !staysIn(before, here(after)))) befores.add(placeKey(before));
    if (after !== null) afters.add(placeKey(after));
  }
  const listed = new Listed(port);
  for (const change of changes) {
    const { id, before, after, entry, content } = change;
    try {
      if (before !== null) {
        // Who takes another's place, or gives its own up, must be told from it after a crash.
        const matters =
          change.expects !== undefined ||
          entry === 'folder' ||
          (after !== null && befores.has(placeKey(after))) ||
          afters.has(placeKey(before));
        let code: ApplyFault['code'] | null;
        if (matters) code = await lookedFault(change, before, port, ids);
        else {
          const there = listed.kindAt(before);
          code = kindFault(soon(there) ? await there : there, entry);
        }
        if (code !== null) faults.push({ code, id, at: before });
      }
      if (content?.kind === 'copy') {
        const code = faultOf('file', content.expects, await lookAt(port, content.from));
        if (code !== null) faults.push({ code, id, at: content.from });
      }
      const place = after === null ? null : here(after);
      if (after !== null && place !== null && !staysIn(before, place)) {
        if (befores.has(placeKey(place))) continue;
        const there = listed.kindAt(place);
        if ((soon(there) ? await there : there) !== null) faults.push({ code: 'taken', id, at: after });
      }
    } catch (error) {
      const at = before ?? after;
      if (at !== null) faults.push({ code: 'unseen', id, at, detail: codeOf(error) });
    }
  }
  return { faults, ids };
}

/** Whether an entry stays in its folder, under its name, wherever that folder goes. */
const staysIn = (before: Place | null, place: Place | null): boolean =>
  before !== null && place !== null && isSamePlace(before, place);

async function lookedFault(
  change: Change,
  before: Place,
  port: Port,
  ids: Record<string, string>,
): Promise<ReturnType<typeof faultOf>> {
  const there = await lookAt(port, before);
  const fault = faultOf(change.entry, change.expects, there);
  if (fault === null && there !== null && there.id !== '') ids[change.id] = there.id;
  return fault;
}

const kindFault = (there: Standing['kind'] | null, entry: Change['entry']): 'gone' | 'other-kind' | null =>
  there === null ? 'gone' : there === entry ? null : 'other-kind';

function faultOf(
  entry: Change['entry'],
  expects: Change['expects'],
  there: Standing | null,
): 'gone' | 'other-kind' | 'changed' | null {
  const fault = kindFault(there?.kind ?? null, entry);
  if (fault !== null || there === null) return fault;
  return isAsExpected(there, expects) ? null : 'changed';
}

/** Where a place of the world after lies in the world before; `null` in a folder that is only made. */
function placesBefore(changes: readonly Change[]): (after: Place) => Place | null {
  const byAfter = new Map(
    changes.flatMap(({ entry, before, after, content }) =>
      entry === 'folder' && after !== null ? [[placeKey(after), before ?? setAsideAt(content)] as const] : [],
    ),
  );
  // Where no folder moves, everything is where it was.
  if (byAfter.size === 0) return (place) => place;
  const known = new Map<string, Place | null>();
  const inFolder = (place: Place): Place | null => {
    const above = folder(folderOf(place));
    return above === null ? null : placeIn(above, lastName(place));
  };
  const folder = (place: Place): Place | null => {
    const key = placeKey(place);
    const was = known.get(key);
    if (was !== undefined) return was;
    const own = byAfter.get(key);
    const found = own !== undefined ? own : place.path === '' ? place : inFolder(place);
    known.set(key, found);
    return found;
  };
  return inFolder;
}

const setAsideAt = (content: Change['content']): Place | null => (content?.kind === 'set-aside' ? content.from : null);

/**
 * What stands, before the first step, at a place that a step names for another time, or where it comes to such a place
 * along with its folder: only where a folder above it moves can that be somebody else's.
 */
export async function bystanders(
  changes: readonly Change[],
  steps: readonly Step[],
  port: Port,
): Promise<readonly Bystander[]> {
  const moving = new Set<string>();
  const own = new Set<string>();
  for (const { entry, before, after } of changes) {
    if (before === null) continue;
    own.add(placeKey(before));
    if (entry === 'folder' && (after === null || !isSamePlace(before, after))) moving.add(placeKey(before));
  }
  if (moving.size === 0) return [];
  const moves = movesByTarget(steps);
  const out: Bystander[] = [];
  const asked = new Map<string, number>();
  const queue = steps.flatMap((step): Before[] =>
    ('from' in step ? [step.from, step.at] : [step.at]).map((place) => ({ place, before: steps.length })),
  );
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    const { place, before } = next;
    const key = placeKey(place);
    const known = asked.get(key);
    if (known !== undefined && known >= before) continue;
    asked.set(key, before);
    queue.push(...beforehand(next, moves));
    if (known !== undefined || own.has(key) || !isInOne(place, moving)) continue;
    const there = await lookAt(port, place);
    if (there !== null && there.kind !== 'other') out.push({ at: place, entry: there.kind, id: there.id });
  }
  return out;
}

/** A place as it is before a certain step, counted from the first. */
interface Before {
  readonly place: Place;
  readonly before: number;
}

type Moves = ReadonlyMap<string, readonly { readonly from: Place; readonly step: number }[]>;

function movesByTarget(steps: readonly Step[]): Moves {
  const out = new Map<string, { from: Place; step: number }[]>();
  for (const [at, step] of steps.entries()) {
    if (!('from' in step)) continue;
    const key = placeKey(step.at);
    const move = { from: step.from, step: at };
    const known = out.get(key);
    if (known === undefined) out.set(key, [move]);
    else known.push(move);
  }
  return out;
}

/** Where that was which lies at a place once folders above it have moved there: from step to step, backwards. */
function* beforehand({ place, before }: Before, moves: Moves): Generator<Before> {
  for (let at = folderOf(place); at.path !== ''; at = folderOf(at))
    for (const { from, step } of moves.get(placeKey(at)) ?? [])
      if (step < before)
        yield { place: { root: from.root, path: `${from.path}${place.path.slice(at.path.length)}` }, before: step };
}

function isInOne(place: Place, folders: ReadonlySet<string>): boolean {
  for (let at = folderOf(place); at.path !== ''; at = folderOf(at)) if (folders.has(placeKey(at))) return true;
  return false;
}
