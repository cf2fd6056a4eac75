/** A template on paper: what somebody from outside needs to know. */

import { NO_REGISTERS } from '@nesting/core/name';
import { templatePage } from '@nesting/core/report';
import { useMemo } from 'react';
import { useParams } from 'react-router';
import { Button } from '../../ui';
import { houseApi } from '../house/house-api';
import { templatesApi } from './templates-api';

export function PrintPage() {
  const { id } = useParams();
  const { data = [] } = templatesApi.useTemplatesQuery();
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const row = data.find((t) => t.id === id);
  const page = useMemo(() => (row === undefined ? null : templatePage(row.template, registers)), [row, registers]);
  if (row === undefined || page === null) return null;
  return (
    <article className="mx-auto max-w-3xl overflow-auto px-8 py-6 print:max-w-none print:overflow-visible print:p-0">
      <div className="flex items-baseline justify-between">
        <h1 className="text-2xl font-semibold">{row.name}</h1>
        <Button className="print:hidden" onClick={() => window.print()}>
          Print…
        </Button>
      </div>
      <p className="pb-4 text-ink2">
        {row.purpose} Edition {row.edition}.
      </p>
      <h2 className="pt-2 text-lg font-semibold">Folders</h2>
      <ul>
        {page.folders.map((f, i) => (
          <li
            key={`${i}-${f.name}`}
            style={{ paddingLeft: f.depth * 20 }}
            className="break-inside-avoid border-b border-line py-1"
          >
            <span className="font-mono">{f.name}</span>
            {f.notes.length > 0 && <span className="block text-sm text-ink2">{f.notes.join('; ')}</span>}
          </li>
        ))}
      </ul>
      {page.conventions.length > 0 && <h2 className="pt-5 text-lg font-semibold">How files are called</h2>}
      <ul>
        {page.conventions.map((c) => (
          <li key={c.pattern} className="break-inside-avoid border-b border-line py-1.5">
            <span className="font-semibold">{c.name}</span> <span className="text-sm text-ink2">{c.families}</span>
            <span className="block font-mono">{c.example}</span>
            <span className="block font-mono text-xs text-ink2">{c.pattern}</span>
          </li>
        ))}
      </ul>
    </article>
  );
}
