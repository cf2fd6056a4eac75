/** A plan that an artist hands in: told to the coordinators by mail, taken or refused with a word, and told back. */
import { randomUUID } from 'node:crypto';
import { type Me, MOST_REPAIRED, type ProposalPage, type ProposalRow, type RepairAsked } from '@nesting/contract';
import { type Client, transaction } from '../../db/client';
import {
  insertProposal,
  listProposals,
  readProposal,
  type Settled,
  settleProposal,
} from '../../db/queries/batches/proposals';
import { findingsToRepair } from '../../db/queries/checks/findings';
import { recordActivity } from '../../db/queries/house/activity';
import { listPeople, readPerson } from '../../db/queries/people/access';
import { readProject } from '../../db/queries/projects/projects';
import { mailsGoOut } from '../people/access';
import { Refused, type World } from '../world';

interface Given {
  readonly asked: RepairAsked;
  readonly note: string;
}

export async function propose(world: World, me: Me, project: string, { asked, note }: Given): Promise<string> {
  const row = await readProject(world.db, project);
  if (row === null) throw new Refused('no-project');
  const chosen = await findingsToRepair(world.db, project, { ...asked, most: MOST_REPAIRED });
  if (chosen.length === 0) throw new Refused('nothing-to-repair');
  const id = randomUUID();
  await transaction(world.db, async (client) => {
    // What was chosen by where it lies may be others tomorrow: these are meant.
    const meant = { ...asked, ids: chosen.map((f) => f.id), rule: null, folder: null, person: null, now: null };
    await insertProposal(client, { id, project, person: me.id, asked: meant, findings: chosen.length, note });
    const params = { count: chosen.length, note };
    await recordActivity(client, 'repair-proposed', me.id, project, params, `project:${project}`);
    const to = (await listPeople(client)).filter((p) => p.role === 'coordinator' && p.state === 'active');
    const body = [
      `${me.name} proposes how ${chosen.length} findings in ${row.number} ${row.title} are put right.`,
      ...(note === '' ? [] : ['', note]),
      '',
      `${world.config.publicUrl}/projects/${project}/repair?proposal=${id}`,
    ].join('\n');
    for (const { email } of to)
      await write(world, client, { recipient: email, subject: `Proposed: ${row.number} ${row.title}`, body });
  });
  world.mails.wake();
  return id;
}

async function write(
  world: World,
  client: Client,
  mail: { recipient: string; subject: string; body: string },
): Promise<void> {
  if (mailsGoOut(world)) await world.mails.write(client, mail);
}

/** All of them for coordinators and leads; an artist's own. */
export const proposalsFor = (world: World, me: Me): Promise<ProposalRow[]> =>
  listProposals(world.db, me.role === 'artist' ? me.id : null);

export async function proposalFor(world: World, me: Me, id: string): Promise<ProposalPage> {
  const proposal = await readProposal(world.db, id);
  if (proposal === null || (me.role === 'artist' && proposal.person !== me.id)) throw new Refused('no-proposal');
  return proposal;
}

/** What a change is to carry out: of its own project, and waiting still. The same request asked again is no second one. */
export async function requireOpen(
  world: World,
  me: Me,
  id: string,
  { id: batch, project }: { readonly id: string; readonly project: string },
): Promise<void> {
  const proposal = await proposalFor(world, me, id);
  if (proposal.project.id !== project) throw new Refused('no-proposal');
  if (proposal.state !== 'open' && proposal.batch !== batch) throw new Refused('proposal-over');
}

export async function refuseProposal(world: World, me: Me, id: string, word: string): Promise<void> {
  const proposal = await readProposal(world.db, id);
  if (proposal === null) throw new Refused('no-proposal');
  const isOpen = await transaction(world.db, (client) =>
    end(world, client, proposal, { state: 'refused', by: me.id, word, batch: null }),
  );
  if (!isOpen) throw new Refused('proposal-over');
  world.mails.wake();
}

/** Carried out, as it was or in part: in the transaction that ends the change. One that was settled meanwhile stays so. */
export async function takeProposal(
  world: World,
  client: Client,
  id: string,
  { batch, by }: { readonly batch: string; readonly by: string | null },
): Promise<void> {
  const proposal = await readProposal(client, id);
  if (proposal !== null) await end(world, client, proposal, { state: 'taken', by, word: '', batch });
}

const ENDED = { taken: 'carried out', refused: 'refused' } as const;

/** Whether it was open still. Whoever handed it in is told. */
async function end(world: World, client: Client, proposal: ProposalPage, settled: Settled): Promise<boolean> {
  const { id, project, findings, person, by } = proposal;
  const { state, word, batch } = settled;
  if (!(await settleProposal(client, id, settled))) return false;
  const act = state === 'taken' ? 'proposal-taken' : 'proposal-refused';
  await recordActivity(client, act, settled.by, project.id, { count: findings, by, word }, `project:${project.id}`);
  const to = await readPerson(client, person);
  if (to === null || to.state === 'left') return true;
  const who = settled.by === null ? null : await readPerson(client, settled.by);
  const subject = `Your proposal for ${project.number} was ${ENDED[state]}`;
  const body = [
    `${who?.name ?? 'Somebody'} ${ENDED[state]} what you proposed for ${project.number} ${project.title}.`,
    ...(word === '' ? [] : ['', word]),
    '',
    `${world.config.publicUrl}/projects/${project.id}${batch === null ? '' : `/batches?batch=${batch}`}`,
  ].join('\n');
  await write(world, client, { recipient: to.email, subject, body });
  return true;
}
