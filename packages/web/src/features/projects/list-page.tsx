/**
 * All projects: number, client, title, template, state, last check, findings by weight; searched and sorted in the
 * address.
 */

import { type Me, PROJECT_ORDERS, type ProjectOrder, type ProjectRow } from '@nesting/contract';
import { Pin } from 'lucide-react';
import { useCallback, useMemo } from 'react';
import { Link, useNavigate, useOutletContext } from 'react-router';
import { type ProjectsAsked, troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { ago, count, many, size } from '../../app/words';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, Empty, Radios, TextInput, Trouble } from '../../ui';
import { Counts } from './counts';
import { projectsApi } from './projects-api';

export const STATE_WORDS = {
  starting: 'being made',
  running: 'running',
  waiting: 'waiting',
  closed: 'closed',
  packed: 'packed',
  failed: 'not made',
} as const;

const COLUMNS: readonly GridColumn<ProjectRow>[] = [
  {
    id: 'number',
    header: 'Number',
    width: '6.5rem',
    sort: (p) => p.number,
    cell: (p) => <span className="font-mono text-plum">{p.number}</span>,
  },
  {
    id: 'client',
    header: 'Client',
    width: 'minmax(8rem,1.2fr)',
    sort: (p) => p.clientName ?? '',
    cell: (p) => (
      <>
        <span className="font-mono text-bottle">{p.client}</span> {p.clientName}
      </>
    ),
  },
  {
    id: 'title',
    header: 'Title',
    width: 'minmax(8rem,1.2fr)',
    sort: (p) => p.title,
    cell: (p) => (
      <Link to={`/projects/${p.id}`} className="font-semibold hover:underline">
        {p.title}
      </Link>
    ),
  },
  {
    id: 'template',
    header: 'Template',
    width: 'minmax(8rem,1fr)',
    sort: (p) => p.template.name,
    cell: (p) => (
      <>
        {p.template.name} <span className="text-xs text-ink2">ed. {p.template.edition}</span>
      </>
    ),
  },
  { id: 'state', header: 'State', width: '6rem', sort: (p) => p.state, cell: (p) => STATE_WORDS[p.state] },
  {
    id: 'check',
    header: 'Last check',
    width: '8rem',
    sort: (p) => p.check?.at ?? '',
    cell: (p) => (p.check ? ago(p.check.at) : 'never'),
  },
  {
    id: 'findings',
    header: 'Findings',
    width: '9rem',
    sort: (p) => (p.check ? p.check.counts.must * 1e6 + p.check.counts.should * 1e3 + p.check.counts.note : -1),
    cell: (p) => (p.check ? <Counts counts={p.check.counts} /> : ''),
  },
  {
    id: 'size',
    header: 'Size',
    width: '6rem',
    sort: (p) => p.check?.bytes ?? 0,
    cell: (p) => (p.check ? <span title={many(p.check.files, 'file')}>{size(p.check.bytes)}</span> : ''),
  },
  {
    id: 'volume',
    header: 'Volume',
    width: '6rem',
    sort: (p) => p.volume,
    cell: (p) => <span className="font-mono">{p.volume}</span>,
    hidden: true,
  },
  { id: 'by', header: 'Started by', width: '9rem', sort: (p) => p.startedBy, cell: (p) => p.startedBy, hidden: true },
];

const STATES = ['running', 'waiting', 'closed', 'packed'] as const;
const ANY = 'any';
const isOrder = (text: string): text is ProjectOrder => PROJECT_ORDERS.some((order) => order === text);

export function ProjectsPage() {
  const me = useOutletContext<Me>();
  const go = useNavigate();
  const [params, put] = useAddress();
  const { find, state, sorting, rows, states, total, more, trouble, again } = useListedProjects();
  const open = useCallback((p: ProjectRow) => void go(`/projects/${p.id}`), [go]);
  const [pin] = projectsApi.usePinProjectMutation();
  const columns = useMemo(() => [pinColumn((p) => void pin({ id: p.id, pinned: !p.pinned })), ...COLUMNS], [pin]);
  if (trouble !== null) return <Trouble message={trouble} again={again} />;
  if (rows === null) return null;
  const chosen = params.get('project');
  return (
    <div className="flex min-h-0 flex-1 flex-col px-8 py-6">
      <div className="flex flex-wrap items-end gap-4 pb-4">
        <div className="flex-1">
          <h1 className="text-xl font-semibold">All projects</h1>
          <p className="text-ink2">
            {many(total, 'project')}
            {find ? ` with “${find}”` : ''}
          </p>
        </div>
        <Radios
          label="States"
          value={state ?? ANY}
          onChange={(s) => put({ state: s === ANY ? null : s })}
          options={[
            { value: ANY, label: 'all' },
            ...STATES.map((s) => ({ value: s, label: `${STATE_WORDS[s]} ${count(states[s] ?? 0)}` })),
          ]}
        />
        <TextInput
          aria-label="Search the projects"
          placeholder="Number, client, title…"
          value={find}
          onChange={(e) => put({ find: e.target.value })}
          className="w-56"
        />
        {me.role === 'coordinator' && chosen !== null && (
          <Button onClick={() => void go(`/projects/${chosen}/carry`)}>Carry it over…</Button>
        )}
        {me.role === 'coordinator' && (
          <Button variant="main" onClick={() => void go('/start')}>
            Start a project
          </Button>
        )}
      </div>
      {total === 0 && find === '' ? (
        <NoProjects mayStart={me.role === 'coordinator'} />
      ) : (
        <Grid
          id="projects"
          label="All projects"
          columns={columns}
          rows={rows}
          keyOf={(p) => p.id}
          chosen={chosen === null ? [] : [chosen]}
          onChoose={(keys) => put({ project: keys.at(-1) ?? null })}
          onOpen={open}
          onEnd={more}
          sorting={sorting}
          onSort={(s) => put({ by: s.by, order: s.down ? 'down' : 'up' })}
          empty="No project found by its number, client, title, template or person."
          rowHeight={34}
        />
      )}
    </div>
  );
}

const pinColumn = (onPin: (p: ProjectRow) => void): GridColumn<ProjectRow> => ({
  id: 'recent',
  header: 'Pin',
  width: '2.5rem',
  sort: () => 0,
  cell: (p) => (
    <button
      type="button"
      tabIndex={-1}
      aria-pressed={p.pinned}
      aria-label={`${p.pinned ? 'Unpin' : 'Pin'} ${p.number}`}
      onClick={(e) => {
        e.stopPropagation();
        onPin(p);
      }}
      className={`flex size-6 items-center justify-center rounded ${p.pinned ? 'text-plum' : 'text-rule hover:text-ink'}`}
    >
      <Pin size={14} aria-hidden fill={p.pinned ? 'currentColor' : 'none'} />
    </button>
  ),
});

/** The projects that the address asks for, page by page as one scrolls. */
function useListedProjects() {
  const [params] = useAddress();
  const find = params.get('find') ?? '';
  const by = params.get('by') ?? 'recent';
  const sorting = { by, down: (params.get('order') ?? 'down') === 'down' };
  const asked = useMemo(
    (): ProjectsAsked => ({
      find,
      state: params.get('state'),
      by: isOrder(by) ? by : 'recent',
      down: sorting.down ? 'true' : 'false',
    }),
    [find, params, by, sorting.down],
  );
  const late = useDebounced(asked, 60);
  const { currentData, data, isError, error, refetch, hasNextPage, isFetching, fetchNextPage } =
    projectsApi.useProjectsInfiniteQuery(late, { pollingInterval: 15_000 });
  const list = currentData ?? data;
  const rows = useMemo(() => (list?.pages ?? []).flatMap((p) => p.rows), [list]);
  const states = list?.pages[0]?.states ?? {};
  const total = Object.values(states).reduce((n, k) => n + (k ?? 0), 0);
  const more = useCallback(() => {
    if (hasNextPage && !isFetching) void fetchNextPage();
  }, [hasNextPage, isFetching, fetchNextPage]);

  return {
    find,
    state: asked.state,
    sorting,
    /** `null` until the first page is here. */
    rows: list === undefined ? null : rows,
    states,
    total,
    more,
    trouble: isError ? troubleOf(error) : null,
    again: () => void refetch(),
  };
}

function NoProjects({ mayStart }: { mayStart: boolean }) {
  return (
    <Empty title="No project yet">
      {mayStart ? (
        <Link to="/start" className="text-bottle underline">
          Start the first one
        </Link>
      ) : (
        'A coordinator starts them.'
      )}
    </Empty>
  );
}
