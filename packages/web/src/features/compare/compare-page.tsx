/** Two projects side by side: which ones at left, what differs in the middle, both sides of the selected row at right. */
import type { Comparison, ProjectRow } from '@nesting/contract';
import { useMemo } from 'react';
import { troubleOf } from '../../app/api';
import { addressFor } from '../../app/endpoints';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { LineList } from '../../changes/line-list';
import { Columns } from '../../columns/columns';
import { Button, Empty, Trouble } from '../../ui';
import { compareApi, type Row, type Scopes, scopesIn } from './compare-api';
import { CompareGiven } from './compare-given';
import { CompareLine, heightOf } from './compare-line';
import { filterOf, itemsOf, keyOf, sideWords } from './compare-rows';
import { SelectedRow } from './selected-row';

export type Sides = { readonly [S in 'left' | 'right']: Pick<ProjectRow, 'id' | 'number' | 'title' | 'folder'> };

export function ComparePage() {
  usePageTitle('Side by side');
  const [params, put] = useAddress();
  const [left, right] = [params.get('left'), params.get('right')];
  const same = params.get('same') === 'yes';
  const isAsked = left !== null && right !== null;
  const asked = { left: left ?? '', right: right ?? '', same, ...scopesIn(params) };
  const { data, currentData, error, isFetching, refetch } = compareApi.useCompareProjectsQuery(asked, {
    skip: !isAsked,
    refetchOnMountOrArgChange: true,
  });
  const found = error
    ? undefined
    : (currentData ?? (data?.left.id === left && data.right.id === right ? data : undefined));
  const key = params.toString();
  const filter = useMemo(() => filterOf(params), [key]);
  const isByState = params.get('group') === 'state';
  const items = useMemo(
    () => (found === undefined ? [] : itemsOf(found, filter, isByState)),
    [found, filter, isByState],
  );
  const shown = items.flatMap((item) => (item.kind === 'line' ? [item.line] : []));
  const selected = shown.find((row) => keyOf(row) === params.get('row')) ?? shown[0] ?? null;
  return (
    <Columns
      id="compare"
      labels={['What is compared', 'What differs', 'The selected row']}
      given={<CompareGiven {...{ params, put, found, filter }} />}
      plan={
        <Middle
          {...{ found, items, isAsked, isFetching }}
          trouble={error ? troubleOf(error) : null}
          again={() => void refetch()}
          selected={params.get('row')}
          onSelect={(row) => put({ row })}
        />
      }
      consequence={found && selected && <SelectedRow row={selected} sides={found} />}
      ledger={<Ledger found={found} asked={asked} again={() => void refetch()} isBusy={isFetching} />}
    />
  );
}

interface MiddleProps {
  readonly found: Comparison | undefined;
  readonly items: ReturnType<typeof itemsOf>;
  readonly isAsked: boolean;
  readonly isFetching: boolean;
  readonly trouble: string | null;
  readonly again: () => void;
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
}

function Middle({ found, items, isAsked, isFetching, trouble, again, selected, onSelect }: MiddleProps) {
  if (!isAsked)
    return (
      <Empty title="Two projects side by side">
        Choose both at the left. Files are found again by what their names mean, whatever number and client they carry;
        what was renamed is told from what was changed.
      </Empty>
    );
  if (trouble !== null) return <Trouble message={trouble} again={again} />;
  if (found === undefined) return <p className="text-ink2">Looking at both disks…</p>;
  const sides = sideWords(found);
  return (
    <>
      {found.all > found.rows.length && (
        <p className="pb-2 text-sm text-ink2">
          The first {found.rows.length} of {many(found.all, 'row')} are shown. The table has all of them.
        </p>
      )}
      {items.length === 0 ? (
        <Empty title={found.rows.length === 0 ? 'Nothing differs' : 'No row is like that'}>
          {found.rows.length === 0
            ? `${many(found.counts.same, 'file')} on both sides are the same.`
            : 'Take a filter away.'}
        </Empty>
      ) : (
        <LineList<Row>
          label="What differs"
          items={items}
          selected={selected}
          onSelect={onSelect}
          height={heightOf}
          draw={(row) => <CompareLine row={row} sides={sides} />}
          isBusy={isFetching}
        />
      )}
    </>
  );
}

interface LedgerProps {
  readonly found: Comparison | undefined;
  readonly asked: { readonly left: string; readonly right: string; readonly same: boolean } & Scopes;
  readonly again: () => void;
  readonly isBusy: boolean;
}

function Ledger({ found, asked: { same, ...sides }, again, isBusy }: LedgerProps) {
  if (found === undefined) return <p className="flex-1 text-ink2">Nothing is changed here.</p>;
  const { counts, unseen } = found;
  const table = addressFor('writeComparison', { query: { ...sides, same: String(same), as: 'csv' } });
  return (
    <>
      <p className="min-w-0 flex-1" aria-live="polite">
        <strong className="font-semibold">{summary(counts)}</strong>{' '}
        <span className="text-ink2">
          {unseen.length > 0 && `${many(unseen.length, 'place')} could not be looked at. `}Nothing is changed here.
        </span>
      </p>
      <Button disabled={isBusy} onClick={again}>
        Look again
      </Button>
      <Button onClick={() => window.open(table, '_self')}>Save the table</Button>
    </>
  );
}

/** Without what there is none of. */
function summary(counts: Comparison['counts']): string {
  const said = [
    [counts.same, 'the same'],
    [counts.renamed, 'renamed'],
    [counts.changed, 'changed'],
    [counts['only-left'], 'only on the left'],
    [counts['only-right'], 'only on the right'],
  ] as const;
  const parts = said.filter(([n]) => n > 0).map(([n, words]) => `${n} ${words}`);
  return parts.length === 0 ? 'Both are empty.' : `${parts.join(', ')}.`;
}
