/**
 * A project is carried over: where it goes and how names go on at left, what comes along in the middle, both names of
 * the selected file at right.
 */
import type { Me, ProjectPage, TemplateRow, VolumeRow } from '@nesting/contract';
import { nextEntry } from '@nesting/core/lists';
import { type ListField, type Registers, revisionList, type Values } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { useOutletContext, useParams, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { useDebounced } from '../../app/use-debounced';
import { usePageTitle } from '../../app/use-page-title';
import type { RulesOf } from '../../changes/name-parts';
import { useCarryOut } from '../../changes/use-carry-out';
import { Columns } from '../../columns/columns';
import { Choose, Empty, Labelled, TextInput, Trouble } from '../../ui';
import { Finder } from '../../ui/finder';
import { houseApi } from '../house/house-api';
import { volumesApi } from '../house/volumes-api';
import { projectsApi } from '../projects/projects-api';
import { inStartOrder } from '../start/field-order';
import { FieldRow } from '../start/fields';
import { NameHead } from '../start/name-head';
import { draftDone, draftLike, volumeChosen } from '../start/start-slice';
import { TargetChoice } from '../start/target';
import { useStartPlan } from '../start/use-start-plan';
import { useKeepNumber } from '../start/use-start-writing';
import { templatesApi } from '../templates/templates-api';
import { CarryGiven, type Destination } from './carry-given';
import { CarryLedger } from './carry-ledger';
import { CarryMiddle } from './carry-lists';
import { CarrySelected } from './carry-selected';
import { type Target, useCarryWork } from './carry-work';

export function CarryPage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  const templates = templatesApi.useTemplatesQuery();
  const volumes = volumesApi.useVolumesQuery(undefined, { pollingInterval: 30_000 });
  if (me.role !== 'coordinator')
    return <Empty title="Projects are carried over by coordinators">You may look at this one, and not do that.</Empty>;
  const failed = [project, registers, templates, volumes].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!project.data || !registers.data || !templates.data || !volumes.data) return null;
  return (
    <Carrying
      key={id}
      me={me}
      project={project.data}
      registers={registers.data}
      templates={templates.data.filter((t) => t.edition > 0 && !t.archived)}
      volumes={volumes.data}
    />
  );
}

interface Props {
  readonly me: Me;
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly templates: readonly TemplateRow[];
  readonly volumes: readonly VolumeRow[];
}

function Carrying(props: Props) {
  const [params] = useSearchParams();
  const { project, templates } = props;
  usePageTitle(`Carry ${project.number} ${project.title} over`);
  const revisions = revisionList(project.body.fields);
  const destinations: readonly Destination[] =
    revisions === undefined ? ['new', 'folder', 'there'] : ['new', 'folder', 'there', 'revision'];
  const destination = destinations.find((one) => one === params.get('to')) ?? 'new';
  const row =
    templates.find((t) => t.id === params.get('template')) ??
    templates.find((t) => t.id === project.template.id) ??
    templates[0];
  if (destination === 'revision' && revisions !== undefined)
    return <ToRevision {...props} destinations={destinations} revisions={revisions} />;
  if (destination === 'there') return <ToProject {...props} destinations={destinations} />;
  if (row === undefined) return <Empty title="No template to start from">A coordinator writes one first.</Empty>;
  const begins = destination === 'folder' ? 'folder' : 'new';
  return <ToNew key={`${begins} ${row.id}`} {...props} {...{ destinations, row }} destination={begins} />;
}

type ToCarry = Props & { readonly destinations: readonly Destination[] };

/** What the new one begins with: the old one's values, without its number and its days. */
function valuesToBegin({ values }: ProjectPage, { template }: TemplateRow): Values {
  const fields = template.fields.filter((f) => f.type !== 'date' && !(f.type === 'list' && f.of.type === 'date'));
  const kept = new Set(fields.map((f) => f.key));
  return Object.fromEntries(Object.entries(values).filter(([key]) => kept.has(key)));
}

type ToBegin = ToCarry & { readonly destination: 'new' | 'folder'; readonly row: TemplateRow };

/** A project of its own, on a volume or on this computer. */
function ToNew({ me, project, registers, templates, volumes, destination, destinations, row }: ToBegin) {
  const dispatch = useAppDispatch();
  const draft = `carry:${project.id}:${row.id}`;
  const isBegun = useAppSelector((s) => s.start.drafts[draft] !== undefined);
  useEffect(() => {
    if (!isBegun) dispatch(draftLike({ template: draft, values: valuesToBegin(project, row) }));
  }, [isBegun, dispatch, draft, project, row]);
  const plan = useStartPlan(row, registers, volumes, me, draft);
  const volume = plan.volume?.name ?? '';
  const [path, setPath] = useState('');
  const whole = useDebounced(path, 250);
  const target = useMemo((): Target => {
    const start = { template: row.id, edition: row.edition, volume, values: plan.values };
    return destination === 'new' ? { kind: 'new', start } : { kind: 'here', start, path: whole };
  }, [row, volume, plan.values, destination, whole]);
  const keepNumber = useKeepNumber(plan);
  const afterwards = async () => {
    // First of all: an empty draft asks for the next number, and must not be given this one.
    if (destination === 'folder') await keepNumber();
    dispatch(draftDone({ template: draft, keep: [] }));
  };
  const next = useMemo(
    (): RulesOf => ({ body: plan.template, values: plan.expansion.values.values }),
    [plan.template, plan.expansion],
  );
  return (
    <CarryColumns
      {...{ project, registers, target, next, destination, destinations }}
      act={destination === 'new' ? 'Start it, and carry over' : 'Choose the folder, and carry over'}
      hindrance={plan.hindrance}
      head={<NameHead plan={plan} />}
      whenDone={() => void afterwards()}
    >
      <div className="flex flex-col gap-3">
        <Labelled id="carry-template" label="Template">
          <Choose
            id="carry-template"
            label="Template"
            value={row.id}
            options={templates.map((t) => ({ value: t.id, label: `${t.name}, edition ${t.edition}` }))}
            onChange={(template) =>
              plan.setParams({ template, ...(destination === 'folder' && { to: destination }) }, { replace: true })
            }
          />
        </Labelled>
        {inStartOrder(row.template.fields).map((field) => (
          <FieldRow
            key={field.key}
            field={field}
            value={plan.values[field.key]}
            registers={plan.expansion.registers}
            expansion={plan.expansion}
            onGive={(value) => plan.give(field.key, value)}
          />
        ))}
        {destination === 'new' ? (
          <TargetChoice
            volumes={plan.volumes}
            target={plan.target}
            onVolume={(name) => void dispatch(volumeChosen(name))}
          />
        ) : (
          <Labelled
            id="carry-path"
            label="Whole path of what it is put in"
            help="Where documents say whole paths, they are written for it. Left empty, those are listed to be put right by hand."
          >
            <TextInput id="carry-path" value={path} onChange={(event) => setPath(event.target.value)} />
          </Labelled>
        )}
      </div>
    </CarryColumns>
  );
}

function ToProject({ project, registers, destinations }: ToCarry) {
  const [params, setParams] = useSearchParams();
  const [sought, setSought] = useState('');
  const { data: projects = [] } = projectsApi.useSomeProjectsQuery(useDebounced(sought, 80));
  const into = params.get('into');
  const { data: other } = projectsApi.useProjectQuery(into ?? '', { skip: into === null });
  const target = useMemo((): Target | null => (into === null ? null : { kind: 'there', project: into }), [into]);
  const known = other === undefined || projects.some((p) => p.id === other.id) ? projects : [other, ...projects];
  const options = known
    .filter((p) => p.id !== project.id)
    .map((p) => ({ value: p.id, label: `${p.number} ${p.title}` }));
  return (
    <CarryColumns
      {...{ project, registers, target, destinations }}
      next={other ?? project}
      destination="there"
      act="Carry over"
      hindrance={into === null ? 'Choose the project at the left.' : null}
    >
      <Finder
        label="The project"
        options={options}
        value={into}
        onSeek={setSought}
        onChoose={(id) => {
          params.set('into', id);
          setParams(params, { replace: true });
        }}
      />
    </CarryColumns>
  );
}

function ToRevision({ project, registers, destinations, revisions }: ToCarry & { revisions: ListField }) {
  const [params, setParams] = useSearchParams();
  const entries = useMemo(() => {
    const rules = new ProjectRules({ template: project.body, values: project.values, registers });
    return rules.expansion.values.lists.get(revisions.key)?.all ?? [];
  }, [project.body, project.values, registers, revisions.key]);
  const was = entries.find((entry) => entry === params.get('was')) ?? entries.at(-1);
  const now = useMemo(
    () => nextEntry(revisions.of, entries, new Date().toISOString().slice(0, 10)),
    [revisions, entries],
  );
  const target = useMemo((): Target | null => (was === undefined ? null : { kind: 'revision', was, now }), [was, now]);
  const next = useMemo(
    (): RulesOf => ({ body: project.body, values: { ...project.values, [revisions.key]: [...entries, now ?? ''] } }),
    [project.body, project.values, revisions.key, entries, now],
  );
  return (
    <CarryColumns
      {...{ project, registers, target, next, destinations }}
      destination="revision"
      act={now === null ? 'Make the next one' : `Make ${now}`}
      hindrance={
        was === undefined || now === null
          ? `There is no next entry in ${revisions.label ?? revisions.key}: add one by hand.`
          : null
      }
    >
      <Labelled
        id="carry-was"
        label={`From which of ${revisions.label ?? revisions.key}`}
        help={now === null ? undefined : `The next one is ${now}. What belongs to none stays where it is.`}
      >
        <Choose
          id="carry-was"
          label="From which"
          value={was ?? ''}
          options={entries.map((value) => ({ value, label: value }))}
          onChange={(entry) => {
            params.set('was', entry);
            setParams(params, { replace: true });
          }}
        />
      </Labelled>
    </CarryColumns>
  );
}

interface ColumnsProps {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly target: Target | null;
  /** What the new one goes by. */
  readonly next: RulesOf;
  readonly destination: Destination;
  readonly destinations: readonly Destination[];
  readonly hindrance: string | null;
  /** The button's words. */
  readonly act: string;
  readonly head?: ReactNode;
  readonly whenDone?: () => void;
  readonly children: ReactNode;
}

function CarryColumns({
  project,
  registers,
  target,
  next,
  destination,
  destinations,
  hindrance,
  act,
  head,
  whenDone,
  children,
}: ColumnsProps) {
  const work = useCarryWork(project, target, hindrance, whenDone ?? NOTHING);
  useCarryOut(act, work.isReady, work.carryOut);
  return (
    <Columns
      id="carry-over"
      labels={['Where it goes', 'What comes along', 'What is selected']}
      given={<CarryGiven {...{ work, destination, destinations }}>{children}</CarryGiven>}
      plan={
        <>
          {head}
          <CarryMiddle work={work} registers={registers} />
        </>
      }
      consequence={<CarrySelected {...{ work, registers, next }} />}
      ledger={<CarryLedger work={work} act={act} />}
    />
  );
}

const NOTHING = () => undefined;
