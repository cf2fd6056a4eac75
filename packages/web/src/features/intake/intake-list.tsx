/** The middle of the page: each loose file with where it goes. */
import { useMemo } from 'react';
import { many } from '../../app/words';
import { LineList } from '../../changes/line-list';
import { Empty, Trouble } from '../../ui';
import { heightOf, IntakeLine } from './intake-line';
import { filterOf, groupOf, type Item, isShown, itemsOf, pathsOf, type Row, rowsOf } from './intake-rows';
import type { IntakeWork } from './intake-work';

/** Files as the address narrows them. */
export function useShownItems({ plan, params }: IntakeWork): readonly Item[] {
  const key = params.toString();
  return useMemo(() => {
    const filter = filterOf(params);
    return (plan?.items ?? []).filter((item) => isShown(item, filter));
  }, [plan, key]);
}

export function IntakeList({ work }: { work: IntakeWork }) {
  const { plan, params, put, say, trouble, isReading, isPlanning } = work;
  const shown = useShownItems(work);
  const group = groupOf(params);
  const isWhole = filterOf(params).find === '';
  const items = useMemo(
    () => (plan === undefined ? [] : itemsOf(rowsOf(shown, plan, isWhole), group)),
    [shown, plan, isWhole, group],
  );
  const hasPictures = useMemo(() => plan?.items.some(({ facts }) => facts.has === 'still') ?? false, [plan]);
  if (trouble !== null && plan === undefined) return <Trouble message={trouble} />;
  if (plan === undefined)
    return <p className="text-ink2">{isReading ? 'Looking through the files…' : 'Looking at the disk…'}</p>;
  return (
    <>
      {(plan.isCut || plan.all > plan.items.length || plan.unseen.length > 0) && <Left plan={plan} />}
      {items.length === 0 ? (
        <Empty title={plan.all === 0 ? 'Nothing lies there' : 'No file is like that'}>
          {plan.all === 0 ? 'Look again when the material has arrived.' : 'Take a filter away.'}
        </Empty>
      ) : (
        <LineList<Row>
          label="Loose files"
          items={items}
          selected={params.get('line')}
          onSelect={(line) => put({ line })}
          height={heightOf}
          draw={(row) => <IntakeLine {...{ work, row, hasPictures }} />}
          isChosen={({ item, to }) => (to === null ? null : item.state === 'comes')}
          onChoose={(row) => row.to !== null && say(pathsOf(row, plan.items), { comes: row.item.state !== 'comes' })}
          hasPageKeys
          isBusy={isPlanning}
        />
      )}
    </>
  );
}

function Left({ plan }: { plan: NonNullable<IntakeWork['plan']> }) {
  const [unseen] = plan.unseen;
  return (
    <p className="pb-2 text-sm text-ink2">
      {plan.isCut && 'There are more files than are looked at at once: bring these in, then look again. '}
      {plan.all > plan.items.length && `The first ${plan.items.length} of ${many(plan.all, 'file')} are shown. `}
      {unseen !== undefined && (
        <span className="text-brick">
          {many(plan.unseen.length, 'file')} could not be looked at, among them {unseen.path} ({unseen.code}).
        </span>
      )}
    </p>
  );
}
