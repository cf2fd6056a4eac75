/** One loose file: what it is called, and where it goes under which name. */
import { nameOf } from '@nesting/core/listing';
import { size } from '../../app/words';
import { BeforeAfter } from '../../changes/before-after';
import { type Item, isHindered } from './intake-rows';

const ONE = 28;
const TWO = 46;

const hasPlace = ({ state, to }: Item): boolean => to !== null && (state === 'comes' || state === 'look');

export const heightOf = (item: Item): number => (hasPlace(item) ? TWO : ONE);

export function IntakeLine({ item }: { item: Item }) {
  const { from, to } = item;
  return (
    <>
      <span className="min-w-0 flex-1">
        {hasPlace(item) && to !== null ? (
          <BeforeAfter before={from} after={to} />
        ) : (
          <span
            className={`block truncate font-mono text-sm whitespace-pre ${item.state === 'orphan' ? '' : 'text-note'}`}
          >
            {from}
          </span>
        )}
      </span>
      <span className={`shrink-0 text-xs ${isHindered(item) ? 'font-semibold text-brick' : 'text-ink2'}`}>
        {noteOf(item)}
      </span>
    </>
  );
}

function noteOf(item: Item): string {
  if (item.state === 'comes' && item.clash) return 'place is taken';
  if (item.state === 'comes' && item.fault !== null) return 'cannot be called so';
  if (item.lie !== null) return `is no ${item.lie}`;
  if (item.missing.length > 0) return `lacks ${item.missing.join(', ')}`;
  if (item.same !== null) return `same as ${nameOf(item.same.path)}`;
  if (item.state === 'look') return 'several places fit';
  return `${item.isByHand ? 'by hand · ' : item.card !== null ? 'of a card · ' : ''}${size(item.size)}`;
}
