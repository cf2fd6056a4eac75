/** Rules on their way into an installation: what is new there, the same, or otherwise. */
import { z } from 'zod';
import { list, record } from './reply';

const RULE_KINDS = ['template', 'convention', 'block', 'list'] as const;
export type RuleKind = (typeof RULE_KINDS)[number];

/**
 * `take`: new things come in force, others become a draft of the next edition; `beside`: as a thing of its own;
 * `leave`: ours stays.
 */
const RULE_ACTS = ['take', 'beside', 'leave'] as const;
export type RuleAct = (typeof RULE_ACTS)[number];

export const ruleSetRowSchema = record({
  kind: z.enum(RULE_KINDS),
  id: z.string(),
  name: z.string(),
  state: z.enum(['new', 'same', 'differs']),
  /** What is otherwise, in words; of a new thing, what it is. */
  words: list(z.string()),
  /** What can be done with it, the proposal first. */
  acts: list(z.enum(RULE_ACTS)),
});
export type RuleSetRow = z.infer<typeof ruleSetRowSchema>;

export const ruleChoicesSchema = z.record(z.string().max(300), z.enum(RULE_ACTS));
export type RuleChoices = z.infer<typeof ruleChoicesSchema>;
export const ruleKeyOf = (row: { readonly kind: RuleKind; readonly id: string }): string => `${row.kind}:${row.id}`;

/** What became of each thing that was taken. */
export const rulesTakenSchema = record({
  taken: list(record({ kind: z.enum(RULE_KINDS), id: z.string(), as: z.enum(['in-force', 'draft', 'added']) })),
});
export type RulesTaken = z.infer<typeof rulesTakenSchema>;
