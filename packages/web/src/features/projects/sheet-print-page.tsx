/**
 * A project's setup sheet on paper: settings with their reasons, where generated files go, what is to do on the first
 * day.
 */

import type { ProjectPage } from '@nesting/contract';
import { NO_REGISTERS } from '@nesting/core/name';
import { type Signpost, signpostsOf } from '@nesting/core/project';
import { expandTemplate } from '@nesting/core/template';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { day } from '../../app/words';
import { Button, Empty } from '../../ui';
import { houseApi } from '../house/house-api';
import { settingsOf } from '../start/sheet';
import { projectsApi } from './projects-api';

export function SheetPrintPage() {
  const { id = '' } = useParams();
  const { data: project, isError } = projectsApi.useProjectQuery(id);
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const signposts = useMemo(
    () => (project === undefined ? [] : signpostsOf(expandTemplate(project.body, project.values, registers))),
    [project, registers],
  );
  if (isError)
    return (
      <Empty title="No such project">
        <Link to="/projects" className="text-bottle underline">
          All projects
        </Link>
      </Empty>
    );
  if (project === undefined) return null;
  return (
    <div className="min-h-0 flex-1 overflow-auto px-8 py-6 print:overflow-visible print:p-0">
      <div className="flex gap-3 pb-4 print:hidden">
        <Link to={`/projects/${id}?view=sheet`} className="text-sm text-bottle hover:underline">
          Back to the project
        </Link>
        <Button className="ml-auto" onClick={() => print()}>
          Print
        </Button>
      </div>
      <Sheet project={project} signposts={signposts} />
    </div>
  );
}

function Sheet({ project, signposts }: { project: ProjectPage; signposts: readonly Signpost[] }) {
  return (
    <article className="mx-auto max-w-3xl">
      <p className="font-mono">{project.folder}</p>
      <h1 className="text-2xl font-semibold">{project.title}</h1>
      <p className="pb-4 text-ink2">
        {project.clientName}, {project.template.name}, started {day(project.startedAt)}
      </p>
      <h2 className="pb-1 text-lg font-semibold">Settings in every program</h2>
      <table className="mb-5 w-full text-left text-sm">
        <tbody>
          {settingsOf(project.body.setup, project.settings).map((s) => (
            <tr key={s.label} className="border-b border-line align-top">
              <th scope="row" className="w-48 py-1.5 pr-3 font-semibold">
                {s.label}
              </th>
              <td className="w-40 py-1.5 pr-3 font-mono">{s.value}</td>
              <td className="py-1.5 text-ink2">{s.why}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="pb-1 text-lg font-semibold">Where things go</h2>
      <table className="mb-5 w-full text-left text-sm">
        <tbody>
          {signposts
            .filter((s) => !s.name.includes('.'))
            .map((s) => (
              <tr key={s.name} className="border-b border-line">
                <th scope="row" className="w-48 py-1.5 pr-3 font-semibold">
                  {s.name}
                </th>
                <td className="py-1.5 font-mono">
                  {project.volume}/{project.folder}
                  {s.path === '' ? '' : `/${s.path}`}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      <h2 className="pb-1 text-lg font-semibold">On the first day</h2>
      <ul className="text-sm">
        {project.firstDay.map((f) => (
          <li key={f.place} className="flex gap-3 border-b border-line py-2">
            <span aria-hidden className="mt-0.5 inline-block size-4 border border-ink">
              {f.at === null ? '' : '×'}
            </span>
            <span className="flex-1">{f.words}</span>
            <span className="text-ink2">{f.at === null ? '' : `${f.by}, ${day(f.at)}`}</span>
          </li>
        ))}
      </ul>
    </article>
  );
}
