/** Plans that somebody who may not carry them out hands to a coordinator. Times are ISO 8601. */
import { z } from 'zod';
import { repairSchema } from './repair';
import { amount, moment, record, uuid } from './reply';

const PROPOSAL_STATES = ['open', 'taken', 'refused'] as const;

export const proposeSchema = z.object({
  asked: repairSchema,
  note: z.string().trim().max(2000).default(''),
});
/** A proposal is taken by carrying out its plan; a word is said where it is refused. */
export const refuseProposalSchema = z.object({ word: z.string().trim().min(1).max(2000) });

const shape = {
  id: uuid,
  project: record({ id: uuid, number: z.string(), title: z.string() }),
  by: z.string(),
  /** Whoever handed it in, by id. */
  person: z.string(),
  findings: amount,
  note: z.string(),
  state: z.enum(PROPOSAL_STATES),
  settledBy: z.string(),
  word: z.string(),
  /** The change that carried it out. */
  batch: uuid.nullable(),
  at: moment,
  settledAt: moment.nullable(),
};
export const proposalRowSchema = record(shape);
export type ProposalRow = z.infer<typeof proposalRowSchema>;

export const proposalPageSchema = record({ ...shape, asked: repairSchema });
export type ProposalPage = z.infer<typeof proposalPageSchema>;
