/** The middle of the page: the nest of the old project, its files one by one, or the references to look after. */

import { nameOf } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { useMemo } from 'react';
import { count, many, tailOf } from '../../app/words';
import { LineList } from '../../changes/line-list';
import { TrayTree } from '../../tray/tray-tree';
import { Empty, Radios, Trouble } from '../../ui';
import { treeOf } from './carry-folders';
import { CarryLine, heightOf } from './carry-line';
import {
  filterOf,
  type Item,
  isShown,
  itemsOf,
  type RefRow,
  refItems,
  refRows,
  takenBy,
  takenPath,
} from './carry-rows';
import type { CarryWork } from './carry-work';

const VIEWS = ['folders', 'files', 'references'] as const;
type View = (typeof VIEWS)[number];

export const viewOf = (params: URLSearchParams): View => VIEWS.find((view) => view === params.get('view')) ?? 'folders';

export function CarryMiddle({ work, registers }: { work: CarryWork; registers: Registers }) {
  const { plan, params, put, hindrance, trouble } = work;
  if (hindrance !== null) return <Empty title="Nothing is planned yet">{hindrance}</Empty>;
  if (plan === undefined)
    return trouble === null ? <p className="text-ink2">Looking at the disk…</p> : <Trouble message={trouble} />;
  const { needed, referring, outside, byHand } = plan.totals;
  const view = viewOf(params);
  const torn = needed + referring + outside + byHand;
  return (
    <>
      <div className="pb-2">
        <Radios
          label="What is shown"
          value={view}
          onChange={(next) => put({ view: next === 'folders' ? null : next })}
          options={[
            { value: 'folders', label: 'Folders' },
            { value: 'files', label: `Files (${count(plan.files)} of ${count(plan.allFiles)})` },
            { value: 'references', label: torn === 0 ? 'References' : `References (${torn})` },
          ]}
        />
      </div>
      {view === 'folders' && <Folders work={work} registers={registers} plan={plan} />}
      {view === 'files' && <Files work={work} plan={plan} />}
      {view === 'references' && <References work={work} plan={plan} />}
    </>
  );
}

interface ViewProps {
  readonly work: CarryWork;
  readonly plan: NonNullable<CarryWork['plan']>;
}

function Folders({ work: { project, params, put }, registers, plan }: ViewProps & { registers: Registers }) {
  const rules = useMemo(
    () => new ProjectRules({ template: project.body, values: project.values, registers }),
    [project.body, project.values, registers],
  );
  const nodes = useMemo(() => treeOf(plan.folders, rules), [plan.folders, rules]);
  return (
    <TrayTree
      label="What comes along"
      nodes={nodes}
      selected={params.get('folder') ?? ''}
      onSelect={(folder) => put({ folder })}
    />
  );
}

/** Files as the address narrows them. */
export function useShownFiles({ plan, params, said }: CarryWork): readonly Item[] {
  const key = params.toString();
  return useMemo(() => {
    const filter = filterOf(params);
    return (plan?.items ?? []).filter((item) => isShown(item, filter, (path) => said.picked[path] !== undefined));
  }, [plan, key, said.picked]);
}

function Files({ work, plan }: ViewProps) {
  const { params, put, pick } = work;
  const shown = useShownFiles(work);
  const items = useMemo(() => itemsOf(shown, params.get('group') === 'family'), [shown, params.get('group')]);
  return (
    <>
      {plan.all > plan.items.length && (
        <p className="pb-2 text-sm text-ink2">
          The first {plan.items.length} of {many(plan.all, 'line')} are shown. The table has all of them.
        </p>
      )}
      {items.length === 0 ? (
        <Empty title="No file is like that">Take a filter away.</Empty>
      ) : (
        <LineList<Item>
          label="What comes along"
          items={items}
          selected={params.get('line')}
          onSelect={(line) => put({ line })}
          height={heightOf}
          draw={(item) => <CarryLine item={item} />}
          isChosen={({ comes }) => comes}
          onChoose={({ from, comes }) => pick({ [from]: { comes: !comes } })}
          hasPageKeys
          isBusy={work.isPlanning}
        />
      )}
    </>
  );
}

function References({ work, plan }: ViewProps) {
  const { params, put, pick, said } = work;
  const rows = useMemo(() => refRows(plan), [plan]);
  const items = useMemo(() => refItems(rows, plan.totals), [rows, plan.totals]);
  if (items.length === 0)
    return (
      <Empty title="Nothing is torn apart">
        {plan.documents.length === 0
          ? 'No document of an open format refers to anything.'
          : `${many(plan.totals.documents, 'document')} will refer to what lies in the new project.`}
      </Empty>
    );
  return (
    <LineList<RefRow>
      label="References"
      items={items}
      selected={params.get('ref')}
      onSelect={(ref) => put({ ref })}
      height={46}
      draw={(row) => <Reference row={row} />}
      isChosen={({ taken }) => (taken === null ? null : said.picked[takenPath(plan.items, taken)]?.comes === true)}
      onChoose={({ taken }) => taken !== null && pick(takenBy(plan, taken))}
      hasPageKeys
      isBusy={work.isPlanning}
    />
  );
}

function Reference({ row: { document, target, taken, to } }: { row: RefRow }) {
  return (
    <span className="min-w-0 flex-1">
      <span className="block truncate font-mono text-sm leading-5 whitespace-pre">{nameOf(document)}</span>
      <span className="block truncate font-mono text-sm leading-5 whitespace-pre text-ink2">
        refers to {taken === null ? tailOf(target) : target}
        {taken === null && to !== null ? ` → ${tailOf(to)}` : ''}
      </span>
    </span>
  );
}
