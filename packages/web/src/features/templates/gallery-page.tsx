/** All templates, each known by its nest. */
import { Link } from 'react-router';
import { api, troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Empty, Trouble } from '../../ui/ui';
import type { TemplateRow } from '@nesting/contract';
import { useMemo } from 'react';
import { sizeOfTemplate } from './size';

export function GalleryPage() {
  const { data = [], isLoading, isError, error, refetch } = api.useTemplatesQuery();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  return (
    <div className="overflow-auto px-8 py-6">
      <h1 className="text-xl font-semibold">Templates</h1>
      <p className="pb-5 text-ink2">Each is a hierarchy of folders with its names, its starter files and what may be where.</p>
      {!isLoading && data.length === 0 && <Empty title="No template yet">A template is written once, and every project of its kind starts from it.</Empty>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-4">
        {data.map((row) => (
          <li key={row.id}>
            <Card row={row} />
          </li>
        ))}
      </ul>
    </div>
  );
}

function Card({ row }: { row: TemplateRow }) {
  const nest = useMemo(() => nestOfTemplate(row.template), [row.template]);
  const { folders, fields } = sizeOfTemplate(row.template);
  return (
    <Link to={`/templates/${row.id}`} className="flex h-full gap-4 rounded-tray border border-line bg-sheet p-4 hover:border-ink">
      <Nest root={nest} width={104} height={84} label={`The shape of ${row.name}`} />
      <span className="flex min-w-0 flex-col">
        <span className="text-lg font-semibold">{row.name}</span>
        <span className="flex-1 pb-2 text-sm text-ink2">{row.purpose}</span>
        <span className="text-xs text-ink2">
          edition {row.edition} · {many(folders, 'folder')} · {many(fields, 'field')} · {row.projects === 0 ? 'no project yet' : many(row.projects, 'project')}
        </span>
      </span>
    </Link>
  );
}
