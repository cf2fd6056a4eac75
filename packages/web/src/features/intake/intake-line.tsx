/** One loose file: what it is called, and where it goes under which name. */
import { nameOf } from '@nesting/core/listing';
import { many, size } from '../../app/words';
import { BeforeAfter } from '../../changes/before-after';
import { isHindered, type Row } from './intake-rows';
import type { IntakeWork } from './intake-work';
import { Thumbnail } from './thumbnail';

const ONE = 28;
const TWO = 46;

const hasPlace = ({ item: { state }, to }: Row): boolean => to !== null && (state === 'comes' || state === 'look');

export const heightOf = (row: Row): number => (hasPlace(row) ? TWO : ONE);

interface Props {
  readonly work: IntakeWork;
  readonly row: Row;
  /** Some of the heap are: there is room for one in each line. */
  readonly hasPictures: boolean;
}

export function IntakeLine({ work, row, hasPictures }: Props) {
  const { item, from, to } = row;
  return (
    <>
      <span className="min-w-0 flex-1">
        {hasPlace(row) && to !== null ? (
          <BeforeAfter before={from} after={to} />
        ) : (
          <span
            className={`block truncate font-mono text-sm whitespace-pre ${item.state === 'orphan' ? '' : 'text-note'}`}
          >
            {from}
          </span>
        )}
      </span>
      {row.differing > 0 && hasPlace(row) && <span className="shrink-0 text-xs text-ochre">{differingWords(row)}</span>}
      <span className={`shrink-0 text-xs ${isHindered(item) ? 'font-semibold text-brick' : 'text-ink2'}`}>
        {noteOf(row)}
      </span>
      {hasPictures && (
        <span className="w-9 shrink-0">
          {item.facts.has === 'still' && item.card === null && item.run === null && (
            <Thumbnail work={work} item={item} />
          )}
        </span>
      )}
    </>
  );
}

function differingWords({ item, files, differing }: Row): string {
  const [first] = item.differing;
  return files === 1 && first !== undefined ? `${first.found}, not ${first.agreed}` : `${differing} not as agreed`;
}

function noteOf({ item, files, bytes }: Row): string {
  if (item.state === 'comes' && item.clash) return item.inWay === null ? 'place is taken' : 'takes another’s place?';
  if (item.state === 'comes' && item.inWay !== null) return `replaces · ${size(bytes)}`;
  if (item.state === 'comes' && item.fault !== null) return 'cannot be called so';
  if (item.foreign !== null) return `of ${item.foreign}`;
  if (item.lie !== null) return `is no ${item.lie}`;
  if (item.missing.length > 0) return `lacks ${item.missing.join(', ')}`;
  if (item.same !== null && files === 1) return `same as ${nameOf(item.same.path)}`;
  if (item.state === 'look' && item.derived.includes('version')) return 'its version is taken';
  if (item.state === 'look') return item.folders.length > 1 ? 'several places fit' : 'not sure';
  if (item.card !== null && files > 1) return `a card of ${many(files, 'file')} · ${size(bytes)}`;
  if (item.burst !== null && files > 1) return `a burst of ${files} · ${size(bytes)}`;
  if (files > 1) return `${many(files, 'frame')} · ${size(bytes)}`;
  return `${item.isByHand ? 'by hand · ' : ''}${size(bytes)}`;
}
