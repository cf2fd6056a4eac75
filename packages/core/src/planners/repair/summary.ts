/** A plan as it is told to whoever asked: the lines that are shown, and what all of them come to. */
import type { Change } from '../../change/change';
import type { OrderFault } from '../../change/fault';
import { orderChanges } from '../../change/order';
import type { ByHand, RewrittenDocument } from './documents';
import type { Repair, RepairLine, RepairState } from './repair';

export interface RepairSummary {
  readonly lines: readonly RepairLine[];
  readonly all: number;
  readonly counts: Readonly<Partial<Record<RepairState, number>>>;
  readonly documents: readonly RewrittenDocument[];
  readonly byHand: readonly ByHand[];
  readonly orderFaults: readonly OrderFault[];
  /** Entries that change, and bytes of the files among them. */
  readonly entries: number;
  readonly bytes: number;
}

/** Documents and references of a kind that are told. */
const MOST_TOLD = 500;
const MOST_FAULTS = 20;

export function summaryOf({ lines, changes, documents, byHand }: Repair, mostLines: number): RepairSummary {
  const counts: Partial<Record<RepairState, number>> = {};
  for (const { state } of lines) counts[state] = (counts[state] ?? 0) + 1;
  return {
    lines: lines.slice(0, mostLines),
    all: lines.length,
    counts,
    documents: documents.slice(0, MOST_TOLD),
    byHand: byHand.slice(0, MOST_TOLD),
    orderFaults: orderChanges(changes).faults.slice(0, MOST_FAULTS),
    entries: changes.length,
    bytes: changes.reduce((sum, { expects }) => sum + (expects?.size ?? 0), 0),
  };
}

/** Findings that would write a starter file: where the house's files are not at hand they are left. */
export const writingStarters = (changes: readonly Change[]): ReadonlySet<string> =>
  new Set(
    changes.flatMap(({ subject, content }) =>
      content?.kind === 'starter' && subject.kind === 'finding' ? [subject.finding] : [],
    ),
  );
