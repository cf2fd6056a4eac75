/**
 * Rules that one project has in place of its template's: a client's own names for deliveries, above all. They can be
 * made a template later.
 */

import type { ProjectPage } from '@nesting/contract';
import { compileConvention, NO_REGISTERS, parsePattern } from '@nesting/core/name';
import { type Convention, ownConventions } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { Button, Choose, Heading, Labelled, Refused, TextInput } from '../../ui';
import { houseApi } from '../house/house-api';
import { templatesApi } from '../templates/templates-api';
import { useEditProject } from './use-edit-project';

export function OwnRulesPanel({ project, mayWrite }: { project: ProjectPage; mayWrite: boolean }) {
  const go = useNavigate();
  const { keep, error } = useEditProject(project);
  const [make] = templatesApi.useNewTemplateMutation();
  const own = ownConventions(project.own);
  const any =
    own.length > 0 || Object.keys(project.own.folders ?? {}).length > 0 || Object.keys(project.adjusted).length > 0;
  const set = (id: string, convention: Convention | null) => {
    const { [id]: _old, ...others } = project.own.conventions ?? {};
    keep({ own: { ...project.own, conventions: convention === null ? others : { ...others, [id]: convention } } });
  };
  const template = async () => {
    const { adjusted: _lines, ...body } = project.body;
    const made = await make({
      template: { ...body, name: `${project.body.name}, as ${project.number}` },
      from: { template: project.template.id, edition: project.template.edition },
    });
    if (made.data) await go(`/templates/${made.data.id}/edit`);
  };
  return (
    <section aria-label="Rules of its own" className="flex flex-col gap-2 text-sm">
      <Heading>Conventions</Heading>
      <Refused words={error ? troubleOf(error) : null} />
      <ul className="flex flex-col">
        {project.body.conventions.map((c) => (
          <OwnConvention
            key={`${c.id} ${c.pattern}`}
            project={project}
            convention={c}
            own={own.includes(c.id)}
            mayWrite={mayWrite}
            onSet={(next) => set(c.id, next)}
          />
        ))}
      </ul>
      <FolderRule
        project={project}
        mayWrite={mayWrite}
        onSet={(folders) => keep({ own: { ...project.own, folders } })}
      />
      {mayWrite && any && (
        <Button className="self-start" onClick={() => void template()}>
          Make a template of its rules…
        </Button>
      )}
    </section>
  );
}

interface OwnConventionProps {
  readonly project: ProjectPage;
  readonly convention: Convention;
  readonly own: boolean;
  readonly mayWrite: boolean;
  readonly onSet: (next: Convention | null) => void;
}

function OwnConvention({ project, convention, own, mayWrite, onSet }: OwnConventionProps) {
  const id = useId();
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const [pattern, setPattern] = useState<string | null>(null);
  const fault = pattern === null ? null : faultOf(pattern, convention, project, registers);
  return (
    <li className="flex flex-col gap-1 border-b border-line py-1.5">
      <span className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1 font-semibold">
          {convention.name}
          {own && (
            <span className="ml-2 rounded border border-dashed border-plum px-1 text-xs font-normal text-plum">
              this project’s own
            </span>
          )}
        </span>
        {mayWrite && pattern === null && (
          <Button variant="quiet" className="h-5!" onClick={() => setPattern(convention.pattern)}>
            {own ? 'Change' : 'Different here…'}
          </Button>
        )}
        {mayWrite && own && pattern === null && (
          <Button variant="quiet" className="h-5!" onClick={() => onSet(null)}>
            As the template’s
          </Button>
        )}
      </span>
      {pattern === null ? (
        <span className="font-mono text-xs break-all text-note">{convention.pattern}</span>
      ) : (
        <form
          className="flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (fault === null) onSet({ ...convention, pattern });
            setPattern(null);
          }}
        >
          <Labelled id={id} label="How these files are called in this project">
            <TextInput
              id={id}
              value={pattern}
              spellCheck={false}
              fault={fault !== null}
              onChange={(e) => setPattern(e.target.value)}
              className="font-mono"
            />
          </Labelled>
          {fault && <span className="text-xs text-brick">{fault}</span>}
          <span className="flex gap-3">
            <Button type="submit" disabled={fault !== null}>
              Keep it
            </Button>
            <Button variant="quiet" onClick={() => setPattern(null)}>
              Cancel
            </Button>
          </span>
        </form>
      )}
    </li>
  );
}

function faultOf(
  text: string,
  convention: Convention,
  project: ProjectPage,
  registers: typeof NO_REGISTERS,
): string | null {
  const pattern = parsePattern(text);
  if (!pattern.ok) return pattern.faults[0] ? wordsFor(pattern.faults[0].code, pattern.faults[0].params) : null;
  const compiled = compileConvention(pattern.value, {
    fields: [...(convention.fields ?? []), ...project.body.fields],
    registers,
    families: convention.families,
  });
  return compiled.ok || !compiled.faults[0] ? null : wordsFor(compiled.faults[0].code, compiled.faults[0].params);
}

const USUAL = 'usual';

interface FolderRuleProps {
  readonly project: ProjectPage;
  readonly mayWrite: boolean;
  readonly onSet: (folders: NonNullable<ProjectPage['own']['folders']>) => void;
}

/** Which convention one folder's files follow, for this project. */
function FolderRule({ project, mayWrite, onSet }: FolderRuleProps) {
  const folders = foldersOf(project);
  const [node, setNode] = useState('');
  const own = project.own.folders ?? {};
  const names = Object.keys(own).map((id) => folders.find((f) => f.id === id)?.words ?? id);
  return (
    <>
      {names.length > 0 && (
        <p>
          Folders with rules of this project’s own: <span className="font-mono text-xs">{names.join(', ')}</span>
        </p>
      )}
      {mayWrite && (
        <span className="grid grid-cols-2 gap-2">
          <Choose
            label="A folder"
            value={node}
            options={folders.map((f) => ({ value: f.id, label: f.words }))}
            onChange={setNode}
          />
          <Choose
            label="Its files are called by"
            disabled={node === ''}
            value={own[node]?.conventions?.[0] ?? USUAL}
            options={[
              { value: USUAL, label: 'as the template says' },
              ...project.body.conventions.map((c) => ({ value: c.id, label: c.name })),
            ]}
            onChange={(c) => {
              const { [node]: _old, ...others } = own;
              onSet(c === USUAL ? others : { ...others, [node]: { ..._old, conventions: [c] } });
            }}
          />
        </span>
      )}
    </>
  );
}

function foldersOf(project: ProjectPage): { id: string; words: string }[] {
  const out: { id: string; words: string }[] = [];
  const walk = (node: ProjectPage['body']['root'], above: string): void => {
    for (const f of node.folders ?? []) {
      const words = `${above}${f.name ?? f.block ?? f.id}`;
      out.push({ id: f.id, words });
      walk(f, `${words} / `);
    }
  };
  walk(project.body.root, '');
  return out;
}
