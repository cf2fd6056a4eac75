/** Projects that grow and change, and what was done to them. */
import { randomUUID } from 'node:crypto';
import { BATCH_ENDPOINTS, type BatchAnswer } from '@nesting/contract';
import { dropLater, listLater } from '../../db/queries/batches/later-repairs';
import { findFormerNames, renamedOf } from '../../db/queries/projects/former-names';
import { readProjectRow } from '../../db/queries/projects/projects';
import { keepReshapeDraft, readReshapeDraft } from '../../db/queries/projects/reshape-drafts';
import { askBatch, settleBatch, stopBatch } from '../../flows/batches/ask-batch';
import { found, listBatches, printBatch, readBatchPage } from '../../flows/batches/batch-page';
import { freeSetAside, listSetAside } from '../../flows/batches/set-aside';
import { repairLater } from '../../flows/projects/later-repair';
import { proposalFor, proposalsFor, propose, refuseProposal, requireOpen } from '../../flows/projects/proposals';
import { mentionsIn, planRepair, printRepair } from '../../flows/projects/repair-project';
import { planReshape, printReshape } from '../../flows/projects/reshape-project';
import { Refused } from '../../flows/world';
import { routesOf } from '../handlers';

/** Accepted where it still goes on. */
const answered = <Done extends number>(done: Done, json: BatchAnswer): { status: Done | 202; json: BatchAnswer } => ({
  status: json.isDone ? done : 202,
  json,
});

export const BATCHES = routesOf(BATCH_ENDPOINTS, {
  planReshape: ({ world, me, params, body }) => planReshape(world, me, params.id, body),
  writePlan: ({ world, me, params, query, body }) => printReshape(world, me, params.id, body, query.as),
  applyReshape: async ({ world, me, params, body: { key, fingerprint, ...asked }, wait }) => {
    const to = { id: key ?? randomUUID(), project: params.id, what: 'change', undoes: null };
    return answered(201, await askBatch(world, me, { ...to, asked: { kind: 'reshape', asked, fingerprint } }, wait));
  },
  planRepair: ({ world, me, params, body }) => planRepair(world, me, params.id, body),
  lookForMentions: ({ world, me, params, body }) => mentionsIn(world, me, params.id, body),
  writeRepair: ({ world, me, params, query, body }) => printRepair(world, me, params.id, body, query.as),
  applyRepair: async ({ world, me, params, body: { key, fingerprint, proposal, ...asked }, wait }) => {
    const to = { id: key ?? randomUUID(), project: params.id, what: 'repair', undoes: null };
    if (proposal !== undefined) await requireOpen(world, me, proposal, to);
    const request = { kind: 'repair' as const, asked, fingerprint, ...(proposal !== undefined && { proposal }) };
    return answered(201, await askBatch(world, me, { ...to, asked: request }, wait));
  },
  repairLater: async ({ world, me, params, body: { fingerprint, beginsAt, ...asked } }) => ({
    id: await repairLater(world, me, params.id, { asked, fingerprint, beginsAt }),
  }),
  listLaterRepairs: ({ world, params }) => listLater(world.db, params.id),
  dropLaterRepair: async ({ world, me, params: { id, later } }) => {
    if (!(await dropLater(world.db, id, later, me.role === 'artist' ? me.id : null)))
      throw new Refused('no-later-repair');
  },
  propose: async ({ world, me, params, body }) => ({ id: await propose(world, me, params.id, body) }),
  listProposals: ({ world, me }) => proposalsFor(world, me),
  readProposal: ({ world, me, params }) => proposalFor(world, me, params.id),
  refuseProposal: ({ world, me, params, body }) => refuseProposal(world, me, params.id, body.word),
  listBatches: ({ world, params }) => listBatches(world, params.id),
  writeBatch: ({ world, params, query }) => printBatch(world, params.id, params.batch, query.as),
  readBatch: ({ world, params }) => readBatchPage(world, params.id, params.batch),
  undoBatch: async ({ world, me, params: { id: project, batch }, body: { ids, key }, wait }) => {
    await found(world, project, batch);
    const to = { id: key ?? randomUUID(), project, what: 'undo', undoes: batch };
    return answered(201, await askBatch(world, me, { ...to, asked: { kind: 'undo', batch, ids } }, wait));
  },
  settleBatch: async ({ world, me, params: { id: project, batch }, body: { way }, wait }) =>
    answered(200, await settleBatch(world, me, { project, id: batch, way, wait })),
  stopBatch: async ({ world, params: { id: project, batch } }) => {
    await found(world, project, batch);
    return { stopped: await stopBatch(world, project, batch) };
  },
  findFormerNames: ({ world, query }) => findFormerNames(world.db, query.find),
  myFormerNames: ({ world, me }) => renamedOf(world.db, me),
  listSetAside: ({ world }) => listSetAside(world),
  freeSetAside: ({ world, me, params, body }) => freeSetAside(world, me.id, params, body.number),
  readReshapeDraft: ({ world, me, params }) => readReshapeDraft(world.db, params.id, me.id),
  keepReshapeDraft: async ({ world, me, params, body }) => {
    if ((await readProjectRow(world.db, params.id)) === null) throw new Refused('no-project');
    await keepReshapeDraft(world.db, params.id, me.id, body);
  },
});
