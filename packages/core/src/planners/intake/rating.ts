/** How surely a loose file, or a card, belongs where it would go. */
import type { Confidence } from '../../name/mend/suggest';
import type { IntakeState, Placed, Same } from './given';
import type { Named } from './naming';
import type { Candidate } from './places';
import type { Recognised } from './recognise';

/** The best one, and others that something speaks for. */
export function fitting(candidates: readonly Candidate[]): readonly string[] {
  return candidates.filter(({ score }, i) => i === 0 || score > 0).map(({ line }) => line.path);
}

/** Two tell a place from the next best one, and how much must speak for it at all. */
const CLEAR = 2;
const ENOUGH = 3;

/** `null` where nothing speaks for any folder. */
export function rated(file: Recognised, candidates: readonly Candidate[], named: Named | null): Confidence | null {
  const [best] = candidates;
  if (best === undefined || file.foreign !== null) return null;
  // A folder is no rival of what lies in it.
  const second = candidates.slice(1).find(({ line }) => !best.line.path.startsWith(`${line.path}/`));
  const margin = best.score - (second?.score ?? Number.NEGATIVE_INFINITY);
  // What speaks for the only folder that takes it need not outweigh anything.
  const isEnough = best.score > 0 || (second === undefined && best.reasons.length > 0);
  if (best.score <= 0 && (second !== undefined || best.reasons.length === 0)) return null;
  // Whether it is a newer one, or the same, or a slip, nobody can tell.
  if (named?.isCountedOn === true) return 'guess';
  const isComplete = named !== null && named.missing.length === 0;
  const isOutright = isComplete && named.derived.length === 0;
  if (margin >= CLEAR && best.score >= ENOUGH && best.isDetermined && !best.isNew && isOutright && file.lie === null)
    return 'sure';
  return margin >= CLEAR / 2 && isComplete && best.isDetermined && isEnough ? 'likely' : 'guess';
}

export function cardRating([best, second]: readonly Candidate[]): Confidence | null {
  if (best === undefined) return null;
  const margin = best.score - (second?.score ?? Number.NEGATIVE_INFINITY);
  if (margin < CLEAR / 2) return 'guess';
  return margin >= CLEAR && best.isDetermined && !best.isNew ? 'sure' : 'likely';
}

export function cardState({ comes }: Placed, confidence: Confidence | null, same: Same | null): IntakeState {
  if (comes === false) return 'left';
  if (same !== null) return 'there';
  if (confidence === null) return 'orphan';
  return comes === true || confidence !== 'guess' ? 'comes' : 'look';
}
