/** A plan of an intake as it is told to whoever asked: the lines that are shown, and what all of them come to. */
import type { OrderFault } from '../../change/fault';
import { orderChanges } from '../../change/order';
import type { FamilyTotal } from '../carry-over/summary';
import { familiesOf } from '../carry-over/summary';
import { type Intake, type IntakeItem, type IntakeState, isTaken } from './given';

export interface IntakeSummary extends Pick<Intake, 'cards' | 'shift' | 'entries'> {
  /** What somebody has to look at comes first. */
  readonly items: readonly IntakeItem[];
  readonly all: number;
  readonly pairs: Intake['pairs'];
  readonly counts: Readonly<Record<IntakeState, number>>;
  /** Of what is copied. */
  readonly files: number;
  readonly bytes: number;
  /** Files that were to come and cannot. */
  readonly hindered: number;
  readonly families: readonly FamilyTotal[];
  readonly orderFaults: readonly OrderFault[];
}

const MOST_FAULTS = 20;
const ORDER: readonly IntakeState[] = ['orphan', 'look', 'comes', 'left', 'twice', 'there', 'system'];

export function intakeSummary(planned: Intake, mostLines: number): IntakeSummary {
  const { items, cards, shift, entries, pairs, changes } = planned;
  const counts = { comes: 0, look: 0, orphan: 0, there: 0, twice: 0, left: 0, system: 0 };
  for (const { state } of items) counts[state] += 1;
  const taken = items.filter(isTaken);
  const inOrder = [...items].sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state));
  return {
    ...{ cards, shift, entries, counts },
    items: inOrder.slice(0, mostLines),
    all: items.length,
    pairs: pairs.slice(0, mostLines),
    files: taken.length,
    bytes: taken.reduce((sum, { size }) => sum + size, 0),
    hindered: items.filter((item) => item.state === 'comes' && !isTaken(item)).length,
    families: familiesOf(taken),
    orderFaults: orderChanges(changes).faults.slice(0, MOST_FAULTS),
  };
}
