/**
 * What came back is held against what was sent.
 *
 * 1. What has the content of a file that was sent came back as it was, wherever it lies now.
 * 2. What lies where one was sent, below whatever folder it came back in, was worked on.
 * 3. So was what has the name of one alone. Anything else is new.
 */
import { nameOf } from '../listing/entry';

export const RETURNED = ['changed', 'new', 'same', 'not-back'] as const;
export type ReturnedState = (typeof RETURNED)[number];

export interface Sent {
  /** From the project's root. */
  readonly path: string;
  /** Hexadecimal digits. */
  readonly sha256: string;
}

/** A file that came back, by its path from where it was looked for. */
export type CameBack = Sent;

export interface ReturnedRow {
  readonly state: ReturnedState;
  /** From the project's root; `null` for what is new. */
  readonly sent: string | null;
  /** From where it was looked for; `null` for what did not come back. */
  readonly back: string | null;
}

/** In the order of the states; each by its path. */
export function returned(sent: readonly Sent[], back: readonly CameBack[]): readonly ReturnedRow[] {
  const known = new Returned(sent);
  const rows = [...known.same(back), ...known.changed(back), ...known.left(back)];
  const order = (row: ReturnedRow) => RETURNED.indexOf(row.state);
  const pathOf = ({ sent: was, back: now }: ReturnedRow) => now ?? was ?? '';
  return rows.sort((a, b) => order(a) - order(b) || (pathOf(a) < pathOf(b) ? -1 : 1));
}

class Returned {
  private readonly byHash = new Map<string, Sent[]>();
  private readonly byPath: ReadonlyMap<string, Sent>;
  /** `null` for a name that several have. */
  private readonly byName = new Map<string, Sent | null>();
  /** What was sent and has found what became of it; what came back and has found what it was. */
  private readonly found = new Set<Sent>();
  private readonly told = new Set<CameBack>();

  constructor(private readonly sent: readonly Sent[]) {
    this.byPath = new Map(sent.map((one) => [one.path, one]));
    for (const one of sent) {
      const alike = this.byHash.get(one.sha256);
      if (alike === undefined) this.byHash.set(one.sha256, [one]);
      else alike.push(one);
      this.byName.set(nameOf(one.path), this.byName.has(nameOf(one.path)) ? null : one);
    }
  }

  /** Of several that are alike each finds one, its own place first. */
  same(back: readonly CameBack[]): readonly ReturnedRow[] {
    return back.flatMap((file): ReturnedRow[] => {
      const alike = (this.byHash.get(file.sha256) ?? []).filter((one) => !this.found.has(one));
      const was = alike.find(({ path }) => isAt(file.path, path)) ?? alike[0];
      return was === undefined ? [] : [this.pair('same', was, file)];
    });
  }

  changed(back: readonly CameBack[]): readonly ReturnedRow[] {
    return back.flatMap((file): ReturnedRow[] => {
      if (this.told.has(file)) return [];
      const was = this.placeOf(file.path) ?? this.byName.get(nameOf(file.path));
      return was == null || this.found.has(was) ? [] : [this.pair('changed', was, file)];
    });
  }

  left(back: readonly CameBack[]): readonly ReturnedRow[] {
    const fresh = back.filter((file) => !this.told.has(file));
    const away = this.sent.filter((one) => !this.found.has(one));
    return [
      ...fresh.map(({ path }): ReturnedRow => ({ state: 'new', sent: null, back: path })),
      ...away.map(({ path }): ReturnedRow => ({ state: 'not-back', sent: path, back: null })),
    ];
  }

  private pair(state: ReturnedState, sent: Sent, back: CameBack): ReturnedRow {
    this.found.add(sent);
    this.told.add(back);
    return { state, sent: sent.path, back: back.path };
  }

  /** The longest end of its path that was sent so. */
  private placeOf(path: string): Sent | undefined {
    for (let at = path; ; at = at.slice(at.indexOf('/') + 1)) {
      const one = this.byPath.get(at);
      if (one !== undefined || !at.includes('/')) return one;
    }
  }
}

const isAt = (path: string, sent: string): boolean => path === sent || path.endsWith(`/${sent}`);
