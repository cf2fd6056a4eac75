/** What a check found is stored, with what it saw for whoever plans, compares and checks next. */
import { deepEqual, elementAt } from '@nesting/core';
import type { FolderRow } from '@nesting/core/check';
import { GENERATED } from '@nesting/core/project';
import { targetOf } from '@nesting/core/references';
import type { DiskOutcome, FileFacts, Seen, Unseen } from '@nesting/disk';
import { transaction } from '../../db/client';
import { endCheck, keepMemory, setLastCheck, storeFolders } from '../../db/queries/checks/checks';
import { recount, storeFindings } from '../../db/queries/checks/findings';
import { type ChangedReferences, type Reference, storeListings, storeReferences } from '../../db/queries/checks/kept';
import { Refused, type World } from '../world';
import { packed } from './packed';

interface ToStore {
  readonly id: string;
  readonly runner: string;
  readonly project: string;
  readonly rules: string;
  readonly roots: readonly string[];
  /** What was known of files before it; `null` where nothing of it can be read. */
  readonly known: readonly FileFacts[] | null;
}

/** All in one transaction: findings, folders, listings, references, and what the next quick check needs. */
export async function storeCheck(world: World, to: ToStore, outcome: DiskOutcome): Promise<void> {
  const { id, runner, project, rules } = to;
  if (outcome.rows.length === 0) throw new Refused('root-unreadable', { system: outcome.unseen[0]?.code ?? 'empty' });
  const [part, facts] = [
    await packed({ part: outcome.part, unseen: outcome.unseen } satisfies Seen),
    await packed(outcome.facts),
  ];
  await transaction(world.db, async (client) => {
    const started =
      (await client.query<{ at: Date }>('select started_at at from check_run where id = $1', [id])).rows[0]?.at ??
      new Date();
    // Two that store at once would each solve what the other found.
    await client.query('select 1 from project where id = $1 for update', [project]);
    const changes = await storeFindings(client, project, started, outcome.findings);
    await storeFolders(client, project, outcome.rows);
    await storeListings(client, project, outcome.listings);
    await storeReferences(client, project, changedReferences(to, outcome.facts));
    const { sizes, cleared } = sizesOf(outcome.rows);
    if (!(await endCheck(client, id, runner, outcome, { said: saidOf(outcome.unseen), ...changes, sizes, cleared })))
      throw new Refused('taken-over');
    await setLastCheck(client, project, id);
    await recount(client, project);
    await keepMemory(client, project, rules, part, facts);
  });
}

/** Of documents whose references are others than before, and of those that are there no more. */
function changedReferences({ known, roots }: ToStore, facts: readonly FileFacts[]): ChangedReferences {
  const before = new Map((known ?? []).flatMap(({ path, targets }) => (targets?.length ? [[path, targets]] : [])));
  const references: Reference[] = [];
  for (const { path, targets = [] } of facts) {
    const was = before.get(path);
    if (was !== undefined && deepEqual(was, targets)) before.delete(path);
    else
      for (const written of targets) {
        const meant = targetOf(path, written, roots);
        const target = meant.kind === 'inside' ? meant.path : meant.kind === 'absolute' ? meant.inside : null;
        references.push({ document: path, written, target });
      }
  }
  return { gone: known === null ? null : [...before.keys()], references };
}

/** Bytes by folder below the root and family, and those that programs can make anew. */
function sizesOf(rows: readonly FolderRow[]): {
  readonly sizes: Record<string, Record<string, number>>;
  readonly cleared: number;
} {
  const sizes: Record<string, Record<string, number>> = {};
  let cleared = 0;
  for (const row of rows) {
    const top = elementAt(row.path.split('/', 1), 0);
    const into = sizes[top] ?? {};
    sizes[top] = into;
    for (const [family, bytes] of Object.entries(row.families)) {
      into[family] = (into[family] ?? 0) + bytes;
      if (family === GENERATED) cleared += bytes;
    }
  }
  return { sizes, cleared };
}

/** What a check could not see, said in at most twenty lines. */
function saidOf(unseen: readonly Unseen[]): string[] {
  const lines = unseen.slice(0, 20).map((u) => `Not seen: ${u.path || 'the root'} (${u.code})`);
  return unseen.length > 20 ? [...lines, `…and ${unseen.length - 20} more`] : lines;
}
