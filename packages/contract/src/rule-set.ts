/** Rules on their way into an installation: what is new there, the same, or otherwise. */
import { z } from 'zod';

const RULE_KINDS = ['template', 'convention', 'block', 'list'] as const;
export type RuleKind = (typeof RULE_KINDS)[number];

export interface RuleSetRow {
  readonly kind: RuleKind;
  readonly id: string;
  readonly name: string;
  readonly state: 'new' | 'same' | 'differs';
  /** What is otherwise, in words; of a new thing, what it is. */
  readonly words: readonly string[];
  /** What can be done with it, the proposal first. */
  readonly acts: readonly RuleAct[];
}

/**
 * `take`: new things come in force, others become a draft of the next edition; `beside`: as a thing of its own;
 * `leave`: ours stays.
 */
const RULE_ACTS = ['take', 'beside', 'leave'] as const;
export type RuleAct = (typeof RULE_ACTS)[number];

export const ruleChoicesSchema = z.record(z.string().max(300), z.enum(RULE_ACTS));
export type RuleChoices = z.infer<typeof ruleChoicesSchema>;
export const ruleKeyOf = (row: { readonly kind: RuleKind; readonly id: string }): string => `${row.kind}:${row.id}`;

/** What became of each thing that was taken. */
export interface RulesTaken {
  readonly taken: readonly {
    readonly kind: RuleKind;
    readonly id: string;
    readonly as: 'in-force' | 'draft' | 'added';
  }[];
}
