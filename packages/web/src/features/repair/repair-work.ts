/** What a plan that puts findings right is for its page, wherever it is made and carried out. */
import type { PlanForm, ProposalPage, RepairPlan } from '@nesting/contract';
import { join, nameOf, parentOf } from '@nesting/core/listing';
import type { ReactNode } from 'react';
import { z } from 'zod';
import type { useAddress } from '../../app/use-address';
import type { MentionsWork } from './use-mentions';

export const answersSchema = z.record(
  z.string(),
  z.object({ key: z.string().nullable(), name: z.string().optional(), folder: z.string().optional() }),
);
/** By finding: the way that was taken, or none; another name or folder in place of the proposed one. */
export type Answers = Readonly<z.infer<typeof answersSchema>>;

type Line = RepairPlan['lines'][number];

/** While the plan of a new answer is on its way, the answer stands in the lines of the one before. */
export function answered(line: Line, answers: Answers): Line {
  const answer = answers[line.id];
  const isOtherPlace = answer?.name !== undefined || answer?.folder !== undefined;
  if (answer === undefined || (answer.key === line.chosen && !isOtherPlace)) return line;
  if (answer.key === null) return { ...line, state: 'left', chosen: null, after: null, clash: null, free: null };
  const to = line.options.find((o) => o.key === answer.key)?.to ?? null;
  const after = to === null ? null : join(answer.folder ?? parentOf(to), answer.name ?? nameOf(to));
  return { ...line, state: 'ready', chosen: answer.key, after, clash: null, free: null, fault: null };
}

/** The way that was taken, to another name or folder than it proposes; what was given before stays. */
export function placedAs(line: Line, { name, folder }: { readonly name?: string; readonly folder?: string }) {
  const { chosen: key, after } = line;
  const to = line.options.find((o) => o.key === key)?.to ?? '';
  const [otherName, otherFolder] = [name ?? nameOf(after ?? to), folder ?? parentOf(after ?? to)];
  return {
    key,
    ...(otherName !== nameOf(to) && { name: otherName }),
    ...(otherFolder !== parentOf(to) && { folder: otherFolder }),
  };
}

export interface RepairWork {
  /** What somebody handed in, and is looked at here. */
  readonly proposal: ProposalPage | null;
  readonly params: URLSearchParams;
  readonly put: ReturnType<typeof useAddress>[1];
  readonly plan: RepairPlan | undefined;
  /** What other programs' documents name of it; `null` where nothing moves, or nobody searches. */
  readonly mentions: MentionsWork | null;
  readonly answer: (changes: Answers) => void;
  /** Answers that were given are taken back. */
  readonly forget: (ids: readonly string[]) => void;
  readonly trouble: string | null;
  /** The answers that were given last are not in the plan yet. */
  readonly isPlanning: boolean;
  /** Something is chosen, and nothing stands against it. */
  readonly isReady: boolean;
  /** How far it is, while it is carried out. */
  readonly running: ReactNode | null;
  readonly carryOut: () => Promise<void>;
  /** Lets it begin at an hour; whether that was taken. `null` where it can only begin now. */
  readonly later: ((at: Date) => Promise<boolean>) | null;
  /** Hands it to the coordinators with a word, where it may not be carried out. */
  readonly handIn: (note: string) => Promise<void>;
  /** `null` where the plan cannot be saved as a file. */
  readonly save: ((as: PlanForm) => Promise<void>) | null;
}
