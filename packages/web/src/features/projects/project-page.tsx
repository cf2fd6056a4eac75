/** A project: its map and causes at left, findings or folders in the middle, the selected one at right. */
import type { CheckRow, ChecksOfProject, FindingRow, FolderCount, Me, ProjectPage as Project } from '@nesting/contract';
import { CheckGround, NO_REGISTERS, type Registers, RULE_CODES, RULE_TITLES, type RuleCode, type Value } from '@nesting/core';
import { useEffect, useMemo } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { api, troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { usePageCommands } from '../../app/commands';
import { useAppDispatch } from '../../app/store';
import { ago, count, many, size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfLines } from '../../nest/of-template';
import { TrayTree } from '../../tray/tray-tree';
import { WeightSign } from '../../ui/signs';
import { Button, Empty, Heading, Trouble } from '../../ui/ui';
import { draftLike } from '../start/start-slice';
import { Counts } from './counts';
import { FindingDetail } from './finding-detail';
import { FindingsList } from './findings-list';
import { FolderDetail } from './folder-detail';
import { Grow } from './grow';
import { STATE_WORDS } from './list-page';
import { overlayOf } from './overlay';
import { OwnRulesPanel } from './own-rules';
import { SheetView } from './sheet-view';
import { SignpostsPanel } from './signposts-panel';

const NONE: readonly never[] = [];

export function ProjectPage() {
  const { id = '' } = useParams();
  const project = api.useProjectQuery(id);
  const registers = api.useRegistersQuery();
  const checks = useChecks(id);
  const done = checks?.done ?? null;
  const findings = api.useFindingsQuery(done?.id ?? '', { skip: done === null });
  const folders = api.useFoldersQuery(done?.id ?? '', { skip: done === null });
  if (project.isError) return project.error && 'status' in project.error && project.error.status === 404 ? <Empty title="No such project"><Link to="/projects" className="text-bottle underline">All projects</Link></Empty> : <Trouble message={troubleOf(project.error)} again={() => void project.refetch()} />;
  if (!project.data || !registers.data || checks === undefined) return null;
  return <OneProject key={id} project={project.data} registers={registers.data} checks={checks} findings={findings.data ?? NONE} folders={folders.data ?? NONE} />;
}

/** Asked again quickly while a check runs, and now and then otherwise; lists follow when one is done. */
function useChecks(project: string): ChecksOfProject | undefined {
  const dispatch = useAppDispatch();
  const quiet = api.useChecksQuery(project, { pollingInterval: 20_000 });
  const running = isOpen(quiet.data?.newest ?? null);
  api.useChecksQuery(project, { pollingInterval: 400, skip: !running });
  const done = quiet.data?.done?.id;
  useEffect(() => {
    if (done !== undefined) dispatch(api.util.invalidateTags(['projects']));
  }, [done, dispatch]);
  return quiet.data;
}

const isOpen = (check: CheckRow | null): boolean => check?.state === 'queued' || check?.state === 'running';

interface Props {
  readonly project: Project;
  readonly registers: Registers;
  readonly checks: ChecksOfProject;
  readonly findings: readonly FindingRow[];
  readonly folders: readonly FolderCount[];
}

function OneProject({ project, registers, checks, findings, folders }: Props) {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const [startCheck, asked] = api.useStartCheckMutation();
  const ground = useMemo(() => new CheckGround({ template: project.body, values: project.values, registers: registers ?? NO_REGISTERS }), [project.body, project.values, registers]);
  const { expansion } = ground;
  const overlay = useMemo(() => overlayOf(expansion, folders, findings), [expansion, folders, findings]);
  const nest = useMemo(() => nestOfLines(expansion.lines, (line) => ({ state: overlay.stateOf(line), files: overlay.folders.get(line.path)?.files ?? 0, signs: overlay.signsAt(line.path) }), overlay.unplanned), [expansion, overlay]);
  const view = params.get('view') === 'sheet' ? 'sheet' : params.get('view') === 'folders' || (params.get('view') === null && findings.length === 0) ? 'folders' : 'findings';
  const rule = params.get('rule') as RuleCode | null;
  const shown = useMemo(() => (rule === null ? findings : findings.filter((f) => f.rule === rule)), [findings, rule]);
  const finding = shown.find((f) => f.id === params.get('finding')) ?? shown[0] ?? null;
  const lineKey = params.get('line') ?? expansion.lines[0]?.key ?? null;
  const line = expansion.lines.find((l) => l.key === lineKey) ?? null;
  const diskPath = lineKey?.startsWith('disk:') ? lineKey.slice(5) : null;
  const running = isOpen(checks.newest);
  const mayCheck = me.role !== 'lead' && project.state !== 'starting' && project.state !== 'failed' && project.state !== 'packed';
  const { data: templates } = api.useTemplatesQuery();
  const newest = templates?.find((t) => t.id === project.template.id)?.edition ?? 0;
  const mayChange = me.role !== 'lead' && project.state !== 'starting' && project.state !== 'failed' && project.state !== 'packed';
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const another = () => {
    dispatch(draftLike({ template: project.template.id, values: project.values as Readonly<Record<string, Value>> }));
    void go(`/start?template=${project.template.id}`);
  };
  // What was looked at stands in front the next time.
  const [mark] = api.usePinProjectMutation();
  useEffect(() => {
    void mark({ id: project.id });
  }, [mark, project.id]);
  usePageCommands(useMemo(() => [
    { id: 'check', words: 'Check this project now', keys: 'c', run: () => void startCheck(project.id), enabled: mayCheck && !running },
    { id: 'view-findings', words: 'Show the findings', keys: 'f', run: () => put({ view: 'findings' }) },
    { id: 'view-folders', words: 'Show the folders', keys: 'o', run: () => put({ view: 'folders' }) },
  ], [mayCheck, running, project.id, startCheck, put]));
  return (
    <Columns
      id="project"
      labels={['The project', view === 'findings' ? 'Findings' : view === 'folders' ? 'Folders' : 'Its sheet', view === 'sheet' ? 'Signposts and rules' : 'The selected one']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <p className="font-mono text-sm"><span className="text-plum">{project.number}</span>{project.client && <> <span className="text-ink2">·</span> <span className="text-bottle" title={project.clientName ?? ''}>{project.client}</span></>}</p>
            <h1 className="text-xl font-semibold">{project.title || project.folder}</h1>
            {project.state !== 'running' && <p className="text-sm font-semibold text-plum">{STATE_WORDS[project.state]}</p>}
            {Object.keys(project.adjusted).length + Object.keys(project.own.conventions ?? {}).length + Object.keys(project.own.folders ?? {}).length > 0 && <p className="text-sm text-plum">has rules of its own</p>}
            <p className="text-sm text-ink2">{project.template.name}, edition {project.template.edition}{checks.done ? ` · ${many(checks.done.files, 'file')}, ${size(checks.done.bytes)}` : ''}</p>
            {mayChange && me.role === 'coordinator' && newest > project.template.edition && <Link to={`/projects/${project.id}/change?to=${newest}`} className="text-sm text-bottle hover:underline">Edition {newest} is in force: what it would bring…</Link>}
          </div>
          <Nest root={nest} width={260} height={166} label={`Map of ${project.title}`} large chosen={view === 'folders' ? lineKey : null} onChoose={(key) => put({ view: 'folders', line: expansion.lines.some((l) => l.key === key) ? key : `disk:${key}` })} />
          {mayChange && <Grow project={project} isArtist={me.role === 'artist'} />}
          <Causes findings={findings} chosen={view === 'findings' ? rule : undefined} done={checks.done !== null} onChoose={(r) => put({ view: 'findings', rule: r, finding: null })} />
        </div>
      }
      plan={
        <>
          <div role="tablist" aria-label="What is shown" className="flex gap-5 pb-3">
            <Tab words={`Findings${findings.length > 0 ? ` ${count(findings.length)}` : ''}`} chosen={view === 'findings'} onChoose={() => put({ view: 'findings' })} />
            <Tab words="Folders" chosen={view === 'folders'} onChoose={() => put({ view: 'folders' })} />
            <Tab words="Sheet" chosen={view === 'sheet'} onChoose={() => put({ view: 'sheet' })} />
            <span className="ml-auto self-center text-xs text-ink2">{view === 'sheet' ? `state and settings` : view === 'findings' ? (rule ? RULE_TITLES[rule] : 'all causes') : `${many(folders.length === 0 ? 0 : folders.length - 1, 'folder')} on the disk`}</span>
          </div>
          {view === 'sheet' ? (
            <SheetView project={project} me={me} />
          ) : view === 'folders' ? (
            <TrayTree label={`Folders of ${project.title}`} nodes={overlay.nodes} selected={lineKey} onSelect={(key) => put({ line: key })} />
          ) : shown.length === 0 ? (
            <Empty title={checks.done ? 'Everything is in order' : 'Not checked yet'}>{checks.done ? 'Every file and folder is where it belongs and is called as it should be.' : 'A check compares what is on the disk with the rules, and changes nothing.'}</Empty>
          ) : (
            <FindingsList findings={shown} selected={finding?.id ?? null} onSelect={(id) => put({ finding: id })} />
          )}
        </>
      }
      consequence={
        view === 'sheet' ? (
          <div className="flex flex-col gap-6">
            <SignpostsPanel project={project} expansion={expansion} />
            <OwnRulesPanel project={project} mayWrite={me.role === 'coordinator'} />
          </div>
        ) : view === 'findings' ? (
          finding && <FindingDetail finding={finding} root={project.root} shown={`${project.volume}/${project.folder}`} />
        ) : (
          <FolderDetail project={project.id} root={project.root} shown={`${project.volume}/${project.folder}`} path={diskPath ?? line?.path ?? ''} state={diskPath !== null ? (overlay.nodes.find((n) => n.key === lineKey)?.state ?? 'unplanned') : line ? overlay.stateOf(line) : 'planned'} line={line} template={project.body} registers={expansion.registers} values={project.values} />
        )
      }
      ledger={
        <>
          <CheckLine checks={checks} trouble={asked.isError ? troubleOf(asked.error) : null} />
          <Link to={`/projects/${project.id}/batches`} className="text-sm font-semibold whitespace-nowrap text-bottle hover:underline">Batches</Link>
          {mayChange && <Button onClick={() => void go(`/projects/${project.id}/change`)}>Change…</Button>}
          {me.role === 'coordinator' && <Button onClick={() => another()}>Another like this…</Button>}
          {mayCheck && (
            <Button look="main" disabled={running || asked.isLoading} onClick={() => void startCheck(project.id)}>
              {running ? 'Checking…' : 'Check now'}
            </Button>
          )}
        </>
      }
    />
  );
}

function Tab({ words, chosen, onChoose }: { words: string; chosen: boolean; onChoose: () => void }) {
  return (
    <button type="button" role="tab" aria-selected={chosen} onClick={onChoose} className={`border-b-2 pb-0.5 text-sm ${chosen ? 'border-bottle font-semibold' : 'border-clear text-ink2 hover:border-rule'}`}>
      {words}
    </button>
  );
}

function Causes({ findings, chosen, done, onChoose }: { findings: readonly FindingRow[]; chosen: RuleCode | null | undefined; done: boolean; onChoose: (rule: RuleCode | null) => void }) {
  const some = RULE_CODES.map((code) => ({ code, of: findings.filter((f) => f.rule === code) })).filter((r) => r.of.length > 0);
  if (some.length === 0) return done ? <p className="text-sm text-bottle">Nothing found: all in order.</p> : null;
  return (
    <div className="flex flex-col gap-1">
      <Heading>{many(findings.length, 'finding')}, by cause</Heading>
      <ul>
        <li><Cause words="All of them" of={findings} chosen={chosen === null} onChoose={() => onChoose(null)} /></li>
        {some.map((r) => (
          <li key={r.code}><Cause words={RULE_TITLES[r.code]} of={r.of} chosen={chosen === r.code} onChoose={() => onChoose(r.code)} sign /></li>
        ))}
      </ul>
    </div>
  );
}

function Cause({ words, of, chosen, onChoose, sign = false }: { words: string; of: readonly FindingRow[]; chosen: boolean; onChoose: () => void; sign?: boolean }) {
  return (
    <button type="button" aria-pressed={chosen} onClick={onChoose} className={`flex h-8 w-full items-center gap-3 rounded-tray px-2 text-left text-sm ${chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}>
      {sign && of[0] ? <WeightSign weight={of[0].weight} /> : <span className="w-3" />}
      <span className="min-w-0 flex-1 truncate">{words}</span>
      <span className="tabular-nums">{count(of.length)}</span>
    </button>
  );
}

function CheckLine({ checks: { newest, done }, trouble }: { checks: ChecksOfProject; trouble: string | null }) {
  if (trouble) return <p className="flex-1 text-brick">{trouble}</p>;
  if (newest && isOpen(newest)) {
    return (
      <p className="flex-1" role="status">
        <strong className="font-semibold">Checking.</strong> <span className="text-ink2">{many(newest.files, 'file')} in {many(newest.folders, 'folder')} so far. You may leave this page; it goes on.</span>
      </p>
    );
  }
  const failed = newest?.state === 'failed' ? newest.said[0] : undefined;
  if (failed) return <p className="flex-1 text-brick" role="status">{failed}</p>;
  if (done === null) return <p className="flex-1 text-ink2">This project was never checked.</p>;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-3">
      <strong className="font-semibold whitespace-nowrap">Checked {ago(done.endedAt ?? done.startedAt)}.</strong>
      <Counts counts={done.counts} />
      <span className="truncate text-ink2" title={done.said.join('\n')}>{done.said.length > 0 ? `${many(done.said.length, 'place')} could not be seen: ${done.said[0]}` : 'A check changes nothing on the disk.'}</span>
    </div>
  );
}
