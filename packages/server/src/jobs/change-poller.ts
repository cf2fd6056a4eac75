/**
 * Short looks at the folders of projects that somebody has before his eyes: only their times, and not more often than
 * every few seconds.
 */
import { Recent } from '@nesting/core';
import { hasChangedSince, type Mount, type Seen } from '@nesting/disk';

/** Milliseconds between two looks at one project, however many watch it. */
const EVERY = 3000;
/** Projects whose folders are remembered here. */
const MOST = 50;

interface Known {
  /** The check they are remembered from. */
  readonly check: string;
  readonly folders: readonly {
    readonly path: string;
    readonly changed: number | undefined;
    readonly settling: boolean;
  }[];
  last: number;
}

export class ChangePoller {
  private readonly known = new Recent<Known>(MOST);

  /**
   * `remember` gives what that check saw: it is asked once for each check, for it is large; `null` where nothing can be
   * read of it.
   */
  async hasChanged(
    project: string,
    check: string,
    root: string,
    mounts: readonly Mount[],
    remember: () => Promise<Seen | null>,
  ): Promise<boolean> {
    let known = this.known.get(project);
    if (known?.check !== check) {
      const seen = await remember();
      // Nothing to compare with: a check makes it anew.
      if (seen === null) return true;
      known = {
        check,
        folders: seen.part.rows.map((r) => ({ path: r.path, changed: r.changed, settling: r.settling === true })),
        last: 0,
      };
      this.known.set(project, known);
    }
    if (Date.now() - known.last < EVERY) return false;
    known.last = Date.now();
    return hasChangedSince(root, mounts, known.folders, Date.now());
  }
}
