/** What documents of other programs name of that which a plan moves: searched once the plan stands. */
import type { MentionedReply, RepairPlan, RepairRequest } from '@nesting/contract';
import { useState } from 'react';
import { repairApi } from './repair-api';

export interface MentionsWork {
  /** `null` while they are searched. */
  readonly found: MentionedReply | null;
  /** Searches all, however much it is. */
  readonly searchAll: () => void;
}

/** @param plan - `null` while another one is made */
export function useMentions(id: string, asked: RepairRequest, plan: RepairPlan | null): MentionsWork | null {
  const [isAll, setAll] = useState(false);
  const isMoving = plan !== null && plan.entries > 0;
  const { currentData, isError } = repairApi.useRepairMentionsQuery(
    { id, asked: { ...asked, now: plan?.now ?? null }, isAll },
    { skip: !isMoving },
  );
  if (!isMoving || isError) return null;
  return { found: currentData ?? null, searchAll: () => setAll(true) };
}
