/**
 * Findings put right: where they come from at left, what each becomes in the middle, the ways there are for the
 * selected one at right.
 */
import type { Me, ProjectPage, ProposalPage } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { type ReactNode, useMemo } from 'react';
import { Link, useOutletContext, useParams, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useReaderPath } from '../../app/reader-path';
import { usePageTitle } from '../../app/use-page-title';
import { LineList } from '../../changes/line-list';
import { useCarryOut } from '../../changes/use-carry-out';
import { Columns } from '../../columns/columns';
import { Empty, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { repairApi } from './repair-api';
import { RepairGiven } from './repair-given';
import { RepairLedger } from './repair-ledger';
import { heightOf, RepairLine } from './repair-line';
import { type Filter, GROUPS, type Line, type Row, rowsOf, SIZES, WRITTEN } from './repair-rows';
import type { RepairWork } from './repair-work';
import { type Reference, SelectedReference } from './selected-reference';
import { SelectedRepair } from './selected-repair';
import { useRepair } from './use-repair';

export function RepairPage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  if (me.role === 'lead')
    return (
      <Empty title="Findings are put right by those who work on the project">
        As lead you may look, and not do this.
      </Empty>
    );
  const proposalId = useSearchParams()[0].get('proposal');
  const proposal = repairApi.useProposalQuery(proposalId ?? '', { skip: proposalId === null });
  const failed = [project, registers, proposal].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!project.data || !registers.data || (proposalId !== null && !proposal.data)) return null;
  return (
    <Repairing
      key={`${id} ${proposalId}`}
      project={project.data}
      registers={registers.data}
      proposal={proposalId === null ? null : (proposal.data ?? null)}
    />
  );
}

const filterOf = (params: URLSearchParams): Filter => ({
  cause: params.get('cause'),
  certainty: params.get('certainty'),
  family: params.get('family') === '-' ? '' : params.get('family'),
  find: params.get('find') ?? '',
  size: SIZES.find((s) => s === params.get('size')) ?? 'any',
  written: WRITTEN.find((w) => w === params.get('written')) ?? 'any',
});

interface RepairingProps {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly proposal: ProposalPage | null;
}

function Repairing({ project, registers, proposal }: RepairingProps) {
  const work = useRepair(project, proposal);
  const wholePath = useReaderPath(project);
  usePageTitle(`Put ${project.number} ${project.title} right`);
  return (
    <RepairColumns
      {...{ project, registers, work, wholePath }}
      from={
        <Link to={`/projects/${project.id}`} className="text-plum hover:underline">
          {project.number}
        </Link>
      }
    />
  );
}

interface ColumnsProps {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly work: RepairWork;
  /** A path from the project's root → the whole one, as the reader's system writes it. */
  readonly wholePath: (path: string) => string;
  /** The way back to where the findings stand. */
  readonly from: ReactNode;
}

/** The plan, wherever it is made and carried out. */
export function RepairColumns({ project, registers, work, wholePath, from }: ColumnsProps) {
  const { params, put, plan } = work;
  const group = GROUPS.find((g) => g === params.get('group')) ?? 'place';
  const key = params.toString();
  const filter = useMemo(() => filterOf(params), [key]);
  const named = work.mentions?.found?.references;
  const items = useMemo(
    () => (plan === undefined ? [] : rowsOf(plan, group, filter, named)),
    [plan, group, filter, named],
  );
  const shown = useMemo(
    () => items.flatMap((item) => (item.kind === 'line' && item.line.kind === 'finding' ? [item.line.line] : [])),
    [items],
  );
  const selected = shown.find((l) => l.id === params.get('line')) ?? shown[0] ?? null;
  const reference = useMemo(() => referenceAt(items, params.get('line')), [items, params]);
  useCarryOut('Put it right', work.isReady && plan?.mayApply === true, work.carryOut);
  return (
    <Columns
      id="repair"
      labels={['Where it comes from', 'What is put right', 'The selected line']}
      given={<RepairGiven {...{ project, registers, work, group, filter, shown, from }} />}
      plan={<Lines {...{ work, items }} selected={params.get('line')} onSelect={(line) => put({ line })} />}
      consequence={
        reference !== null ? (
          <SelectedReference {...{ reference, wholePath }} />
        ) : (
          selected && <SelectedRepair {...{ project, registers, work, wholePath }} line={selected} />
        )
      }
      ledger={<RepairLedger work={work} />}
    />
  );
}

function referenceAt(items: ReturnType<typeof rowsOf>, key: string | null): Reference | null {
  const item = key === null ? undefined : items.find((one) => one.kind === 'line' && one.key === key);
  return item?.kind === 'line' && item.line.kind === 'by-hand' ? item.line.reference : null;
}

interface LinesProps {
  readonly work: RepairWork;
  readonly items: ReturnType<typeof rowsOf>;
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
}

function Lines({ work, items, selected, onSelect }: LinesProps) {
  const { plan } = work;
  if (plan === undefined)
    return work.trouble === null ? (
      <p className="text-ink2">Looking at the disk…</p>
    ) : (
      <Trouble message={work.trouble} />
    );
  if (plan.all === 0)
    return <Empty title="Nothing is to be put right here">Every finding that was asked for is gone.</Empty>;
  return (
    <>
      {plan.all > plan.lines.length && (
        <p className="pb-2 text-sm text-ink2">
          The first {plan.lines.length} of {plan.all} findings are shown. What is sure is chosen of all of them.
        </p>
      )}
      {items.length === 0 ? (
        <Empty title="No line is like that">Take a filter away.</Empty>
      ) : (
        <LineList<Row>
          label="What is put right"
          items={items}
          selected={selected}
          onSelect={onSelect}
          height={heightOf}
          draw={(row) => <RepairLine row={row} />}
          isChosen={chosenIn}
          onChoose={(row) => row.kind === 'finding' && toggled(work, row.line)}
          hasPageKeys
          isBusy={work.isPlanning}
        />
      )}
    </>
  );
}

function chosenIn(row: Row): boolean | null {
  if (row.kind !== 'finding') return null;
  switch (row.line.state) {
    case 'ready':
    case 'clash':
      return true;
    case 'ask':
    case 'left':
      return row.line.options.some((o) => o.way !== 'accept') ? false : null;
    default:
      return null;
  }
}

/** Taken it is left; left or asked it takes its first way. */
function toggled(work: RepairWork, line: Line): void {
  if (line.state === 'ready' || line.state === 'clash') {
    work.answer({ [line.id]: { key: null } });
    return;
  }
  const first = line.options.find((o) => o.way !== 'accept');
  if (first !== undefined && (line.state === 'ask' || line.state === 'left'))
    work.answer({ [line.id]: { key: first.key } });
}
