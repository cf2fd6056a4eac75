/** One file of a plan that carries a project over: what it is called, and what it will be called. */
import { nameOf } from '@nesting/core/listing';
import type { NamedBy } from '@nesting/core/planners';
import { many, size } from '../../app/words';
import { BeforeAfter } from '../../changes/before-after';
import { type Item, isHindered } from './carry-rows';

const ONE = 28;
const TWO = 46;

export const BY_WORDS: Readonly<Record<NamedBy, string>> = {
  meaning: 'by its meaning',
  words: 'word by word',
  same: 'its name stays',
  hand: 'by hand',
};

const isOther = ({ comes, from, to }: Item): boolean => comes && from !== to;

export const heightOf = (item: Item): number => (isOther(item) ? TWO : ONE);

export function CarryLine({ item }: { item: Item }) {
  return (
    <>
      <span className="min-w-0 flex-1">
        {isOther(item) ? (
          <BeforeAfter before={item.from} after={item.to} />
        ) : (
          <span className={`block truncate font-mono text-sm whitespace-pre ${item.comes ? '' : 'text-note'}`}>
            {nameOf(item.from)}
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
  if (!item.comes) return item.frames > 1 ? `${many(item.frames, 'frame')} · stays behind` : 'stays behind';
  if (item.clash) return 'place is taken';
  if (item.fault !== null) return 'cannot be called so';
  const frames = item.frames > 1 ? `${many(item.frames, 'frame')} · ` : '';
  return `${frames}${item.by === 'same' ? '' : `${BY_WORDS[item.by]} · `}${size(item.size)}`;
}
