/** A project: its map and causes at left, findings or folders in the middle, the selected one at right. */
import type { ChecksOfProject, FolderCount, FolderSign, Me, ProjectPage as Project } from '@nesting/contract';
import { NO_REGISTERS, type Registers, type Value } from '@nesting/core/name';
import type { RuleCode } from '@nesting/core/project';
import { ProjectRules } from '@nesting/core/project';
import { RULE_TITLES } from '@nesting/core/words';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { api, troubleOf } from '../../app/api';
import { usePageCommands } from '../../app/commands';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { count, many, size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfLines } from '../../nest/of-template';
import { TrayTree } from '../../tray/tray-tree';
import { Button, Empty, Trouble } from '../../ui/ui';
import { CheckLine, isOpen, useChecks } from '../findings/check-line';
import { Filters, VIEW_WORDS } from '../findings/filters';
import { FindingDetail } from '../findings/finding-detail';
import { FindingsList, type TriageAct } from '../findings/findings-list';
import { Triage } from '../findings/triage';
import { useFindings } from '../findings/use-findings';
import { draftLike } from '../start/start-slice';
import { FolderDetail } from './folder-detail';
import { Grow } from './grow';
import { STATE_WORDS } from './list-page';
import { isMapSize, type MapSize, MapView } from './map-view';
import { overlayOf } from './overlay';
import { OwnRulesPanel } from './own-rules';
import { ProjectMenu } from './project-menu';
import { SheetView } from './sheet-view';
import { SignpostsPanel } from './signposts-panel';

const NONE: readonly never[] = [];

export function ProjectPage() {
  const { id = '' } = useParams();
  const project = api.useProjectQuery(id);
  const registers = api.useRegistersQuery();
  const checks = useChecks(id, project.data !== undefined && project.data.state !== 'packed');
  const folders = api.useFoldersQuery(id, { skip: checks?.done == null });
  const signs = api.useFindingsByFolderQuery(id, { skip: checks?.done == null });
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

interface Props {
  readonly project: Project;
  readonly registers: Registers;
  readonly checks: ChecksOfProject;
  readonly signs: readonly FolderSign[];
  readonly folders: readonly FolderCount[];
}

function OneProject({ project, registers, checks, signs, folders }: Props) {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const [startCheck, asked] = api.useStartCheckMutation();
  const rules = useMemo(
    () => new ProjectRules({ template: project.body, values: project.values, registers: registers ?? NO_REGISTERS }),
    [project.body, project.values, registers],
  );
  const { expansion } = rules;
  const overlay = useMemo(() => overlayOf(expansion, folders, signs), [expansion, folders, signs]);
  const nest = useMemo(
    () =>
      nestOfLines(
        expansion.lines,
        (line) => ({
          state: overlay.stateOf(line),
          files: overlay.folders.get(line.path)?.files ?? 0,
          signs: overlay.signsAt(line.path),
        }),
        overlay.unplanned,
      ),
    [expansion, overlay],
  );
  const shown = useFindings(project.id, params);
  const standing =
    checks.done === null ? 0 : checks.done.counts.must + checks.done.counts.should + checks.done.counts.note;
  const view =
    params.get('view') === 'sheet'
      ? 'sheet'
      : params.get('view') === 'map'
        ? 'map'
        : params.get('view') === 'folders' || (params.get('view') === null && standing === 0)
          ? 'folders'
          : 'findings';
  const by = isMapSize(params.get('by')) ? (params.get('by') as MapSize) : 'things';
  const rule = params.get('rule') as RuleCode | null;
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [act, setAct] = useState<TriageAct | null>(null);
  const at = Math.max(
    0,
    shown.rows.findIndex((f) => f.id === params.get('finding')),
  );
  const finding = shown.rows[at] ?? null;
  const some = picked.size > 0 ? shown.rows.filter((f) => picked.has(f.id)) : finding === null ? NONE : [finding];
  const lineKey = params.get('line') ?? expansion.lines[0]?.key ?? null;
  const line = expansion.lines.find((l) => l.key === lineKey) ?? null;
  const diskPath = lineKey?.startsWith('disk:') ? lineKey.slice(5) : null;
  const running = isOpen(checks.newest) && checks.newest?.what === 'whole';
  const mayChange =
    me.role !== 'lead' && project.state !== 'starting' && project.state !== 'failed' && project.state !== 'packed';
  const { data: templates } = api.useTemplatesQuery();
  const newest = templates?.find((t) => t.id === project.template.id)?.edition ?? 0;
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
  const pick = (id: string) =>
    setPicked((before) => {
      const after = new Set(before.size === 0 && finding !== null && finding.id !== id ? [finding.id] : before);
      if (!after.delete(id)) after.add(id);
      return after;
    });
  // What is done leaves the list: the one behind it is looked at.
  const done = () => {
    const next =
      shown.rows.slice(at + 1).find((f) => !picked.has(f.id)) ??
      shown.rows
        .slice(0, at)
        .reverse()
        .find((f) => !picked.has(f.id));
    setAct(null);
    setPicked(new Set());
    put({ finding: next?.id ?? null });
    document.querySelector<HTMLElement>('[role=listbox][aria-label=Findings]')?.focus();
  };
  usePageCommands(
    useMemo(
      () => [
        {
          id: 'check',
          words: 'Check this project now',
          keys: 'c',
          run: () => void startCheck(project.id),
          enabled: mayChange && !running,
        },
        { id: 'view-findings', words: 'Show the findings', keys: 'f', run: () => put({ view: 'findings' }) },
        { id: 'view-map', words: 'Show the map', run: () => put({ view: 'map' }) },
        { id: 'view-folders', words: 'Show the folders', keys: 'o', run: () => put({ view: 'folders' }) },
        {
          id: 'mine',
          words: 'Show what is mine to put right',
          keys: 'm',
          run: () => put({ view: 'findings', person: me.initials, finding: null }),
        },
        {
          id: 'accept',
          words: 'Accept the selected finding (key a in the list)',
          run: () => {
            put({ view: 'findings' });
            setAct('accept');
          },
          enabled: me.role === 'coordinator' && finding !== null,
        },
        {
          id: 'give',
          words: 'Give the selected finding to somebody (key g in the list)',
          run: () => {
            put({ view: 'findings' });
            setAct('give');
          },
          enabled: me.role === 'coordinator' && finding !== null,
        },
        {
          id: 'note',
          words: 'Write a note on the selected finding (key w in the list)',
          run: () => {
            put({ view: 'findings' });
            setAct('note');
          },
          enabled: me.role !== 'lead' && finding !== null,
        },
      ],
      [mayChange, running, project.id, startCheck, put, me, finding],
    ),
  );
  return (
    <Columns
      id="project"
      labels={[
        'The project',
        view === 'findings' ? 'Findings' : view === 'folders' ? 'Folders' : view === 'map' ? 'The map' : 'Its sheet',
        view === 'sheet' ? 'Signposts and rules' : 'The selected one',
      ]}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <p className="font-mono text-sm">
              <span className="text-plum">{project.number}</span>
              {project.client && (
                <>
                  {' '}
                  <span className="text-ink2">·</span>{' '}
                  <span className="text-bottle" title={project.clientName ?? ''}>
                    {project.client}
                  </span>
                </>
              )}
            </p>
            <h1 className="text-xl font-semibold">{project.title || project.folder}</h1>
            {project.state !== 'running' && (
              <p className="text-sm font-semibold text-plum">{STATE_WORDS[project.state]}</p>
            )}
            {Object.keys(project.adjusted).length +
              Object.keys(project.own.conventions ?? {}).length +
              Object.keys(project.own.folders ?? {}).length >
              0 && <p className="text-sm text-plum">has rules of its own</p>}
            <p className="text-sm text-ink2">
              {project.template.name}, edition {project.template.edition}
              {checks.done ? ` · ${many(checks.done.files, 'file')}, ${size(checks.done.bytes)}` : ''}
            </p>
            {mayChange && me.role === 'coordinator' && newest > project.template.edition && (
              <Link to={`/projects/${project.id}/change?to=${newest}`} className="text-sm text-bottle hover:underline">
                Edition {newest} is in force: what it would bring…
              </Link>
            )}
          </div>
          <Nest
            root={nest}
            width={260}
            height={166}
            label={`Map of ${project.title}`}
            large
            chosen={view === 'folders' ? lineKey : null}
            onChoose={(key) =>
              put({ view: 'folders', line: expansion.lines.some((l) => l.key === key) ? key : `disk:${key}` })
            }
          />
          <HandedInLine project={project.id} />
          {mayChange && <Grow project={project} isArtist={me.role === 'artist'} />}
          {shown.counted && (standing > 0 || shown.counted.views.accepted + shown.counted.views.solved > 0) ? (
            <Filters
              counted={shown.counted}
              view={shown.view}
              group={shown.group}
              params={params}
              put={(changes) => {
                setPicked(new Set());
                setAct(null);
                put(changes);
              }}
              me={me}
            />
          ) : checks.done ? (
            <p className="text-sm text-bottle">Nothing found: all in order.</p>
          ) : null}
        </div>
      }
      plan={
        <>
          <div role="tablist" aria-label="What is shown" className="flex gap-5 pb-3">
            <Tab
              words={`Findings${standing > 0 ? ` ${count(standing)}` : ''}`}
              chosen={view === 'findings'}
              onChoose={() => put({ view: 'findings' })}
            />
            <Tab words="Folders" chosen={view === 'folders'} onChoose={() => put({ view: 'folders' })} />
            <Tab words="Map" chosen={view === 'map'} onChoose={() => put({ view: 'map' })} />
            <Tab words="Sheet" chosen={view === 'sheet'} onChoose={() => put({ view: 'sheet' })} />
            <span className="ml-auto self-center text-xs text-ink2">
              {view === 'sheet'
                ? `state and settings`
                : view === 'findings'
                  ? `${VIEW_WORDS[shown.view].toLowerCase()}: ${rule ? RULE_TITLES[rule].toLowerCase() : 'all causes'}`
                  : `${many(folders.length === 0 ? 0 : folders.length - 1, 'folder')} on the disk`}
            </span>
          </div>
          {view === 'sheet' ? (
            <SheetView project={project} me={me} />
          ) : view === 'map' ? (
            <MapView
              title={project.title}
              lines={expansion.lines}
              overlay={overlay}
              by={by}
              onBy={(to) => put({ by: to === 'things' ? null : to })}
              chosen={lineKey}
              onChoose={(key) => put({ line: expansion.lines.some((l) => l.key === key) ? key : `disk:${key}` })}
            />
          ) : view === 'folders' ? (
            <TrayTree
              label={`Folders of ${project.title}`}
              nodes={overlay.nodes}
              selected={lineKey}
              onSelect={(key) => put({ line: key })}
            />
          ) : shown.rows.length === 0 ? (
            shown.counted === null && checks.done !== null ? null : (
              <Empty
                title={
                  checks.done === null
                    ? 'Not checked yet'
                    : shown.filtered || shown.view !== 'open'
                      ? 'Nothing of this kind'
                      : 'Everything is in order'
                }
              >
                {checks.done === null ? (
                  'A check compares what is on the disk with the rules, and changes nothing.'
                ) : shown.filtered || shown.view !== 'open' ? (
                  <Button
                    onClick={() =>
                      put({ findings: null, rule: null, weight: null, person: null, folder: null, find: null })
                    }
                  >
                    Show all that is to be put right
                  </Button>
                ) : (
                  'Every file and folder is where it belongs and is called as it should be.'
                )}
              </Empty>
            )
          ) : (
            <FindingsList
              findings={shown.rows}
              total={shown.counted?.total ?? 0}
              group={shown.group}
              selected={finding?.id ?? null}
              picked={picked}
              onSelect={(id) => {
                setAct(null);
                put({ finding: id });
              }}
              onPick={pick}
              onAct={setAct}
              more={shown.more}
            />
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
          finding && (
            <div className="flex flex-col gap-5">
              <Triage
                project={project.id}
                me={me}
                people={registers.people}
                findings={some}
                act={act}
                onAct={setAct}
                onDone={done}
              />
              <FindingDetail finding={finding} root={project.root} shown={`${project.volume}/${project.folder}`} />
            </div>
          )
        ) : (
          <FolderDetail
            project={project.id}
            root={project.root}
            shown={`${project.volume}/${project.folder}`}
            path={diskPath ?? line?.path ?? ''}
            state={
              diskPath !== null
                ? (overlay.nodes.find((n) => n.key === lineKey)?.state ?? 'unplanned')
                : line
                  ? overlay.stateOf(line)
                  : 'planned'
            }
            line={line}
            template={project.body}
            registers={expansion.registers}
            values={project.values}
          />
        )
      }
      ledger={
        <>
          <CheckLine checks={checks} trouble={asked.isError ? troubleOf(asked.error) : null} mayCheck={mayChange} />
          <ProjectMenu project={project} me={me} checks={checks} another={another} />
          {mayChange && <Button onClick={() => void go(`/projects/${project.id}/change`)}>Change…</Button>}
          {mayChange && (
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
    <button
      type="button"
      role="tab"
      aria-selected={chosen}
      onClick={onChoose}
      className={`border-b-2 pb-0.5 text-sm ${chosen ? 'border-bottle font-semibold' : 'border-clear text-ink2 hover:border-rule'}`}
    >
      {words}
    </button>
  );
}

/** Artists have checked folders of their own by this project's rules. */
function HandedInLine({ project }: { project: string }) {
  const { data = [] } = api.useHandedInQuery(project);
  return data.length === 0 ? null : (
    <Link to={`/projects/${project}/here`} className="text-sm text-bottle hover:underline">
      {many(data.length, 'check')} handed in from people’s own computers
    </Link>
  );
}
