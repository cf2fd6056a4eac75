/** A project's folder is walked and judged by worker threads; what they find is stored in one transaction. */
import { randomUUID } from 'node:crypto';
import type { FindingRow } from '@nesting/contract';
import { type Finding, findingWords } from '@nesting/core';
import { checkOnDisk, type DiskOutcome, inside, type Unseen } from '@nesting/disk';
import { transaction } from '../db/client';
import { failCheck, insertCheck, openCheck, setCheckProgress, storeOutcome, thinOut } from '../db/queries/checks';
import { readProject } from '../db/queries/projects';
import { readRegisters } from '../db/queries/registers';
import { Refused, type World } from './world';

/** Checks whose every finding is kept; older ones keep their counts. */
const KEPT_WHOLE = 5;

/** Queues a check; one that waits or runs already is given instead. */
export async function checkProject(world: World, project: string, person: string | null): Promise<string> {
  const open = await openCheck(world.db, project);
  if (open !== null) return open;
  const id = randomUUID();
  await insertCheck(world.db, id, project, person);
  world.checks.add(id, () => runCheck(world, id, project));
  return id;
}

async function runCheck(world: World, id: string, projectId: string): Promise<void> {
  const { db, config } = world;
  try {
    const project = await readProject(db, projectId);
    if (project === null) return;
    const volume = config.volumes.get(project.volume);
    if (volume === undefined) throw new Refused(404, 'no-volume', `The volume ${project.volume} is not configured any more.`);
    const root = inside(volume, project.folder);
    if (!root.ok) throw new Refused(404, root.faults[0]?.code ?? '', rootWords(root.faults[0]?.code, project.volume, project.folder));
    const registers = await readRegisters(db);
    let last = 0;
    const outcome = await checkOnDisk({
      root: root.value,
      input: { template: project.body, values: project.values, registers, now: Date.now() },
      worker: config.worker,
      progress: ({ files, folders }) => {
        const now = Date.now();
        if (now - last < 300) return;
        last = now;
        void setCheckProgress(db, id, files, folders).catch(() => undefined);
      },
    });
    await store(world, id, projectId, outcome);
  } catch (error) {
    await failCheck(db, id, error instanceof Refused ? error.message : `The check ended early: ${error instanceof Error ? error.message : 'unknown'}.`);
    if (!(error instanceof Refused)) throw error;
  }
}

function rootWords(code: string | undefined, volume: string, folder: string): string {
  switch (code) {
    case 'root-missing':
      return `The volume ${volume} cannot be reached. The findings of the last check still stand.`;
    case 'path-link':
      return `${folder} on ${volume} is a link, and links are not followed.`;
    default:
      return `The folder ${folder} is not on ${volume} any more: it was moved, renamed or removed.`;
  }
}

async function store(world: World, id: string, project: string, outcome: DiskOutcome): Promise<void> {
  if (outcome.rows.length === 0) throw new Refused(404, 'root-unreadable', `The project's folder cannot be read (${outcome.unseen[0]?.code ?? 'empty'}).`);
  await transaction(world.db, async (client) => {
    await storeOutcome(client, id, outcome, outcome.findings.map(rowOf), saidOf(outcome.unseen));
    await thinOut(client, project, KEPT_WHOLE);
  });
}

const rowOf = (finding: Finding): FindingRow => ({ ...finding, message: findingWords(finding) });

/** What a check could not see, said in at most twenty lines. */
function saidOf(unseen: readonly Unseen[]): string[] {
  const lines = unseen.slice(0, 20).map((u) => `Not seen: ${u.path || 'the root'} (${u.code})`);
  return unseen.length > 20 ? [...lines, `…and ${unseen.length - 20} more`] : lines;
}
