/** The project itself, at left: what it is, its map, and by what its findings can be narrowed. */

import type { ChecksOfProject, Me, ProjectPage as Project } from '@nesting/contract';
import { Link } from 'react-router';
import { many, size } from '../../../app/words';
import { Nest } from '../../../nest/nest';
import { checksApi } from '../../checks/checks-api';
import { Filters } from '../../findings/filters';
import type { FindingsShown } from '../../findings/use-findings';
import { templatesApi } from '../../templates/templates-api';
import { Grow } from '../grow';
import { STATE_WORDS } from '../list-page';
import { TeamNote } from './team-note';
import type { ProjectLook, PutAddress } from './use-project-view';

interface Props {
  readonly project: Project;
  readonly me: Me;
  readonly checks: ChecksOfProject;
  readonly look: ProjectLook;
  readonly shown: FindingsShown;
  readonly mayChange: boolean;
  readonly onFilter: PutAddress;
}

export function ProjectHead({ project, me, checks, look, shown, mayChange, onFilter }: Props) {
  const { view, put } = look;
  return (
    <div className="flex flex-col gap-4">
      <Title project={project} checks={checks} mayUpgrade={mayChange && me.role === 'coordinator'} />
      <TeamNote project={project} mayWrite={mayChange && me.role === 'coordinator'} />
      <Nest
        root={look.nest}
        width={260}
        height={166}
        label={`Map of ${project.title}`}
        large
        chosen={view === 'folders' ? look.lineKey : null}
        onChoose={(key) => put({ view: 'folders', line: look.keyOfTray(key) })}
      />
      <HandedInLine project={project.id} />
      {mayChange && <Grow project={project} isArtist={me.role === 'artist'} />}
      {hasFindings(look, shown) && shown.counted ? (
        <Filters
          counted={shown.counted}
          view={shown.view}
          group={shown.group}
          params={look.params}
          put={onFilter}
          me={me}
        />
      ) : (
        checks.done && <p className="text-sm text-bottle">Nothing found: all in order.</p>
      )}
    </div>
  );
}

function hasFindings(look: ProjectLook, { counted }: FindingsShown): boolean {
  return counted !== null && (look.open > 0 || counted.views.accepted + counted.views.solved > 0);
}

function Title({ project, checks, mayUpgrade }: { project: Project; checks: ChecksOfProject; mayUpgrade: boolean }) {
  const { data: templates } = templatesApi.useTemplatesQuery();
  const newest = templates?.find((t) => t.id === project.template.id)?.edition ?? 0;
  const { adjusted, own } = project;
  const overrides = [adjusted, own.conventions ?? {}, own.folders ?? {}].some((some) => Object.keys(some).length > 0);
  return (
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
      {project.state !== 'running' && <p className="text-sm font-semibold text-plum">{STATE_WORDS[project.state]}</p>}
      {overrides && <p className="text-sm text-plum">has rules of its own</p>}
      <p className="text-sm text-ink2">
        {project.template.name}, edition {project.template.edition}
        {checks.done ? ` · ${many(checks.done.files, 'file')}, ${size(checks.done.bytes)}` : ''}
      </p>
      {mayUpgrade && newest > project.template.edition && (
        <Link to={`/projects/${project.id}/change?to=${newest}`} className="text-sm text-bottle hover:underline">
          Edition {newest} is in force: what it would bring…
        </Link>
      )}
    </div>
  );
}

/** Artists have checked folders of their own by this project's rules. */
function HandedInLine({ project }: { project: string }) {
  const { data = [] } = checksApi.useHandedInQuery(project);
  return data.length === 0 ? null : (
    <Link to={`/projects/${project}/here`} className="text-sm text-bottle hover:underline">
      {many(data.length, 'check')} handed in from people’s own computers
    </Link>
  );
}
