/**
 * A project grows or changes: what it is to become at left, what that does to its folder in the middle, line by line,
 * the selected line at right.
 */

import type { Me, PlanForm, ProjectPage, ReshapePlan, TemplateRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import type { ReshapeLine } from '@nesting/core/planners';
import { compileTemplate, type Template } from '@nesting/core/template';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useReaderPath } from '../../app/reader-path';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { useDraft } from '../../app/use-draft';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, CopyButton, Empty, Heading, Labelled, Menu, TextInput, Tick, Trouble } from '../../ui';
import { changesApi } from '../batches/changes-api';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { templatesApi } from '../templates/templates-api';
import { ChangeList } from './change-list';
import { SIGN_WORDS } from './line-signs';
import {
  askedOf,
  callIt,
  entriesIn,
  isSameWish,
  leave,
  reshapes,
  type Wish,
  wishOf,
  withEntries,
} from './reshape-slice';
import { WishForm } from './wish-form';

export function ReshapePage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  const templates = templatesApi.useTemplatesQuery();
  const draft = changesApi.useReshapeDraftQuery(id, { refetchOnMountOrArgChange: true });
  const failed = [project, registers, templates, draft].find((q) => q.isError);
  if (me.role === 'lead')
    return <Empty title="Projects are changed by those who work in them">As lead you may look, and not do this.</Empty>;
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!project.data || !registers.data || !templates.data || draft.data === undefined || draft.isFetching) return null;
  return (
    <Reshaping
      key={id}
      me={me}
      project={project.data}
      registers={registers.data}
      templates={templates.data.filter((t) => t.edition > 0)}
      draft={draft.data as Wish | null}
    />
  );
}

interface Props {
  readonly me: Me;
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly templates: readonly TemplateRow[];
  readonly draft: Wish | null;
}

function Reshaping({ me, project, registers, templates, draft }: Props) {
  const wholePath = useReaderPath(project);
  usePageTitle(`Change ${project.number} ${project.title}`);
  const { id } = project;
  const go = useNavigate();
  const dispatch = useAppDispatch();
  const [params, put] = useAddress();
  const [keep] = changesApi.useKeepReshapeMutation();
  const start = useMemo(() => wishOf(project), [project]);
  const kept = useMemo((): Wish | null => (draft === null ? null : { ...start, ...draft }), [draft, start]);
  const { editing, change } = useDraft<Wish>({
    id,
    start: kept ?? start,
    version: kept === null ? 0 : 1,
    mayWrite: true,
    actions: reshapes,
    select: (s) => s.reshapes[id],
    save: async (wish) => {
      await keep({ id, asked: askedOf(wish, project.version) }).unwrap();
      return 1;
    },
    onSaved: () => undefined,
  });
  const wish = editing?.now ?? kept ?? start;
  useAdded(params.get('add'), params.get('to'), wish, () => put({ add: null, to: null }), change, editing !== null);
  const template = useTemplate(project, wish, templates);
  const asked = useMemo(() => askedOf(wish, project.version), [wish, project.version]);
  const late = useDebounced(asked, 250);
  const { currentData, data, error, isFetching } = changesApi.usePlanReshapeQuery(
    { id, asked: late },
    { refetchOnMountOrArgChange: true, pollingInterval: 20_000 },
  );
  const plan = error ? undefined : (currentData ?? data);
  const [apply, applying] = changesApi.useApplyReshapeMutation();
  const { data: batches } = changesApi.useBatchesQuery(id, { skip: !applying.isLoading, pollingInterval: 500 });
  const running = applying.isLoading ? batches?.find((b) => b.state === 'running') : undefined;
  const [stop] = changesApi.useStopBatchMutation();
  const expander = useMemo(
    () => (template.body === null ? null : compileTemplate({ ...template.body, adjusted: wish.adjusted }, registers)),
    [template.body, wish.adjusted, registers],
  );
  const expansion = useMemo(() => expander?.expand(wish.values) ?? null, [expander, wish.values]);
  const lines = plan?.lines ?? [];
  const selected = lines.find((l) => l.key === params.get('line')) ?? lines[0] ?? null;
  const nothing = isSameWish(wish, start);
  const throwAway = async () => {
    dispatch(reshapes.closed(id));
    await keep({ id, asked: null });
    await go(`/projects/${id}`);
  };
  const carryOut = async () => {
    if (plan === undefined) return;
    const done = await apply({ id, asked, print: plan.print })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    dispatch(reshapes.closed(id));
    await keep({ id, asked: null });
    await go(`/projects/${id}/batches?batch=${done.batch}`);
  };
  if (expansion === null || template.body === null) return null;
  const hindered = plan === undefined || plan.refused.length > 0 || isFetching || late !== asked;
  return (
    <Columns
      id="reshape"
      labels={['What it is to become', 'What that does', 'The selected line']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <p className="font-mono text-sm">
              <Link to={`/projects/${id}`} className="text-plum hover:underline">
                {project.number}
              </Link>
            </p>
            <h1 className="text-xl font-semibold">Change {project.title || project.folder}</h1>
            <p className="text-sm text-ink2">Nothing that is there is removed.</p>
          </div>
          <WishForm
            me={me}
            project={project}
            wish={wish}
            template={template.body}
            templates={templates}
            editions={template.editions}
            registers={registers}
            expansion={expansion}
            onChange={change}
          />
        </div>
      }
      plan={
        <>
          <div className="flex items-baseline gap-3 pb-2">
            <Heading>What that does</Heading>
            {plan && plan.all > lines.length && (
              <span className="text-xs text-ink2">
                the first {lines.length} of {plan.all} lines
              </span>
            )}
          </div>
          {lines.length === 0 ? (
            <Empty title={nothing ? 'Nothing is to change yet' : 'Nothing changes on the disk'}>
              {nothing
                ? 'Add an entry, correct a value or choose another edition at left: what it would do is shown here, before it is done.'
                : 'What was changed is kept in the project’s rules alone.'}
            </Empty>
          ) : (
            <ChangeList
              label="What that does"
              lines={lines}
              selected={selected?.key ?? null}
              onSelect={(key) => put({ line: key })}
            />
          )}
        </>
      }
      consequence={
        <div className="flex flex-col gap-5">
          {plan && plan.refused.length > 0 && (
            <ul className="flex flex-col gap-1 text-sm text-brick">
              {plan.refused.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
          )}
          {selected && (
            <Selected
              key={selected.key}
              line={selected}
              wholePath={wholePath}
              isArtist={me.role === 'artist'}
              onLeave={() => change(leave(wish, selected), null)}
              onCall={(name) => change(callIt(wish, selected, name), null)}
            />
          )}
        </div>
      }
      ledger={
        <>
          <div className="min-w-0 flex-1" aria-live="polite">
            {applying.isLoading ? (
              <p role="status">
                <strong className="font-semibold">
                  {running && running.all > 0 ? `${running.done} of ${running.all} steps done.` : 'Making it ready…'}
                </strong>{' '}
                <span className="text-ink2">You may leave this page; it goes on.</span>
                {running && (
                  <>
                    {' '}
                    <Button look="quiet" className="h-6!" onClick={() => void stop({ project: id, batch: running.id })}>
                      Stop it
                    </Button>
                  </>
                )}
              </p>
            ) : applying.isError ? (
              <p className="text-brick">{troubleOf(applying.error)}</p>
            ) : error ? (
              <p className="text-brick">{troubleOf(error)}</p>
            ) : plan === undefined ? (
              <p className="text-ink2">Looking at the disk…</p>
            ) : (
              <Ledger plan={plan} nothing={nothing} />
            )}
          </div>
          {plan?.folder && me.role === 'coordinator' && (
            <Tick
              label="The folder keeps its name"
              checked={wish.keepFolder}
              onChange={(keepFolder) => change({ ...wish, keepFolder }, null)}
            />
          )}
          {!nothing && (
            <Button look="quiet" onClick={() => void throwAway()}>
              Throw it away
            </Button>
          )}
          {lines.length > 0 && (
            <Menu
              trigger={<Button>Save the plan…</Button>}
              lines={FORMS.map(([as, words]) => ({ words, run: () => void saveAs(id, asked, as) }))}
            />
          )}
          <Button look="main" disabled={hindered || nothing || applying.isLoading} onClick={() => void carryOut()}>
            {applying.isLoading ? 'Changing…' : 'Carry it out'}
          </Button>
        </>
      }
    />
  );
}

/** One click on a project's page adds an entry, or asks for an edition: it comes in the address, and is taken once. */
function useAdded(
  add: string | null,
  edition: string | null,
  wish: Wish,
  taken: () => void,
  change: (wish: Wish, what: null) => void,
  ready: boolean,
): void {
  useEffect(() => {
    if (edition !== null && ready && Number(edition) > 0) {
      if (wish.edition !== Number(edition)) change({ ...wish, edition: Number(edition) }, null);
      taken();
    }
    if (add === null || !ready) return;
    const [list = '', entry = '', outer] = add.split(':');
    const entries = entriesIn(wish.values[list], outer ?? null);
    if (!entries.includes(entry))
      change({ ...wish, values: withEntries(wish.values, list, outer ?? null, [...entries, entry]) }, null);
    taken();
  }, [add, edition, ready]);
}

/** The rules of the edition that is asked for; the project's own while it is the same. */
function useTemplate(
  project: ProjectPage,
  wish: Wish,
  templates: readonly TemplateRow[],
): { readonly body: Template | null; readonly editions: readonly number[] } {
  const { data } = templatesApi.useEditionsQuery(wish.template);
  const same = wish.template === project.template.id && wish.edition === project.template.edition;
  const body = same
    ? project.body
    : (data?.find((e) => e.edition === wish.edition)?.template ??
      templates.find((t) => t.id === wish.template && t.edition === wish.edition)?.template ??
      null);
  const editions = useMemo(
    () => [...new Set([wish.edition, ...(data ?? []).map((e) => e.edition)])].sort((a, b) => b - a),
    [data, wish.edition],
  );
  return { body, editions };
}

const FORMS: readonly (readonly [PlanForm, string])[] = [
  ['text', 'As a text'],
  ['csv', 'As a table (CSV)'],
  ['json', 'As JSON'],
  ['sh', 'As a script for sh'],
  ['powershell', 'As a script for PowerShell'],
];

async function saveAs(id: string, asked: object, as: PlanForm): Promise<void> {
  const response = await fetch(`/api/projects/${id}/plan/print?as=${as}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(asked),
  });
  if (!response.ok) return;
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = decodeURIComponent(
    /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'plan',
  );
  link.click();
  URL.revokeObjectURL(link.href);
}

function Ledger({ plan, nothing }: { plan: ReshapePlan; nothing: boolean }) {
  const { counts } = plan;
  const made = plan.lines.filter((l) => l.sign === 'made');
  const words = [
    ...(counts.made
      ? [
          `makes ${[many(made.filter((l) => l.what === 'folder').length, 'folder'), many(made.filter((l) => l.what === 'file').length, 'file')].filter((w) => !w.startsWith('0 ')).join(' and ')}${plan.all > plan.lines.length ? ' and more' : ''}`,
        ]
      : []),
    ...(counts.renamed ? [`renames ${counts.renamed}`] : []),
    ...(plan.folder ? [`calls its folder ${plan.folder.to}`] : []),
  ];
  const rest = [
    ...(counts['left-over'] ? [`${many(counts['left-over'], 'folder')} left over, and left alone`] : []),
    ...(counts.taken ? [`${counts.taken} stay as they are: their name is taken`] : []),
    ...(counts.elsewhere ? [`${counts.elsewhere} on another volume are not made from here`] : []),
    ...(counts.there ? [`${counts.there} there already`] : []),
  ];
  if (plan.refused.length > 0)
    return (
      <p>
        <strong className="font-semibold">Nothing can be done yet.</strong>{' '}
        <span className="text-ink2">{plan.refused[0]}</span>
      </p>
    );
  if (nothing) return <p className="text-ink2">Nothing is to change yet.</p>;
  const said =
    words.length === 0 ? 'Changes nothing on the disk.' : `${words.join(', ').replace(/^./, (c) => c.toUpperCase())}.`;
  return (
    <p>
      <strong className="font-semibold">{said}</strong>{' '}
      <span className="text-ink2">
        {rest.length > 0 ? `${rest.join('; ').replace(/^./, (c) => c.toUpperCase())}. ` : ''}It can be undone. Longest
        path {plan.longest} of {plan.budget}.
      </span>
    </p>
  );
}

const WHY: Readonly<Record<ReshapeLine['sign'], string>> = {
  made: 'The rules have it from now on, and it is not on the disk.',
  renamed: 'It is the same folder or file; the rules call it otherwise from now on. What is in it goes along.',
  there: 'It is on the disk already under this name, and stays as it is.',
  'left-over':
    'The rules do not know it any more. It stays where it is, with all that is in it; the next check says so.',
  taken:
    'Something of that name is there already, here or above: nothing is overwritten, so it stays as it is. Put the other one away, or give this one another name.',
  elsewhere: 'It belongs on another volume; from here nothing is made there.',
};

function Selected({
  line,
  wholePath,
  isArtist,
  onLeave,
  onCall,
}: {
  line: ReshapeLine;
  wholePath: (path: string) => string;
  isArtist: boolean;
  onLeave: () => void;
  onCall: (name: string) => void;
}) {
  const path = line.after ?? line.before ?? '';
  const [name, setName] = useState<string | null>(null);
  const now = path.slice(path.lastIndexOf('/') + 1);
  const isFile = line.key.startsWith('file:') || line.key.startsWith('extra:');
  const acts = line.sign === 'made' || line.sign === 'renamed' || line.sign === 'taken';
  return (
    <div className="flex flex-col gap-3 text-sm">
      <Heading>Selected: {SIGN_WORDS[line.sign]}</Heading>
      {line.before !== null && line.before !== line.after && (
        <p className="font-mono break-all text-ink2">{line.before}</p>
      )}
      <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
        <span className="min-w-0 flex-1 font-mono break-all">{path}</span>
        <CopyButton text={wholePath(path)} what="the path" />
      </div>
      <p className="text-ink2">
        {line.convention === null
          ? WHY[line.sign]
          : `Its name carries a value that is another now; it is written anew by the convention ${line.convention}.${line.count > 1 ? ` ${line.count} frames are one line.` : ''}`}
      </p>
      {acts && !isArtist && (
        <div className="flex flex-wrap gap-2">
          <Button onClick={onLeave}>{line.before === null ? 'Leave it out' : 'Keep its name'}</Button>
        </div>
      )}
      {acts && !isArtist && !isFile && (
        <Labelled id="reshape-name" label="Called">
          <TextInput
            id="reshape-name"
            value={name ?? now}
            maxLength={255}
            className="font-mono"
            spellCheck={false}
            autoComplete="off"
            onChange={(e) => setName(e.target.value)}
            onBlur={() => {
              if (name !== null && name.trim() !== '' && name !== now) onCall(name.trim());
              setName(null);
            }}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </Labelled>
      )}
    </div>
  );
}
