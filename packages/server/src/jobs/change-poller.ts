/**
 * Short looks at the folders of projects that somebody has before his eyes: only their times, and not more often than
 * every few seconds.
 */
import { Recent } from '@nesting/core';
import { type Seen, type SeenFolders, seenFolders } from '@nesting/disk';

/** Milliseconds between two looks at one project, however many watch it. */
const EVERY = 3000;
/** Projects whose folders are remembered here. */
const MOST = 50;

interface Known {
  /** The check they are remembered from. */
  readonly check: string;
  readonly seen: SeenFolders;
  last: number;
}

interface Polled {
  /** What that check saw: asked once for each check, for it is large; `null` where nothing can be read of it. */
  readonly remember: () => Promise<Seen | null>;
  readonly look: (seen: SeenFolders) => Promise<boolean>;
}

export class ChangePoller {
  private readonly known = new Recent<Known>(MOST);

  async hasChanged(project: string, check: string, { remember, look }: Polled): Promise<boolean> {
    let known = this.known.get(project);
    if (known?.check !== check) {
      const seen = await remember();
      // Nothing to compare with: a check makes it anew.
      if (seen === null) return true;
      known = { check, seen: seenFolders(seen), last: 0 };
      this.known.set(project, known);
    }
    if (Date.now() - known.last < EVERY) return false;
    known.last = Date.now();
    return look(known.seen);
  }
}
