/** All templates, each known by its nest; written anew, doubled, put away, taken in and out from here. */

import type { Me, TemplateRow } from '@nesting/contract';
import { NO_REGISTERS } from '@nesting/core/name';
import { templateMarkdown, templateOutline } from '@nesting/core/report';
import { useMemo } from 'react';
import { Link, useNavigate, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { addressFor } from '../../app/endpoints';
import { save } from '../../app/save';
import { many } from '../../app/words';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Button, Empty, Menu, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { sizeOfTemplate } from './size';
import { templatesApi } from './templates-api';

/** What a new template begins with: a root that has a name, and the two things every project has. */
const FRESH = {
  format: 'nesting/template',
  formatVersion: 1,
  name: 'New template',
  fields: [
    { key: 'client', type: 'client', label: 'Client', required: true },
    { key: 'title', type: 'text', label: 'Title', max: 40, required: true },
  ],
  conventions: [],
  root: { id: 'root', name: '{number}_{client.code}_{title:kebab}', numbering: { digits: 2, joiner: '_' } },
} as const;

export function GalleryPage() {
  const me = useOutletContext<Me>();
  const { data = [], isLoading, isError, error, refetch } = templatesApi.useTemplatesQuery();
  const [make, { error: refused }] = templatesApi.useNewTemplateMutation();
  const go = useNavigate();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  const mayWrite = me.role === 'coordinator';
  const write = async (body: Parameters<typeof make>[0]) => {
    const made = await make(body).unwrap();
    await go(`/templates/${made.id}/edit`);
  };
  return (
    <div className="overflow-auto px-8 py-6">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="mr-auto text-xl font-semibold">Templates</h1>
        {mayWrite && (
          <>
            <Link
              to="/templates/derive"
              className="flex h-9 items-center rounded-tray border border-rule bg-sheet px-3.5 text-sm font-semibold hover:border-ink"
            >
              Derive from what is there…
            </Link>
            <Link
              to="/templates/take-in"
              className="flex h-9 items-center rounded-tray border border-rule bg-sheet px-3.5 text-sm font-semibold hover:border-ink"
            >
              Take in a file…
            </Link>
            <Button
              onClick={() => {
                location.href = addressFor('exportRules', {});
              }}
            >
              Save all rules…
            </Button>
            <Button variant="main" onClick={() => void write({ template: FRESH })}>
              New template
            </Button>
          </>
        )}
      </div>
      <p className="pb-5 text-ink2">
        Each is a hierarchy of folders with its names, its starter files and what may be where.
      </p>
      {refused && <Trouble message={troubleOf(refused)} />}
      {!isLoading && data.length === 0 && (
        <Empty title="No template yet">A template is written once, and every project of its kind starts from it.</Empty>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-4">
        {data.map((row) => (
          <li key={row.id}>
            <Card
              row={row}
              mayWrite={mayWrite}
              onDouble={() =>
                void write({
                  template: { ...row.template, name: `${row.name}, copy` },
                  ...(row.edition > 0 && { from: { template: row.id, edition: row.edition } }),
                })
              }
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

function Card({ row, mayWrite, onDouble }: { row: TemplateRow; mayWrite: boolean; onDouble: () => void }) {
  const nest = useMemo(() => nestOfTemplate(row.template), [row.template]);
  const [archive] = templatesApi.useArchiveTemplateMutation();
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const go = useNavigate();
  const { folders, fields } = sizeOfTemplate(row.template);
  const state =
    row.edition === 0 ? 'a draft, never in force' : `edition ${row.edition}${row.draft ? ' and a draft' : ''}`;
  return (
    <div
      className={`relative flex h-full gap-4 rounded-tray border border-line p-4 hover:border-ink ${row.archived ? 'bg-bench' : 'bg-sheet'}`}
    >
      <Nest root={nest} width={104} height={84} label={`The shape of ${row.name}`} />
      <span className="flex min-w-0 flex-1 flex-col">
        <Link
          to={row.edition === 0 ? `/templates/${row.id}/edit` : `/templates/${row.id}`}
          className="pr-8 text-lg font-semibold after:absolute after:inset-0"
        >
          {row.name}
        </Link>
        <span className="flex-1 pb-2 text-sm text-ink2">{row.purpose}</span>
        <span className="text-xs text-note">
          {row.archived ? 'put away · ' : ''}
          {state} · {many(folders, 'folder')} · {many(fields, 'field')} ·{' '}
          {row.projects === 0 ? 'no project yet' : many(row.projects, 'project')}
        </span>
      </span>
      <span className="absolute top-2 right-2 z-10">
        <Menu
          trigger={
            <Button variant="quiet" className="h-7! px-2!" aria-label={`More for ${row.name}`}>
              …
            </Button>
          }
          lines={[
            ...(mayWrite
              ? [
                  { words: 'Change it', run: () => void go(`/templates/${row.id}/edit`) },
                  { words: 'Make a copy', run: onDouble },
                ]
              : []),
            {
              words: 'Save as a zip',
              run: () => {
                location.href = addressFor('exportTemplate', {
                  id: row.id,
                  query: row.edition > 0 ? { edition: row.edition } : {},
                });
              },
            },
            { words: 'Save as Markdown', run: () => save(`${row.id}.md`, templateMarkdown(row.template, registers)) },
            { words: 'Save as an outline', run: () => save(`${row.id}.txt`, templateOutline(row.template, registers)) },
            { words: 'A page to print', run: () => void go(`/templates/${row.id}/print`) },
            ...(mayWrite && row.edition > 0
              ? [
                  {
                    words: row.archived ? 'Bring it back' : 'Put it away',
                    run: () => void archive({ id: row.id, archived: !row.archived }),
                  },
                ]
              : []),
          ]}
        />
      </span>
    </div>
  );
}
