import type { FindingCounts } from '@nesting/contract';
import { WEIGHTS } from '@nesting/core/template';
import { count } from '../../app/words';
import { WeightSign } from '../../ui/signs';

/** Findings by weight; none at all is said in a word. */
export function Counts({ counts }: { counts: FindingCounts }) {
  const some = WEIGHTS.filter((w) => counts[w] > 0);
  if (some.length === 0) return <span className="text-bottle">in order</span>;
  return (
    <span className="flex gap-3">
      {some.map((weight) => (
        <span key={weight} className="flex items-center gap-1.5 tabular-nums">
          <WeightSign weight={weight} /> {count(counts[weight])}
        </span>
      ))}
    </span>
  );
}
