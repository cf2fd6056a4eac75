/** Reads files after the walk: hashes of those that may be the same, references, the project's own path. */
import { elementAt } from '@nesting/core';
import { contentWants, type PartialResult, rowsOfSameSize } from '@nesting/core/check';
import { parentOf } from '@nesting/core/listing';
import type { ProjectRules } from '@nesting/core/project';
import { FactsReader } from '../file-facts';
import { listItems } from '../list-items';
import type { Tree } from '../roots/tree';
import type { Unseen } from '../walk';
import { type DiskCheck, SMALL } from './disk-check';
import { type FactsRequest, Helper, type HelperResult, shareOut } from './helpers';

/**
 * `kept` are folders that a quick check did not list again: of their files only those are looked into that may be the
 * same as a newer one.
 */
export async function factsOfFiles(
  at: Reading,
  part: PartialResult,
  kept: ReadonlySet<string> | null,
): Promise<Pick<HelperResult, 'facts' | 'unseen'>> {
  const { roots = [], known = [] } = at.check.contents ?? {};
  const wants = contentWants(part);
  const queue = foldersToRead(part, kept);
  const again = new Set(queue);
  const { facts, unseen } = await gatherFacts(at, queue, { wants, roots, known });
  if (kept === null) return { facts, unseen };
  const stays = known.filter(({ path }) => kept.has(parentOf(path)) && !again.has(parentOf(path)));
  return { facts: [...stays, ...facts].sort((a, b) => (a.path < b.path ? -1 : 1)), unseen };
}

function foldersToRead(part: PartialResult, kept: ReadonlySet<string> | null): string[] {
  const rows = part.rows.map((row) => row.files > 0 && (row.state === 'planned' || row.state === 'free'));
  if (kept === null) return part.rows.flatMap((row, i) => (rows[i] ? [row.path] : []));
  const chosen = new Set<number>();
  const isNew = (i: number) => !kept.has(elementAt(part.rows, i).path);
  for (let i = 0; i < part.rows.length; i++) if (isNew(i)) chosen.add(i);
  for (const alike of rowsOfSameSize(part)) if (alike.some(isNew)) for (const i of alike) chosen.add(i);
  return [...chosen].filter((i) => rows[i]).map((i) => elementAt(part.rows, i).path);
}

export interface Reading {
  readonly check: DiskCheck;
  readonly tree: Tree;
  readonly rules: ProjectRules;
}

async function gatherFacts(
  { check, tree, rules }: Reading,
  queue: string[],
  request: FactsRequest,
): Promise<Pick<HelperResult, 'facts' | 'unseen'>> {
  const script = check.script ?? null;
  const unseen: Unseen[] = [];
  if (script === null || queue.length < SMALL / 10) {
    const reader = new FactsReader(
      tree,
      rules,
      { ...request, known: new Map(request.known.map((k) => [k.path, k])) },
      (u) => unseen.push(u),
    );
    for (const path of queue) {
      if (check.cancel?.aborted) break;
      const listing = listItems(tree, rules, path, () => undefined);
      if (listing !== null) reader.folder(listing);
    }
    return { facts: reader.facts, unseen };
  }
  let [files, folders] = [0, 0];
  const helpers = Array.from(
    { length: (check.helpers ?? 1) + 1 },
    () =>
      new Helper(script, {
        where: check.where,
        mounts: check.mounts ?? [],
        input: check.input,
        shallow: true,
        request,
      }),
  );
  try {
    const parts = await shareOut({
      helpers,
      queue,
      wanted: () => false,
      here: null,
      cancel: check.cancel,
      gatherEvery: Number.POSITIVE_INFINITY,
      gathered: async () => undefined,
      progress: (f, d) => {
        files += f;
        folders += d;
        check.progress?.({ files, folders, stage: 'reading' });
      },
    });
    return {
      facts: parts.flatMap((p) => p.facts).sort((a, b) => (a.path < b.path ? -1 : 1)),
      unseen: parts.flatMap((p) => p.unseen),
    };
  } finally {
    for (const helper of helpers) helper.end();
  }
}
