/** A package is planned: what it is at left, what goes into it in the middle, the selected file at right. */
import type { Me, ProjectPage, VolumeRow } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import { type Terms, termsAgainst } from '@nesting/core/planners';
import { cannotGoWords, PACKAGE_KIND_WORDS, STAYS_WORDS } from '@nesting/core/words';
import { useMemo } from 'react';
import { useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { usePageTitle } from '../../app/use-page-title';
import { many, moment, size } from '../../app/words';
import { LineList } from '../../changes/line-list';
import { NameParts } from '../../changes/name-parts';
import { PlanLedger, PlanSummary } from '../../changes/plan-ledger';
import { useCarryOut } from '../../changes/use-carry-out';
import { Columns } from '../../columns/columns';
import { Button, CopyButton, Empty, Heading, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { volumesApi } from '../house/volumes-api';
import { projectsApi } from '../projects/projects-api';
import { PackGiven } from './pack-given';
import { filterOf, isShown, itemsOf, type Row } from './pack-rows';
import { type PackWork, type Said, usePackSaid, usePackWork } from './pack-work';

export function PackPage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  const volumes = volumesApi.useVolumesQuery(undefined, { pollingInterval: 30_000 });
  if (me.role !== 'coordinator')
    return <Empty title="Projects are packed by coordinators">You may look at packages, and not make them.</Empty>;
  const failed = [project, registers, volumes].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!project.data || !registers.data || !volumes.data) return null;
  return <Packing key={id} project={project.data} registers={registers.data} volumes={volumes.data} />;
}

interface Props {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly volumes: readonly VolumeRow[];
}

function Packing({ project, registers, volumes }: Props) {
  usePageTitle(`Pack ${project.number} ${project.title}`);
  const ready = volumes.filter(({ state }) => state === 'ready');
  const [said, keep] = usePackSaid(project.id);
  const volume = volumeFor(ready, project.volume, said);
  const work = usePackWork(project, volume, [said, keep]);
  const shown = useShown(work);
  const row = shown.find((one) => keyOf(one) === work.params.get('line')) ?? shown[0];
  const ending = work.said.kind === 'bag' ? '' : '.zip';
  useCarryOut('Pack', work.isReady, work.carryOut);
  return (
    <Columns
      id="pack"
      labels={['What the package is', 'What goes into it', 'The selected file']}
      given={<PackGiven work={work} volumes={ready} volume={volume} shown={shown} />}
      plan={<Going work={work} shown={shown} />}
      consequence={row === undefined ? null : <Selected {...{ work, registers, row }} />}
      ledger={
        <PlanLedger
          trouble={work.trouble}
          doing={work.isAsking ? 'Asking for it…' : null}
          waiting="Looking at the disk…"
          summary={work.plan && <Summary work={work} volume={volume} ending={ending} />}
          save={undefined}
          act="Pack"
          isReady={work.isReady}
          carryOut={work.carryOut}
        />
      }
    />
  );
}

/** As it was chosen; an archive lies elsewhere than its project, where there is an elsewhere. */
function volumeFor(ready: readonly VolumeRow[], own: string, { volume, purpose }: Said): string | null {
  const chosen = ready.find(({ name }) => name === volume);
  const elsewhere = purpose === 'archive' ? ready.find(({ name }) => name !== own) : undefined;
  return (chosen ?? elsewhere ?? ready[0])?.name ?? null;
}

const keyOf = ({ path, stays }: Row): string => `${path} ${stays}`;

function useShown({ plan, params }: PackWork): readonly Row[] {
  const key = params.toString();
  return useMemo(() => {
    const filter = filterOf(params);
    return (plan?.items ?? []).filter((row) => isShown(row, filter));
  }, [plan, key]);
}

interface SummaryProps {
  readonly work: PackWork;
  readonly volume: string | null;
  readonly ending: string;
}

function Summary({ work: { plan, said }, volume, ending }: SummaryProps) {
  if (plan === undefined) return null;
  const path = [said.folder.replace(/^\/+|\/+$/g, ''), `${said.name.trim() || plan.name}${ending}`];
  const to = `${volume ?? ''}: ${path.filter((part) => part !== '').join('/')}`;
  const rest = [
    ...(plan.must > 0
      ? [`${many(plan.must, 'finding')} that must be put right ${plan.must === 1 ? 'goes' : 'go'} along`]
      : []),
    ...(plan.totals.needed > 0 ? [`${many(plan.totals.needed, 'reference')} would lead to what stays`] : []),
    ...(plan.totals.outside > 0 ? [`${many(plan.totals.outside, 'reference')} lead outside the project`] : []),
  ];
  return (
    <PlanSummary
      refused={volume === null ? 'No volume can be written on just now.' : undefined}
      does={
        plan.files === 0 ? 'Nothing goes yet.' : `Packs ${many(plan.files, 'file')} of ${size(plan.bytes)} as ${to}.`
      }
      rest={`${rest.length === 0 ? '' : `${rest.join('; ').replace(/^./, (c) => c.toUpperCase())}. `}The project is only read.`}
    />
  );
}

function Going({ work, shown }: { work: PackWork; shown: readonly Row[] }) {
  const { plan, params, put, pick, trouble } = work;
  const items = useMemo(() => itemsOf(shown, params.get('group') === 'family'), [shown, params.get('group')]);
  if (plan === undefined)
    return trouble === null ? <p className="text-ink2">Looking at the disk…</p> : <Trouble message={trouble} />;
  return (
    <>
      {plan.all > plan.items.length && (
        <p className="pb-2 text-sm text-ink2">
          The first {plan.items.length} of {many(plan.all, 'line')} are shown. All that are chosen go.
        </p>
      )}
      {plan.needed.length > 0 && <Torn work={work} plan={plan} />}
      {plan.cannot.length > 0 && <Cannot plan={plan} />}
      <NotAllowed work={work} plan={plan} />
      {items.length === 0 ? (
        <Empty title="No file is like that">Take a filter away, or choose another folder.</Empty>
      ) : (
        <LineList<Row>
          label="What goes into it"
          items={items}
          selected={params.get('line')}
          onSelect={(line) => put({ line })}
          height={28}
          draw={(row) => <Line row={row} />}
          isChosen={({ stays }) => (stays === 'not-needed' || stays === 'elsewhere' ? null : stays === null)}
          onChoose={({ path, stays }) => pick({ [path]: stays !== null })}
          hasPageKeys
          isBusy={work.isPlanning}
        />
      )}
    </>
  );
}

/** With one press what goes has all that it refers to. */
function Torn({ work, plan }: { work: PackWork; plan: NonNullable<PackWork['plan']> }) {
  const known = new Set(plan.items.map(({ path }) => path));
  const wholeOf = (target: string) => (known.has(target) ? target : target.replace(/#+|%0?\d*d/, '#'));
  const take = () => work.pick(Object.fromEntries(plan.needed.map(({ target }) => [wholeOf(target), true])));
  const [first] = plan.needed;
  return (
    <div className="mb-2 flex items-center gap-3 rounded-tray border border-rule bg-sheet px-3 py-2 text-sm">
      <p className="min-w-0 flex-1">
        {many(plan.totals.needed, 'reference')} would lead to what stays, such as{' '}
        <span className="font-mono break-all">{nameOf(first?.target ?? '')}</span>.
      </p>
      <Button onClick={take}>Take it along</Button>
    </div>
  );
}

/** Licensed material whose time is over, or that somebody else may have. */
function NotAllowed({ work, plan }: { work: PackWork; plan: NonNullable<PackWork['plan']> }) {
  const { said, pick } = work;
  const against = termsFor(said);
  const items = plan.licensed.flatMap((item) => {
    const why = termsAgainst(item, against);
    return why === null ? [] : [{ ...item, why }];
  });
  if (items.length === 0) return null;
  return (
    <details className="mb-2 rounded-tray border border-ochre bg-sheet px-3 py-2 text-sm">
      <summary className="cursor-pointer">
        {many(items.length, 'licensed file')} would go against {items.length === 1 ? 'its' : 'their'} terms
      </summary>
      <ul className="max-h-40 overflow-auto py-1">
        {items.map((item) => (
          <li key={item.path}>
            <span className="font-mono break-all">{item.path}</span>{' '}
            <span className="text-ink2">{againstWords(item.why, item)}</span>
          </li>
        ))}
      </ul>
      <Button onClick={() => pick(Object.fromEntries(items.map(({ path }) => [path, false])))}>Leave them here</Button>
    </details>
  );
}

const termsFor = ({ recipient, purpose }: Said) => ({
  today: new Date().toISOString().slice(0, 10),
  // On the shelf it is given to nobody.
  recipient: purpose === 'archive' ? '' : recipient,
});

const againstWords = (why: 'over' | 'not-for', { until, givenTo }: Terms): string =>
  why === 'over' ? `could be used until ${until}` : `may be given to ${givenTo}`;

/** Said before, so that nobody misses it after. */
function Cannot({ plan: { cannot, cannotAll } }: { plan: NonNullable<PackWork['plan']> }) {
  return (
    <details className="mb-2 rounded-tray border border-ochre bg-sheet px-3 py-2 text-sm">
      <summary className="cursor-pointer">
        {many(cannotAll, 'thing')} cannot go: links, names that are no text, or what may not be read
      </summary>
      <ul className="max-h-40 overflow-auto pt-1">
        {cannot.map(({ path, code }) => (
          <li key={path}>
            <span className="font-mono break-all">{path}</span> <span className="text-ink2">{cannotGoWords(code)}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Line({ row: { path, size: bytes, frames, stays } }: { row: Row }) {
  return (
    <>
      <span className={`min-w-0 flex-1 truncate font-mono text-sm whitespace-pre ${stays === null ? '' : 'text-note'}`}>
        {nameOf(path)}
      </span>
      <span className="shrink-0 text-xs text-ink2">
        {frames > 1 && `${many(frames, 'frame')} · `}
        {stays === null ? '' : `${STAYS_WORDS[stays].toLowerCase()} · `}
        {size(bytes)}
      </span>
    </>
  );
}

function Selected({ work, registers, row }: { work: PackWork; registers: Registers; row: Row }) {
  const { project, pick, said, select } = work;
  const { path, stays, frames } = row;
  const isDocument = said.selection.document === path;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{stays === null ? 'Goes along' : STAYS_WORDS[stays]}</Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">{path}</span>
          <CopyButton text={path} what="the path" />
        </p>
        <p className="text-ink2">
          {size(row.size)}
          {frames > 1 && ` in ${many(frames, 'frame')}`}
          {row.family !== null && `, ${row.family}`}, written {moment(new Date(row.modified).toISOString())}
        </p>
      </div>
      {frames === 1 && (
        <NameParts
          rules={project}
          registers={registers}
          folder={parentOf(path)}
          name={nameOf(path)}
          label={project.number}
        />
      )}
      {stays === 'outsiders' && (
        <p className="text-ink2">
          The template says that this folder is not for outsiders. Taken by hand it goes all the same.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {stays !== 'not-needed' && stays !== 'elsewhere' && (
          <Button onClick={() => pick({ [path]: stays !== null })}>
            {stays === null ? 'Leave it' : 'Take it along'}
          </Button>
        )}
        {said.selection.picked[path] !== undefined && (
          <Button variant="quiet" onClick={() => pick({ [path]: undefined })}>
            As it was
          </Button>
        )}
        {frames === 1 && (
          <Button variant="quiet" onClick={() => select({ document: isDocument ? null : path })}>
            {isDocument ? 'More than what it needs' : 'Only this and what it needs'}
          </Button>
        )}
      </div>
      <p className="text-ink2">
        {PACKAGE_KIND_WORDS[said.kind]}: every file has its checksum in it, and is read back before the package has its
        name.
      </p>
    </div>
  );
}
