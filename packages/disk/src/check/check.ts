/**
 * Checks a project on this machine's disk: the walk, what only the whole can tell, then what stands in files, where that
 * is asked for.
 */

import { Recent } from '@nesting/core';
import { judgeWhole, type PartialResult, withContents } from '@nesting/core/check';
import { ProjectRules } from '@nesting/core/project';
import { contentFactsOf } from '../file-facts';
import { listItems } from '../list-items';
import { inTree, type Tree } from '../roots/tree';
import { listFolder, type Unseen } from '../walk';
import { withMedia } from './agreed-media';
import { type DiskCheck, type DiskOutcome, type Gathered, NO_FOLDER, startHelpers } from './disk-check';
import type { Helper } from './helpers';
import { type KeptListing, keptListing } from './kept-listing';
import { type Unchanged, unchangedSince } from './quick';
import { factsOfFiles, type Reading } from './read-files';
import { type Walked, walkAll } from './walk-all';

/** @throws Unreachable where the project's folder cannot be opened */
export async function checkOnDisk(check: DiskCheck): Promise<DiskOutcome> {
  // Before anything else: helpers compile the rules while this process does.
  const script = check.script ?? null;
  const helpers = script === null || check.since !== undefined ? [] : startHelpers(check, script, false);
  try {
    return await inTree(check.where, check.mounts ?? [], (tree) => checkWith(check, tree, helpers));
  } finally {
    for (const helper of helpers) helper.end();
  }
}

async function checkWith(check: DiskCheck, tree: Tree, helpers: readonly Helper[]): Promise<DiskOutcome> {
  const rules = rulesOf(check);
  const before = check.since === undefined ? null : await unchangedSince(tree, check.since);
  const kept = before === null ? null : new Set(before.kept.rows.map((row) => row.path));
  const walked = await walkAll({ check, tree, rules, helpers }, startOf(check, before), knownFolders(kept, before));
  const listAgain = (path: string) => listItems(tree, rules, path, () => undefined);
  const unread = walked.unseen.filter((u) => !NO_FOLDER.has(u.code)).map((u) => u.path);
  const outcome = judgeWhole(rules, walked.part, listAgain, unread);
  const read =
    check.contents === undefined || check.cancel?.aborted || walked.part.rows.length === 0
      ? null
      : await readFiles({ check, tree, rules }, walked.part, kept);
  // Stopped while it read files: what was walked need not be walked again.
  if (read !== null && check.cancel?.aborted)
    await check.gathered?.keep({ part: walked.part, queue: [], unseen: walked.unseen });
  const contents = read && {
    facts: contentFactsOf(read.facts),
    roots: check.contents?.roots ?? [],
    namesIn: namesOnDisk(tree),
  };
  return {
    ...(contents === null ? outcome : withContents(rules, outcome, contents)),
    unseen: eachOnce([...walked.unseen, ...(read?.unseen ?? [])]),
    cancelled: check.cancel?.aborted ?? false,
    part: walked.part,
    listings: check.from === undefined ? walked.listings : listedAgain(tree, rules, walked),
    facts: read?.facts ?? [],
    relisted: kept === null ? null : walked.part.rows.length - kept.size,
  };
}

/** What stands in files, and what those tell that the setup sheet has something to say of. */
async function readFiles(at: Reading, part: PartialResult, kept: ReadonlySet<string> | null) {
  const { facts, unseen } = await factsOfFiles(at, part, kept);
  const { tree, rules, check } = at;
  const told = await withMedia(
    { tree, rules, known: check.contents?.known ?? [], cancel: check.cancel, beside: check.script ?? null },
    facts,
  );
  return { facts: told.facts, unseen: [...unseen, ...told.unseen] };
}

/** What is gathered on the way holds no listings: those of folders that an earlier walk saw are made anew. */
function listedAgain(tree: Tree, rules: ProjectRules, { part, listings }: Walked): KeptListing[] {
  const known = new Set(listings.map(({ path }) => path));
  const again = part.rows.flatMap(({ path }) => {
    const listing = known.has(path) ? null : listItems(tree, rules, path, () => undefined);
    return listing === null ? [] : [keptListing(listing)];
  });
  return [...listings, ...again];
}

/** Where the walk begins: where an earlier one was left, with what changed since a check, or at the root. */
function startOf(check: DiskCheck, before: Unchanged | null): Gathered | null {
  if (check.from !== undefined) return check.from;
  return before === null ? null : { part: before.kept, queue: before.changed, unseen: before.unseen };
}

/** Folders a quick check knows already: of what the walk finds only the others are new. */
const knownFolders = (kept: ReadonlySet<string> | null, before: Unchanged | null): ReadonlySet<string> | null =>
  kept === null || before === null ? null : new Set([...kept, ...before.changed]);

const eachOnce = (unseen: readonly Unseen[]): Unseen[] =>
  [...new Map(unseen.map((u) => [`${u.path} ${u.code}`, u])).values()].sort((a, b) => (a.path < b.path ? -1 : 1));

/** Compiled rules of the last few projects: one whose page is open is checked every few seconds by the same rules. */
const compiledRules = new Recent<ProjectRules>(4);

function rulesOf({ input, fingerprint }: DiskCheck): ProjectRules {
  if (fingerprint === undefined) return new ProjectRules(input);
  const known = compiledRules.get(fingerprint) ?? new ProjectRules(input);
  compiledRules.set(fingerprint, known);
  return known.at(input.now);
}

/** Names in a folder, each folder listed once. */
function namesOnDisk(tree: Tree): (folder: string) => ReadonlySet<string> | null {
  const known = new Map<string, ReadonlySet<string> | null>();
  return (folder) => {
    const before = known.get(folder);
    if (before !== undefined) return before;
    const listing = listFolder(tree, folder, () => undefined);
    const names =
      listing === null ? null : new Set([...listing.files.map((f) => f.name), ...listing.folders, ...listing.others]);
    known.set(folder, names);
    return names;
  };
}
