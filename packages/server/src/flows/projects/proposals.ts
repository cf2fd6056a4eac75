/** A plan that an artist hands in: told to the coordinators by mail, taken or refused with a word, and told back. */
import { randomUUID } from 'node:crypto';
import { type Me, MOST_REPAIRED, type ProposalPage, type ProposalRow, type RepairAsked } from '@nesting/contract';
import { type Client, transaction } from '../../db/client';
import { insertProposal, listProposals, readProposal, settleProposal } from '../../db/queries/batches/proposals';
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

interface Ending {
  readonly state: 'taken' | 'refused';
  readonly word: string;
  readonly batch: string | null;
}

/** Taken, as it was or in part, by a change; or refused. Whoever handed it in is told. */
export async function endProposal(world: World, me: Me, id: string, { state, word, batch }: Ending): Promise<void> {
  const proposal = await readProposal(world.db, id);
  if (proposal === null) throw new Refused('no-proposal');
  await transaction(world.db, async (client) => {
    if (!(await settleProposal(client, id, { state, by: me.id, word, batch }))) throw new Refused('proposal-over');
    const { project, findings, person } = proposal;
    const act = state === 'taken' ? 'proposal-taken' : 'proposal-refused';
    const params = { count: findings, by: proposal.by, word };
    await recordActivity(client, act, me.id, project.id, params, `project:${project.id}`);
    const to = await readPerson(client, person);
    if (to === null || to.state === 'left') return;
    const what = state === 'taken' ? 'carried out' : 'refused';
    const body = [
      `${me.name} ${what} what you proposed for ${project.number} ${project.title}.`,
      ...(word === '' ? [] : ['', word]),
      '',
      `${world.config.publicUrl}/projects/${project.id}${batch === null ? '' : `/batches?batch=${batch}`}`,
    ].join('\n');
    await write(world, client, {
      recipient: to.email,
      subject: `Your proposal for ${project.number} was ${what}`,
      body,
    });
  });
  world.mails.wake();
}
