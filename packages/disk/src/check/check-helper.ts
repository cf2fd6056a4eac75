/**
 * What a process does that helps a check: walks and judges the folders it is given, or looks into their files, and
 * hands back what it finds too much for itself.
 */
import { present } from '@nesting/core';
import { Checker } from '@nesting/core/check';
import { join } from '@nesting/core/listing';
import { ProjectRules } from '@nesting/core/project';
import { failureOf } from '../failure';
import { FactsReader } from '../file-facts';
import { listItems } from '../list-items';
import { Tree } from '../roots/tree';
import type { Unseen } from '../walk';
import type { FromHelper, ToHelper } from './helpers';
import { type KeptListing, keptListing } from './kept-listing';

/** Folders walked before the rest is handed back to be shared. */
const SLICE = 1500;

export function helpCheck(): void {
  let helper: CheckHelper | null = null;
  const answer = (message: ToHelper): FromHelper | undefined => {
    switch (message.kind) {
      case 'begin':
        helper = new CheckHelper(message);
        return { kind: 'idle', files: 0, folders: 0, rest: [] };
      case 'folders':
        return helper?.work(message.paths);
      case 'take':
        return helper?.take();
    }
  };
  process.on('message', (message: ToHelper) => {
    try {
      const said = answer(message);
      if (said !== undefined) say(said);
    } catch (error) {
      // Such as a folder that was renamed just now: whoever asked tells what becomes of the check.
      say({ kind: 'failed', error: failureOf(error) });
    }
  });
}

/** Whoever asked may be gone: then this process ends with the connection. */
const say = (message: FromHelper): void => void process.send?.(message, () => undefined);

class CheckHelper {
  private readonly rules: ProjectRules;
  private readonly tree: Tree;
  private readonly reader: FactsReader | null;
  private readonly isShallow: boolean;
  private checker: Checker | null;
  private unseen: Unseen[] = [];
  private listings: KeptListing[] = [];

  constructor({ where, mounts, input, shallow, request }: Extract<ToHelper, { kind: 'begin' }>) {
    this.rules = new ProjectRules(input);
    this.tree = Tree.open(where, mounts);
    this.isShallow = shallow;
    this.checker = request === undefined ? new Checker(this.rules) : null;
    this.reader =
      request === undefined
        ? null
        : new FactsReader(
            this.tree,
            this.rules,
            { ...request, known: new Map(request.known.map((k) => [k.path, k])) },
            (unseen) => this.unseen.push(unseen),
          );
  }

  work(paths: readonly string[]): FromHelper {
    const queue = [...paths];
    const rest: string[] = [];
    let [folders, files] = [0, 0];
    while (queue.length > 0 && folders < SLICE) {
      const listing = listItems(this.tree, this.rules, present(queue.pop()), (unseen) => this.unseen.push(unseen));
      if (listing === null) continue;
      this.reader?.folder(listing);
      this.checker?.folder(listing);
      if (this.checker !== null) this.listings.push(keptListing(listing));
      folders++;
      files += listing.files.length;
      if (this.reader !== null) continue;
      for (const name of listing.folders) (this.isShallow ? rest : queue).push(join(listing.path, name));
    }
    return { kind: 'idle', files, folders, rest: [...rest, ...queue] };
  }

  take(): FromHelper {
    const { unseen, listings } = this;
    const part = this.checker?.part() ?? null;
    this.unseen = [];
    this.listings = [];
    if (this.checker !== null) this.checker = new Checker(this.rules);
    return { kind: 'part', part, listings, facts: this.reader?.facts ?? [], unseen };
  }
}
