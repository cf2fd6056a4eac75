/** One row of a comparison: what it is called on both sides, and what became of it. */
import { nameOf } from '@nesting/core/listing';
import { many } from '../../app/words';
import { BeforeAfter } from '../../changes/before-after';
import type { Row } from './compare-api';
import { isTwoNames, pathOf } from './compare-rows';

const ONE = 28;
const TWO = 46;

export const heightOf = (row: Row): number => (isTwoNames(row) ? TWO : ONE);

interface Props {
  readonly row: Row;
  /** What the two sides are called. */
  readonly sides: { readonly left: string; readonly right: string };
}

export function CompareLine({ row, sides }: Props) {
  const { left, right } = row;
  const frames = (right ?? left)?.frames ?? 1;
  return (
    <>
      <StateSign state={row.state} />
      <span className="min-w-0 flex-1">
        {isTwoNames(row) ? (
          <BeforeAfter before={left?.path ?? ''} after={right?.path ?? ''} />
        ) : (
          <span className="block truncate font-mono text-sm whitespace-pre">{nameOf(pathOf(row))}</span>
        )}
      </span>
      <span className="shrink-0 text-xs text-ink2">
        {frames > 1 ? `${many(frames, 'frame')} · ` : ''}
        {stateWords(row, sides)}
      </span>
    </>
  );
}

export function stateWords({ state, isUnread }: Row, { left, right }: Props['sides']): string {
  switch (state) {
    case 'same':
      return 'the same';
    case 'renamed':
      return 'renamed';
    case 'changed':
      return isUnread ? 'as large, not read' : 'changed';
    case 'only-left':
      return `only in ${left}`;
    case 'only-right':
      return `only in ${right}`;
  }
}

/** Two sheets: both filled, one filled, or one behind the other where their names differ. */
function StateSign({ state }: Pick<Row, 'state'>) {
  const [left, right] = [state !== 'only-right', state !== 'only-left'];
  const dye = state === 'changed' ? 'var(--ochre)' : state === 'renamed' ? 'var(--plum)' : 'var(--ink2)';
  return (
    <svg width="18" height="12" viewBox="0 0 18 12" aria-hidden className="shrink-0">
      <rect
        x="0.75"
        y="0.75"
        width="7"
        height="10.5"
        rx="1.5"
        fill={left ? dye : 'none'}
        stroke={dye}
        strokeDasharray={left ? undefined : '2 1.5'}
      />
      <rect
        x="10.25"
        y="0.75"
        width="7"
        height="10.5"
        rx="1.5"
        fill={right && state !== 'changed' ? dye : 'none'}
        stroke={dye}
        strokeDasharray={right ? undefined : '2 1.5'}
      />
      {state === 'changed' && <rect x="12.5" y="3.5" width="2.5" height="5" fill={dye} />}
      {state === 'renamed' && <rect x="7.75" y="5.25" width="2.5" height="1.5" fill={dye} />}
    </svg>
  );
}
