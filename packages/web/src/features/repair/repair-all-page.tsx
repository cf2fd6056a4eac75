/** What is sure in every project, on one page: looked at project by project, put right in one act, each undone by itself. */
import type { Me } from '@nesting/contract';
import { RULE_CODES } from '@nesting/core/check';
import { RULE_WORDS } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { Link, useOutletContext, useSearchParams } from 'react-router';
import { usePageTitle } from '../../app/use-page-title';
import { many, size } from '../../app/words';
import { LineList, type ListItem } from '../../changes/line-list';
import { useCarryOut } from '../../changes/use-carry-out';
import { Columns } from '../../columns/columns';
import { Button, Empty, Heading, Trouble } from '../../ui';
import { ChecksNav } from '../checks/checks-nav';
import { heightOf, RepairLine } from './repair-line';
import { type RepairedProject, useRepairAll } from './use-repair-all';

const LINE = 46;
/** Lines of one plan that are shown beside; its own page has all. */
const MOST_BESIDE = 30;

type Work = ReturnType<typeof useRepairAll>;

export function RepairAllPage() {
  const me = useOutletContext<Me>();
  if (me.role !== 'coordinator')
    return <Empty title="This is for who coordinates">What is yours stands under Mine.</Empty>;
  return <Repairing />;
}

function Repairing() {
  usePageTitle('Put right everywhere');
  const [params] = useSearchParams();
  const rule = RULE_CODES.find((code) => code === params.get('rule')) ?? null;
  const work = useRepairAll(rule);
  const [selected, setSelected] = useState<string | null>(null);
  const { rows } = work;
  const row = rows.find((r) => r.project.id === selected) ?? rows[0] ?? null;
  useCarryOut('Put them right', !work.isRunning && plansOf(rows).length > 0, work.carryOut);
  return (
    <Columns
      id="checks"
      labels={['Checks', 'Projects', 'What is put right in it']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <p className="text-sm text-ink2">
            {rule === null ? 'Whatever is sure' : `“${RULE_WORDS[rule].title}”, where it is sure`}, planned on what lies
            on the disk now. Each project is changed by itself, and undone by itself.
          </p>
          {rule !== null && (
            <Link to="/checks/repair" className="text-sm text-bottle hover:underline">
              Every cause
            </Link>
          )}
        </div>
      }
      plan={<Projects work={work} selected={selected} onSelect={setSelected} />}
      consequence={row && <Beside row={row} query={rule === null ? '' : `?rule=${rule}`} />}
      ledger={<Ledger work={work} />}
    />
  );
}

interface ProjectsProps {
  readonly work: Work;
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
}

function Projects({ work, selected, onSelect }: ProjectsProps) {
  const { rows, trouble, isLooking } = work;
  const items = useMemo(
    () => rows.map((row): ListItem<RepairedProject> => ({ kind: 'line', key: row.project.id, line: row })),
    [rows],
  );
  return (
    <>
      <h1 className="pb-3 text-xl font-semibold">Put right everywhere</h1>
      {trouble !== null ? (
        <Trouble message={trouble} />
      ) : items.length === 0 ? (
        !isLooking && <Empty title="Everything is in order">No project has a finding.</Empty>
      ) : (
        <LineList<RepairedProject>
          label="Projects"
          items={items}
          selected={selected}
          onSelect={onSelect}
          height={LINE}
          draw={(row) => <ProjectLine row={row} />}
          isChosen={(row) => row.isChosen}
          onChoose={(row) => row.isChosen !== null && !work.isRunning && work.toggle(row)}
          hasPageKeys
        />
      )}
    </>
  );
}

function ProjectLine({ row: { project, repair } }: { row: RepairedProject }) {
  return (
    <>
      <span className="min-w-0 flex-1 truncate">
        <span className="font-mono text-plum">{project.number}</span> {project.title || project.folder}
      </span>
      <span className={`min-w-0 truncate text-sm ${repair.is === 'refused' ? 'text-brick' : 'text-ink2'}`}>
        {wordsOf({ repair })}
      </span>
    </>
  );
}

function wordsOf({ repair }: Pick<RepairedProject, 'repair'>): string {
  switch (repair.is) {
    case 'looking':
      return 'being looked at…';
    case 'running':
      return 'being put right…';
    case 'refused':
      return repair.why;
    case 'done':
      return `${many(repair.findings, 'finding')} put right`;
    case 'planned': {
      const { counts, all, entries, refused } = repair.plan;
      if (refused[0] !== undefined) return refused[0];
      if (entries === 0) return `nothing sure among ${many(all, 'finding')}`;
      return `${counts.ready ?? 0} of ${many(all, 'finding')}`;
    }
  }
}

function Beside({ row: { project, repair }, query }: { row: RepairedProject; query: string }) {
  const lines = repair.is === 'planned' ? repair.plan.lines.filter((line) => line.state === 'ready') : [];
  const to = repair.is === 'done' ? `batches?batch=${repair.batch}` : `repair${query}`;
  return (
    <div className="flex flex-col gap-4">
      <Heading>
        {project.number} {project.title}
      </Heading>
      <Link to={`/projects/${project.id}/${to}`} className="text-sm text-bottle hover:underline">
        {repair.is === 'done' ? 'Look at the change, or undo it' : 'Look at its whole plan'}
      </Link>
      {repair.is === 'refused' && <p className="text-sm text-brick">{repair.why}</p>}
      <ul className="flex flex-col">
        {lines.slice(0, MOST_BESIDE).map((line) => {
          const shown = { kind: 'finding', line } as const;
          return (
            <li
              key={line.id}
              className="flex items-center gap-2 border-b border-line"
              style={{ minHeight: heightOf(shown) }}
            >
              <RepairLine row={shown} />
            </li>
          );
        })}
      </ul>
      {lines.length > MOST_BESIDE && <p className="text-sm text-ink2">and {lines.length - MOST_BESIDE} more</p>}
    </div>
  );
}

const plansOf = (rows: readonly RepairedProject[]) =>
  rows.flatMap(({ repair, isChosen }) => (repair.is === 'planned' && isChosen === true ? [repair.plan] : []));

function Ledger({ work }: { work: Work }) {
  const { rows, isLooking, isRunning } = work;
  const plans = plansOf(rows);
  const findings = plans.reduce((sum, { counts }) => sum + (counts.ready ?? 0), 0);
  const entries = plans.reduce((sum, plan) => sum + plan.entries, 0);
  const bytes = plans.reduce((sum, plan) => sum + plan.bytes, 0);
  const done = rows.filter(({ repair }) => repair.is === 'done').length;
  return (
    <>
      <p className="min-w-0 flex-1" aria-live="polite">
        {isRunning ? (
          `${done} of ${many(done + plans.length + 1, 'project')} done.`
        ) : plans.length === 0 ? (
          <span className="text-ink2">
            {isLooking
              ? 'Looking at the disks…'
              : done > 0
                ? `${many(done, 'project')} put right.`
                : 'Nothing is chosen.'}
          </span>
        ) : (
          <>
            <strong className="font-semibold">
              Puts {many(findings, 'finding')} right in {many(plans.length, 'project')}: changes{' '}
              {many(entries, 'file or folder', 'files and folders')} of {size(bytes)}.
            </strong>{' '}
            <span className="text-ink2">Each of them can be undone.</span>
          </>
        )}
      </p>
      {isRunning && <Button onClick={work.stop}>Stop after this one</Button>}
      <Button variant="main" disabled={isRunning || plans.length === 0} onClick={() => void work.carryOut()}>
        {isRunning ? 'Putting right…' : 'Put them right'}
      </Button>
    </>
  );
}
