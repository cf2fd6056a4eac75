/** All projects: number, client, title, template, state, last check, findings by weight; searched and sorted in the address. */
import type { ProjectRow } from '@nesting/contract';
import { createColumnHelper, createSortedRowModel, rowSortingFeature, type SortingState, sortFns, tableFeatures, useTable } from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo } from 'react';
import { Link, useNavigate, useOutletContext } from 'react-router';
import type { Me } from '@nesting/contract';
import { api, troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, many, size } from '../../app/words';
import { Button, Empty, Line, Trouble } from '../../ui/ui';
import { Counts } from './counts';

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel(), sortFns });
const column = createColumnHelper<typeof features, ProjectRow>();

const STATE_WORDS = { starting: 'being made', running: 'running', failed: 'not made' } as const;

const COLUMNS = column.columns([
  column.accessor((p) => p.number, { id: 'number', header: 'Number', cell: (c) => <span className="font-mono text-plum">{c.getValue()}</span> }),
  column.accessor((p) => p.clientName ?? '', { id: 'client', header: 'Client', cell: ({ row: { original: p } }) => (<span className="flex min-w-0 items-baseline gap-2"><span className="font-mono text-bottle">{p.client}</span><span className="truncate">{p.clientName}</span></span>) }),
  column.accessor((p) => p.title, { id: 'title', header: 'Title', cell: ({ row: { original: p } }) => <Link to={`/projects/${p.id}`} className="font-semibold hover:underline">{p.title}</Link> }),
  column.accessor((p) => p.template.name, { id: 'template', header: 'Template', cell: ({ row: { original: p } }) => (<>{p.template.name} <span className="text-xs text-ink2">ed. {p.template.edition}</span></>) }),
  column.accessor((p) => p.state, { id: 'state', header: 'State', cell: (c) => STATE_WORDS[c.getValue()] }),
  column.accessor((p) => p.check?.at ?? '', { id: 'check', header: 'Last check', cell: ({ row: { original: p } }) => (p.check ? ago(p.check.at) : 'never') }),
  column.accessor((p) => (p.check ? p.check.counts.must * 1e6 + p.check.counts.should * 1e3 + p.check.counts.note : -1), { id: 'findings', header: 'Findings', cell: ({ row: { original: p } }) => (p.check ? <Counts counts={p.check.counts} /> : '') }),
  column.accessor((p) => p.check?.bytes ?? 0, { id: 'size', header: 'Size', cell: ({ row: { original: p } }) => (p.check ? <span title={many(p.check.files, 'file')}>{size(p.check.bytes)}</span> : '') }),
]);

export function ProjectsPage() {
  const me = useOutletContext<Me>();
  const go = useNavigate();
  const [params, put] = useAddress();
  const { data, isError, error, refetch } = api.useProjectsQuery(undefined, { pollingInterval: 15_000 });
  const find = params.get('find') ?? '';
  const sorting = useMemo<SortingState>(() => [{ id: params.get('by') ?? 'number', desc: (params.get('order') ?? 'down') === 'down' }], [params]);
  const shown = useMemo(() => (data ?? []).filter((p) => matches(p, find)), [data, find]);
  const table = useTable({ features, columns: COLUMNS, data: shown, state: { sorting }, onSortingChange: (update) => {
    const next = (typeof update === 'function' ? update(sorting) : update)[0];
    put({ by: next?.id ?? '', order: next === undefined ? '' : next.desc ? 'down' : 'up' });
  } });
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  return (
    <div className="flex min-h-0 flex-1 flex-col px-8 py-6">
      <div className="flex items-end gap-4 pb-4">
        <div className="flex-1">
          <h1 className="text-xl font-semibold">All projects</h1>
          <p className="text-ink2">{many(shown.length, 'project')}{find ? ` with “${find}”` : ''}</p>
        </div>
        <Line aria-label="Search the projects" placeholder="Number, client, title…" value={find} onChange={(e) => put({ find: e.target.value })} className="w-64" />
        {me.role === 'coordinator' && <Button look="main" onClick={() => void go('/start')}>Start a project</Button>}
      </div>
      {data.length === 0 ? (
        <Empty title="No project yet">
          {me.role === 'coordinator' ? <Link to="/start" className="text-bottle underline">Start the first one</Link> : 'A coordinator starts them.'}
        </Empty>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto rounded-tray border border-line bg-sheet">
          <table className="w-full border-collapse text-left text-sm">
            <thead className="sticky top-0 bg-bench">
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id}>
                  {group.headers.map((header) => {
                    const sorted = header.column.getIsSorted();
                    return (
                      <th key={header.id} scope="col" aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'} className="px-3 py-2 font-semibold whitespace-nowrap">
                        <button type="button" onClick={header.column.getToggleSortingHandler()} className="flex items-center gap-1">
                          <table.FlexRender header={header} />
                          {sorted === 'asc' && <ArrowUp size={12} aria-hidden />}
                          {sorted === 'desc' && <ArrowDown size={12} aria-hidden />}
                        </button>
                      </th>
                    );
                  })}
                </tr>
              ))}
            </thead>
            <tbody>
              {table.getRowModel().rows.map((row) => (
                <tr key={row.id} onClick={() => void go(`/projects/${row.original.id}`)} className="h-9 cursor-pointer border-t border-line hover:bg-bench">
                  {row.getAllCells().map((cell) => (
                    <td key={cell.id} className="max-w-64 truncate px-3">
                      <table.FlexRender cell={cell} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {shown.length === 0 && <p className="px-3 py-8 text-ink2">No project has these letters in its number, client, title, template or person.</p>}
        </div>
      )}
    </div>
  );
}

function matches(p: ProjectRow, find: string): boolean {
  const text = [p.number, p.client, p.clientName, p.title, p.template.name, p.folder, p.startedBy].join(' ').toLowerCase();
  return find.toLowerCase().split(/\s+/).every((word) => text.includes(word));
}
