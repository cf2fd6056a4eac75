/** A project: its map and causes at left, findings or folders in the middle, the selected one at right. */

import type { Me, ProjectPage as Project } from '@nesting/contract';
import type { Person, Value } from '@nesting/core/name';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../../app/api';
import { useReaderPath } from '../../../app/reader-path';
import { useAppDispatch } from '../../../app/store';
import type { AddressChanges } from '../../../app/use-address';
import { usePageTitle } from '../../../app/use-page-title';
import { Columns } from '../../../columns/columns';
import { Button, Empty, Trouble } from '../../../ui';
import { checksApi } from '../../checks/checks-api';
import { CheckLine, isOpen, useChecks } from '../../findings/check-line';
import { FindingDetail } from '../../findings/finding-detail';
import { findingsApi } from '../../findings/findings-api';
import { Referring } from '../../findings/referring';
import { TriagePanel } from '../../findings/triage';
import { useFindings } from '../../findings/use-findings';
import { type Triage, type TriageForm, useTriage } from '../../findings/use-triage';
import { houseApi } from '../../house/house-api';
import { PressedLine, PressPanel } from '../../repair/press-panel';
import { type Press, usePress } from '../../repair/use-press';
import { draftLike } from '../../start/start-slice';
import { FolderDetail } from '../folder-detail';
import { OwnRulesPanel } from '../own-rules';
import { ProjectMenu } from '../project-menu';
import { projectsApi } from '../projects-api';
import { SignpostsPanel } from '../signposts-panel';
import { useProjectCommands } from './project-commands';
import { ProjectHead } from './project-head';
import { ProjectPlan } from './project-plan';
import { type ProjectData, type ProjectLook, useProjectView } from './use-project-view';
import { focusFindings, type SelectedFindings, useSelectedFindings } from './use-selected-findings';

const NONE: readonly never[] = [];

export function ProjectPage() {
  const { id = '' } = useParams();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  const checks = useChecks(id, project.data !== undefined && project.data.state !== 'packed');
  const folders = projectsApi.useFoldersQuery(id, { skip: checks?.done == null });
  const signs = findingsApi.useFindingsByFolderQuery(id, { skip: checks?.done == null });
  if (project.isError)
    return project.error && 'status' in project.error && project.error.status === 404 ? (
      <Empty title="No such project">
        <Link to="/projects" className="text-bottle underline">
          All projects
        </Link>
      </Empty>
    ) : (
      <Trouble message={troubleOf(project.error)} again={() => void project.refetch()} />
    );
  if (!project.data || !registers.data || checks === undefined) return null;
  return (
    <OneProject
      key={id}
      project={project.data}
      registers={registers.data}
      checks={checks}
      signs={signs.data ?? NONE}
      folders={folders.data ?? NONE}
    />
  );
}

const LABELS = { findings: 'Findings', folders: 'Folders', map: 'The map', sheet: 'Its sheet' } as const;

function OneProject(data: ProjectData) {
  const { project, registers, checks } = data;
  const page = useProjectWork(data);
  const { me, look, shown, selected, triage, press, mayChange } = page;
  return (
    <Columns
      id="project"
      labels={['The project', LABELS[look.view], look.view === 'sheet' ? 'Paths and rules' : 'The selected one']}
      given={<ProjectHead {...{ project, me, checks, look, shown, mayChange }} onFilter={page.filter} />}
      plan={
        <ProjectPlan
          {...{ project, me, look, shown, selected }}
          isChecked={checks.done !== null}
          onSelect={page.select}
        />
      }
      consequence={<Consequence {...{ project, me, look, selected, triage, press }} people={registers.people} />}
      ledger={<ProjectLedger data={data} page={page} />}
    />
  );
}

type ProjectWork = ReturnType<typeof useProjectWork>;

/** What is looked at on the page, and what is done there. */
function useProjectWork(data: ProjectData) {
  const { project, checks } = data;
  const me = useOutletContext<Me>();
  const look = useProjectView(data);
  const shown = useFindings(project.id, look.params);
  const selected = useSelectedFindings(shown, look.params.get('finding'), look.put);
  const [form, setForm] = useState<TriageForm | null>(null);
  const [startCheck, started] = checksApi.useStartCheckMutation();
  const isRunning = isOpen(checks.newest) && checks.newest?.what === 'whole';
  const mayChange = me.role !== 'lead' && !['starting', 'failed', 'packed'].includes(project.state);
  const isShown = look.view === 'findings';
  const triage = useTriage({
    project: project.id,
    me,
    findings: selected.chosen,
    form,
    onForm: (next) => {
      setForm(next);
      if (next === null) focusFindings();
    },
    onDone: () => {
      setForm(null);
      selected.advance();
    },
  });
  const press = usePress({ project, me, findings: selected.chosen, isShown, onDone: selected.advance });
  const check = () => void startCheck(project.id);
  usePageTitle(`${project.number} ${project.title}`);
  useRememberOpened(project.id);
  const go = useNavigate();
  const carryOver = () => void go(`/projects/${project.id}/carry`);
  const mayCheck = mayChange && !isRunning;
  useProjectCommands({ me, put: look.put, triage, press, selected, isShown, mayCheck, check, carryOver });
  return {
    me,
    look,
    shown,
    selected,
    triage,
    press,
    check,
    isRunning,
    mayChange,
    /** Another filter: what was picked under the one before is picked no more. */
    filter: (changes: AddressChanges) => {
      selected.clear();
      setForm(null);
      look.put(changes);
    },
    select: (id: string) => {
      setForm(null);
      selected.select(id);
    },
    isStarting: started.isLoading,
    trouble: started.isError ? troubleOf(started.error) : null,
  };
}

function ProjectLedger({ data, page }: { data: ProjectData; page: ProjectWork }) {
  const { project, checks } = data;
  const { me, look, selected, press, mayChange, isRunning } = page;
  const go = useNavigate();
  return (
    <>
      {press.pressed === null ? (
        <CheckLine checks={checks} trouble={page.trouble} mayCheck={mayChange} />
      ) : (
        <PressedLine project={project.id} press={press} />
      )}
      <Acts project={project} me={me} checks={checks} mayChange={mayChange}>
        {look.view === 'findings' && look.open > 0 && (
          <Button onClick={() => void go(repairAddress(project.id, look.params, selected.picked))}>Put right…</Button>
        )}
        <Button variant="main" disabled={isRunning || page.isStarting} onClick={page.check}>
          {isRunning ? 'Checking…' : 'Check now'}
        </Button>
      </Acts>
    </>
  );
}

/** The plan of what was picked, else of all that the list shows. */
function repairAddress(project: string, params: URLSearchParams, picked: ReadonlySet<string>): string {
  const wish = new URLSearchParams();
  if (picked.size > 0) wish.set('ids', [...picked].join(','));
  else
    for (const key of ['rule', 'folder', 'person'])
      if (params.get(key) && params.get(key) !== '-') wish.set(key, params.get(key) ?? '');
  return `/projects/${project}/repair?${wish}`;
}

/** What was looked at stands in front the next time. */
function useRememberOpened(id: string): void {
  const [mark] = projectsApi.usePinProjectMutation();
  useEffect(() => {
    void mark({ id });
  }, [mark, id]);
}

interface ConsequenceProps {
  readonly project: Project;
  readonly me: Me;
  readonly people: readonly Person[];
  readonly look: ProjectLook;
  readonly selected: SelectedFindings;
  readonly triage: Triage;
  readonly press: Press;
}

function Consequence({ project, me, people, look, selected, triage, press }: ConsequenceProps) {
  const { line, diskPath, expansion, overlay } = look;
  const wholePath = useReaderPath(project);
  if (look.view === 'sheet')
    return (
      <div className="flex flex-col gap-6">
        <SignpostsPanel project={project} expansion={expansion} />
        <OwnRulesPanel project={project} mayWrite={me.role === 'coordinator'} />
      </div>
    );
  if (look.view === 'findings')
    return (
      selected.finding && (
        <div className="flex flex-col gap-5">
          <PressPanel press={press} />
          <TriagePanel triage={triage} people={people} />
          <FindingDetail finding={selected.finding} wholePath={wholePath} />
          <Referring project={project.id} path={selected.finding.path} />
        </div>
      )
    );
  const unplanned = overlay.nodes.find((n) => n.key === look.lineKey)?.state ?? 'unplanned';
  const state = diskPath !== null ? unplanned : line ? overlay.stateOf(line) : 'planned';
  return (
    <FolderDetail
      project={project}
      path={diskPath ?? line?.path ?? ''}
      state={state}
      line={line}
      registers={expansion.registers}
    />
  );
}

function Acts({
  project,
  me,
  checks,
  mayChange,
  children,
}: Pick<ProjectData, 'project' | 'checks'> & {
  readonly me: Me;
  readonly mayChange: boolean;
  readonly children: React.ReactNode;
}) {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const another = () => {
    const values: Readonly<Record<string, Value>> = Object.fromEntries(
      Object.entries(project.values).flatMap(([key, value]) => (value === undefined ? [] : [[key, value]])),
    );
    dispatch(draftLike({ template: project.template.id, values }));
    void go(`/start?template=${project.template.id}`);
  };
  return (
    <>
      <ProjectMenu project={project} me={me} checks={checks} another={another} />
      {mayChange && <Button onClick={() => void go(`/projects/${project.id}/change`)}>Change…</Button>}
      {mayChange && children}
    </>
  );
}
