/**
 * A project's own sheet: its state, what its programs are set to, what is to do on the first day.
 */

import { GIVEN_STATES, type Me, type ProjectPage } from '@nesting/contract';
import { useId } from 'react';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago } from '../../app/words';
import { Choose, Heading, Labelled, Refused } from '../../ui';
import { type Chosen, SettingsSheet } from '../start/sheet';
import { DueList } from './due-list';
import { STATE_WORDS } from './list-page';
import { projectsApi } from './projects-api';
import { useEditProject } from './use-edit-project';

export function SheetView({ project, me }: { project: ProjectPage; me: Me }) {
  const mayWrite = me.role === 'coordinator' && project.state !== 'starting' && project.state !== 'failed';
  const { keep, error } = useEditProject(project);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-6 overflow-auto pr-2">
      <Refused words={error ? troubleOf(error) : null} />
      <div className="grid gap-6 sm:grid-cols-2">
        <div className="flex flex-col gap-6">
          <State project={project} mayWrite={mayWrite} keep={keep} />
          <DueList project={project.id} />
          <FirstDay project={project} mayTick={me.role !== 'lead'} />
        </div>
        <section aria-label="Setup sheet" className="flex flex-col gap-3">
          <span className="flex items-baseline gap-3">
            <Heading>Settings in every program</Heading>
            <Link to={`/projects/${project.id}/sheet`} className="ml-auto text-sm text-bottle hover:underline">
              A page to print
            </Link>
          </span>
          {(project.body.setup?.settings?.length ?? 0) === 0 ? (
            <p className="text-sm text-ink2">The template names none.</p>
          ) : (
            <SettingsSheet
              setup={project.body.setup}
              chosen={project.settings}
              readOnly={!mayWrite}
              onChoose={(settings: Chosen) => keep({ settings })}
            />
          )}
        </section>
      </div>
    </div>
  );
}

type Keep = ReturnType<typeof useEditProject>['keep'];

function State({ project, mayWrite, keep }: { project: ProjectPage; mayWrite: boolean; keep: Keep }) {
  const id = useId();
  return (
    <Labelled id={id} label="State">
      <Choose
        id={id}
        label="State"
        disabled={!mayWrite}
        value={project.state}
        options={GIVEN_STATES.map((value) => ({ value, label: STATE_WORDS[value] }))}
        onChange={(state) => keep({ state })}
      />
    </Labelled>
  );
}

function FirstDay({ project, mayTick }: { project: ProjectPage; mayTick: boolean }) {
  const [tick] = projectsApi.useTickFirstDayMutation();
  return (
    <section aria-label="First day" className="flex flex-col gap-2">
      <Heading>
        On the first day, {project.firstDay.filter((f) => f.at !== null).length} of {project.firstDay.length} done
      </Heading>
      {project.firstDay.length === 0 && <p className="text-sm text-ink2">The template names nothing to do.</p>}
      <ul className="text-sm">
        {project.firstDay.map((f) => (
          <li key={f.place} className="flex items-baseline gap-3 border-b border-line py-1.5">
            <label className="flex min-w-0 flex-1 items-baseline gap-2">
              <input
                type="checkbox"
                checked={f.at !== null}
                disabled={!mayTick}
                onChange={(e) => void tick({ id: project.id, place: f.place, done: e.target.checked })}
                className="size-4 translate-y-0.5 accent-(--bottle)"
              />
              <span className="break-words">{f.words}</span>
            </label>
            <span className="shrink-0 text-xs text-note">{f.at === null ? '' : `${f.by ?? ''}, ${ago(f.at)}`}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
