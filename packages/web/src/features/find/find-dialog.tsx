/** Ctrl K: any project, template, client or person, or a command, by a few letters. */

import { nameOf } from '@nesting/core/listing';
import { Command as Cmd } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { type Command, useCommands } from '../../app/commands';
import { useDebounced } from '../../app/use-debounced';
import { found } from '../../grid/sort';
import { Panel } from '../../ui';
import { changesApi } from '../batches/changes-api';
import { houseApi } from '../house/house-api';
import { packagesApi } from '../packages/packages-api';
import { projectsApi } from '../projects/projects-api';
import { templatesApi } from '../templates/templates-api';

export function FindDialog({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  return (
    <Panel open={open} onOpen={onOpen} title="Find a project, person or command" className="w-160">
      <FindAnything close={() => onOpen(false)} />
    </Panel>
  );
}

/** Lines of one group: whoever sought more would write another letter. */
const SHOWN = 40;

function FindAnything({ close }: { close: () => void }) {
  const [words, setWords] = useState('');
  const { data: projects = [] } = projectsApi.useSomeProjectsQuery(useDebounced(words, 80));
  const some = <T,>(rows: readonly T[], text: (row: T) => string): readonly T[] =>
    found(rows, words, text).slice(0, SHOWN);
  const go = useNavigate();
  const { data: templates = [] } = templatesApi.useTemplatesQuery();
  const { data: registers } = houseApi.useRegistersQuery();
  const commands = useCommands();
  const to = (address: string) => () => {
    close();
    void go(address);
  };
  return (
    <Cmd label="Find" shouldFilter={false} className="flex max-h-[60vh] flex-col">
      <Cmd.Input
        autoFocus
        value={words}
        onValueChange={setWords}
        placeholder="Project, client, person, template or command"
        className="h-11 border-b border-line bg-clear px-3 text-lg outline-none placeholder:text-ink2"
      />
      <Cmd.List className="min-h-0 overflow-auto p-1 [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-ink2">
        <Cmd.Empty className="px-3 py-6 text-ink2">Nothing found.</Cmd.Empty>
        <Cmd.Group heading="Projects">
          {some(projects, (p) => [p.number, p.title, p.client, p.clientName, p.folder].join(' ')).map((p) => (
            <Line key={p.id} id={`project ${p.id}`} run={to(`/projects/${p.id}`)}>
              <span className="font-mono text-plum">{p.number}</span> {p.title}{' '}
              <span className="ml-auto text-xs text-ink2">{p.clientName}</span>
            </Line>
          ))}
        </Cmd.Group>
        <Cmd.Group heading="Templates">
          {some(templates, (t) => `${t.name} ${t.purpose}`).map((t) => (
            <Line key={t.id} id={`template ${t.id}`} run={to(`/templates/${t.id}`)}>
              {t.name} <span className="ml-auto text-xs text-ink2">edition {t.edition}</span>
            </Line>
          ))}
        </Cmd.Group>
        <Cmd.Group heading="Clients and people">
          {some(registers?.clients ?? [], (c) => `${c.code} ${c.name}`).map((c) => (
            <Line key={c.code} id={`client ${c.code}`} run={to(`/projects?find=${encodeURIComponent(c.code)}`)}>
              <span className="font-mono text-bottle">{c.code}</span> {c.name}{' '}
              <span className="ml-auto text-xs text-ink2">their projects</span>
            </Line>
          ))}
          {some(registers?.people ?? [], (p) => `${p.initials} ${p.name}`).map((p) => (
            <Line key={p.initials} id={`person ${p.initials}`} run={to(`/projects?find=${encodeURIComponent(p.name)}`)}>
              <span className="font-mono text-bottle">{p.initials}</span> {p.name}{' '}
              <span className="ml-auto text-xs text-ink2">projects they started</span>
            </Line>
          ))}
        </Cmd.Group>
        <FormerNames words={words} to={to} />
        <InPackages words={words} to={to} />
        <Cmd.Group heading="Commands">
          {some(
            commands.filter((c) => c.enabled !== false && c.id !== 'find'),
            (c) => c.words,
          ).map((c: Command) => (
            <Line
              key={c.id}
              id={`command ${c.id}`}
              run={() => {
                close();
                c.run();
              }}
            >
              {c.words}{' '}
              {c.keys && (
                <kbd className="ml-auto rounded border border-line px-1 font-mono text-xs text-ink2">
                  {c.keys.replace('+', ' ')}
                </kbd>
              )}
            </Line>
          ))}
        </Cmd.Group>
      </Cmd.List>
    </Cmd>
  );
}

/** Letters after which old names are looked for: fewer are in all of them. */
const LEAST = 3;

/** Whoever remembers only what a file was called finds what it is called now. */
function FormerNames({ words, to }: { words: string; to: (address: string) => () => void }) {
  const sought = useDebounced(words.trim(), 150);
  const { currentData = [] } = changesApi.useFormerNamesQuery(sought, { skip: sought.length < LEAST });
  if (currentData.length === 0) return null;
  return (
    <Cmd.Group heading="Former names">
      {currentData.map(({ project, before, after, batch }) => (
        <Line
          key={`${batch} ${before}`}
          id={`former ${batch} ${before}`}
          run={to(`/projects/${project.id}/batches?batch=${batch}`)}
        >
          <span className="min-w-0 truncate font-mono">
            <span className="text-ink2">{nameOf(before)}</span> → {nameOf(after)}
          </span>
          <span className="ml-auto shrink-0 font-mono text-xs text-plum">{project.number}</span>
        </Line>
      ))}
    </Cmd.Group>
  );
}

/** Files of projects that lie in the archive alone, and in which package. */
function InPackages({ words, to }: { words: string; to: (address: string) => () => void }) {
  const sought = useDebounced(words.trim(), 150);
  const { currentData = [] } = packagesApi.useFoundInPackagesQuery(sought, { skip: sought.length < LEAST });
  if (currentData.length === 0) return null;
  return (
    <Cmd.Group heading="In the archive">
      {currentData.map(({ id, number, package: name, path }) => (
        <Line key={`${id} ${path}`} id={`archived ${id} ${path}`} run={to(`/packages?package=${id}`)}>
          <span className="min-w-0 truncate font-mono">
            {nameOf(path)} <span className="text-ink2">in {name}</span>
          </span>
          <span className="ml-auto shrink-0 font-mono text-xs text-plum">{number}</span>
        </Line>
      ))}
    </Cmd.Group>
  );
}

function Line({ id, run, children }: { id: string; run: () => void; children: React.ReactNode }) {
  return (
    <Cmd.Item
      value={id}
      onSelect={run}
      className="flex items-center gap-2 rounded px-2 py-1.5 data-[selected=true]:bg-chosen"
    >
      {children}
    </Cmd.Item>
  );
}
