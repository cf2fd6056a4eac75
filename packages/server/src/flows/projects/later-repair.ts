/**
 * A plan that was shown begins at an hour, when nobody is at the files. Then it is planned again: what would come to be
 * elsewhere than it was shown stays, and what waited until it is quiet is put right where that is sure.
 */
import { randomUUID } from 'node:crypto';
import type { Me, RepairAsked } from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import type { RepairLine } from '@nesting/core/planners';
import { DiskError } from '@nesting/disk';
import { transaction } from '../../db/client';
import { readBatchRow } from '../../db/queries/batches/batches';
import { type DueLater, endLater, insertLater, type Shown, takeDueLater } from '../../db/queries/batches/later-repairs';
import { readPerson } from '../../db/queries/people/access';
import { readProject } from '../../db/queries/projects/projects';
import { askBatch } from '../batches/ask-batch';
import { mailsGoOut } from '../people/access';
import { diskRefusal } from '../place';
import { Refused, type World } from '../world';
import { planLines } from './repair-project';

interface Given {
  readonly asked: RepairAsked;
  readonly fingerprint: string;
  /** ISO 8601. */
  readonly beginsAt: string;
}

export async function repairLater(world: World, me: Me, project: string, given: Given): Promise<string> {
  const { asked, fingerprint, beginsAt } = given;
  if (Date.parse(beginsAt) <= Date.now()) throw new Refused('hour-past');
  const planned = await planLines(world, me, project, asked);
  if (planned.fingerprint !== fingerprint) throw new Refused('disk-changed');
  const meant = planned.lines.filter(({ state }) => state === 'ready' || state === 'held');
  if (meant.length === 0) throw new Refused('nothing-to-repair');
  const id = randomUUID();
  await insertLater(world.db, {
    id,
    project,
    person: me.id,
    asked: { ...asked, ids: meant.map((l) => l.id), rule: null, folder: null, person: null, now: null },
    shown: Object.fromEntries(meant.map((l) => [l.id, l.state === 'ready' ? l.after : null])),
    beginsAt,
  });
  return id;
}

/** Whatever is due, one after another. */
export async function beginDueRepairs(world: World): Promise<void> {
  for (let due = await takeDueLater(world.db); due !== null; due = await takeDueLater(world.db)) {
    const said = await begin(world, due).catch((error: unknown) => {
      const refused = error instanceof DiskError ? diskRefusal(error) : error;
      if (refused instanceof Refused) return refused.message;
      throw error;
    });
    await tell(world, due, said);
  }
}

/** What came of it, in words. */
async function begin(world: World, { id, project, person, asked, shown }: DueLater): Promise<string> {
  const me = await readPerson(world.db, person);
  if (me === null || me.state === 'left' || me.role === 'lead')
    return 'Nothing was changed: whoever asked for it may not do it any more.';
  // A crash came between its change and the word on it.
  const before = await readBatchRow(world.db, project, id);
  if (before !== null && before.state !== 'refused')
    return 'It had begun when the server was renewed: look at its change.';
  const first = await planLines(world, me, project, asked);
  const other = first.lines.filter((line) => isOtherwise(line, shown));
  const meant = {
    ...asked,
    answers: { ...asked.answers, ...Object.fromEntries(other.map((l) => [l.id, { key: null }])) },
  };
  const { lines, fingerprint, now } = other.length === 0 ? first : await planLines(world, me, project, meant);
  const ready = lines.filter(({ state }) => state === 'ready').length;
  if (ready === 0) return 'Nothing was changed: nothing is as it was shown any more.';
  const request = { kind: 'repair' as const, asked: { ...meant, now }, fingerprint };
  const { isDone } = await askBatch(world, me, { id, project, what: 'repair', undoes: null, asked: request }, LONG);
  const left = Object.keys(shown).length - ready;
  const words = isDone ? `Findings put right: ${ready}.` : `Findings that are being put right: ${ready}.`;
  return `${words}${left === 0 ? '' : ` Left: ${left}, which are otherwise than they were shown, or not quiet.`}`;
}

/** Milliseconds that its end is waited for; it goes on without. */
const LONG = 60_000;

const isOtherwise = ({ id, state, after }: RepairLine, shown: Shown): boolean => {
  const was = shown[id];
  return state === 'ready' && was !== null && was !== undefined && after !== was;
};

async function tell(world: World, { id, project, person }: DueLater, said: string): Promise<void> {
  const row = await readProject(world.db, project);
  const to = await readPerson(world.db, person);
  await transaction(world.db, async (client) => {
    await endLater(client, id, said);
    if (row === null || to === null || to.state === 'left' || !mailsGoOut(world)) return;
    await world.mails.write(client, {
      recipient: to.email,
      subject: `Put right: ${row.number} ${row.title}`,
      body: [
        `What was to begin by now in ${row.number} ${row.title || nameOf(row.folder)}:`,
        said,
        '',
        `${world.config.publicUrl}/projects/${project}/batches`,
      ].join('\n'),
    });
  });
  world.mails.wake();
}
