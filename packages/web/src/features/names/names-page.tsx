/**
 * What to call a file and where to put it: for artists, on a phone too. Or a name found somewhere, read and put right.
 */

import { type HeldName, type Me, type ProjectPage, type ProjectRow, SYSTEMS } from '@nesting/contract';
import { elementAt } from '@nesting/core';
import { examplePieces, NO_REGISTERS, type SlotDomain, type Value, writePieces } from '@nesting/core/name';
import type { FolderConvention } from '@nesting/core/project';
import type { PlannedLine } from '@nesting/core/template';
import { useDeferredValue, useEffect, useId, useMemo } from 'react';
import { useOutletContext } from 'react-router';
import { Anatomy } from '../../anatomy/anatomy';
import { troubleOf } from '../../app/api';
import { chooseReaderSystem, SYSTEM_WORDS, useReaderPath, useReaderSystem } from '../../app/reader-path';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { ago } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Choose, CopyButton, Empty, Heading, Labelled, Radios, TextInput, Trouble } from '../../ui';
import { DateField } from '../../ui/date-field';
import { Finder } from '../../ui/finder';
import { conventionsApi } from '../conventions/conventions-api';
import { TriedRow } from '../conventions/tried-row';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { askedSlots, meaningOf, type ProjectNames, projectNames, type Savable } from './project-names';

export function NamesPage() {
  const me = useOutletContext<Me>();
  const { data: projects, isError, error, refetch } = projectsApi.useSomeProjectsQuery('');
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const [params, put] = useAddress();
  usePageTitle('Name helper');
  const running = (projects ?? []).filter((p) => p.state === 'running');
  const pasted = params.get('name') ?? '';
  const row =
    running.find((p) => p.number === params.get('project')) ?? running.find((p) => pasted.includes(p.number)) ?? null;
  const { data: page, error: lost } = projectsApi.useProjectQuery(row?.id ?? '', { skip: row === null });
  const names = useMemo(
    () => (page === undefined || page.id !== row?.id ? null : projectNames(page, registers)),
    [page, registers, row],
  );
  const savable = names?.savable.find((s) => s.convention.id === params.get('save')) ?? null;
  const place =
    savable?.places.find((p) => p.line.path === params.get('in')) ??
    (savable?.places.length === 1 ? savable.places[0] : undefined);
  const values = useMemo(
    () =>
      Object.fromEntries([...params].flatMap(([key, value]) => (key.startsWith('v.') ? [[key.slice(2), value]] : []))),
    [params],
  );
  const filled = useMemo(
    () => (place === undefined ? {} : { ...defaultsOf(place.rule, me, row), ...values }),
    [place, values, me, row],
  );
  const [ask, { data: held, error: refused, isLoading, reset }] = conventionsApi.useAskNameMutation();
  const wanted = JSON.stringify([row?.id, savable?.convention.id, place?.line.path, filled]);
  // What was given belongs to what was asked: another question begins anew.
  useEffect(() => reset(), [wanted]);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (projects === undefined) return null;
  if (running.length === 0)
    return (
      <Empty title="No project is running">
        When one is, this page says what to call a file in it, and where to put it.
      </Empty>
    );
  const preview = place === undefined ? null : previewOf(place.rule, filled);
  const mayAsk = me.role !== 'lead';
  const give = () => {
    if (row && savable && place)
      void ask({ project: row.id, convention: savable.convention.id, folder: place.line.path, values: filled });
  };
  return (
    <Columns
      id="names"
      labels={['What is being saved', 'What to call it', 'A name that is there already']}
      given={
        <form
          className="flex flex-col gap-4"
          onSubmit={(e) => {
            e.preventDefault();
            if (mayAsk && preview?.complete) give();
          }}
        >
          <h1 className="text-xl font-semibold">What to call a file</h1>
          <ProjectChoice
            running={running}
            row={row}
            onChoose={(number) => put({ project: number, save: null, in: null })}
          />
          {lost && <Trouble message={troubleOf(lost)} />}
          {names && (
            <WhatChoice
              names={names}
              savable={savable}
              onChoose={(id) => put({ project: row?.number ?? '', save: id, in: null })}
            />
          )}
          {savable && savable.places.length > 1 && (
            <Finder
              label="Where"
              mono
              options={savable.places.map(({ line }) => ({ value: line.path, label: line.path }))}
              value={place?.line.path ?? null}
              onChoose={(path) => put({ in: path })}
            />
          )}
          {place &&
            askedSlots(place.rule).map((slot) => (
              <SlotField
                key={slot.field}
                field={slot.field}
                domain={slot.domain}
                value={String(filled[slot.field] ?? '')}
                optional={isOptional(place.rule, slot.field)}
                onGive={(value) => put({ [`v.${slot.field}`]: value })}
              />
            ))}
          <button type="submit" hidden aria-hidden />
        </form>
      }
      plan={
        place === undefined || page === undefined ? (
          <Empty title="Choose what you are saving">
            Then its whole name stands here, with the folder it belongs in and the next version that is free.
          </Empty>
        ) : (
          <Result
            place={place.line}
            preview={preview}
            held={held ?? null}
            refused={refused ? troubleOf(refused) : null}
            project={page}
          />
        )
      }
      consequence={<Found names={names} name={pasted} onName={(name) => put({ name })} />}
      ledger={
        <>
          <p className="flex-1" role="status">
            {held ? (
              <>
                <strong className="font-semibold">
                  Yours until{' '}
                  {new Date(held.until).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })}.
                </strong>{' '}
                <span className="text-ink2">Nobody else is given this name before then. Nothing was written.</span>
              </>
            ) : (
              <span className="text-ink2">
                {mayAsk
                  ? 'The next free version is looked up on the disk when you ask, and held for you for ten minutes.'
                  : 'As a lead you may look; artists and coordinators are given names.'}
              </span>
            )}
          </p>
          {mayAsk && (
            <Button look="main" disabled={place === undefined || !preview?.complete || isLoading} onClick={give}>
              {held ? 'Ask again' : 'Give me the name'}
            </Button>
          )}
        </>
      }
    />
  );
}

function ProjectChoice({
  running,
  row,
  onChoose,
}: {
  running: readonly ProjectRow[];
  row: ProjectRow | null;
  onChoose: (number: string) => void;
}) {
  return (
    <Finder
      label="Project"
      options={running.map((p) => ({ value: p.number, label: `${p.number} ${p.title}` }))}
      value={row?.number ?? null}
      onChoose={onChoose}
    />
  );
}

function WhatChoice({
  names,
  savable,
  onChoose,
}: {
  names: ProjectNames;
  savable: Savable | null;
  onChoose: (id: string) => void;
}) {
  if (names.savable.length === 0)
    return <p className="text-ink2">No folder of this project prescribes how files are named.</p>;
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="pb-1 text-xs font-semibold text-ink2">What is being saved</legend>
      <div className="flex flex-wrap gap-2">
        {names.savable.map(({ convention }) => (
          <button
            key={convention.id}
            type="button"
            aria-pressed={savable?.convention.id === convention.id}
            onClick={() => onChoose(convention.id)}
            className={`min-h-9 rounded-tray border px-3 text-sm ${savable?.convention.id === convention.id ? 'border-plum bg-chosen font-semibold' : 'border-rule bg-sheet hover:border-ink'}`}
          >
            {convention.name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

const isOptional = ({ strict }: FolderConvention, field: string): boolean =>
  strict.parts.some(
    (p) => p.kind === 'group' && p.parts.some((inner) => inner.kind === 'slot' && inner.field === field),
  );

/** The person's own initials, today, the project's title, and the only entry of a list. */
function defaultsOf({ strict }: FolderConvention, me: Me, row: ProjectRow | null): Record<string, string | number> {
  const out: Record<string, string | number> = {};
  for (const { field, domain } of strict.slots) {
    if (domain.kind === 'fixed' && domain.of === 'person' && domain.entries.some((e) => e.value === me.initials))
      out[field] = me.initials;
    else if (domain.kind === 'fixed' && domain.entries.length === 1) out[field] = String(domain.entries[0]?.value);
    else if (domain.kind === 'fixed' && domain.of === 'ext') out[field] = String(domain.entries[0]?.value);
    else if (domain.kind === 'date') out[field] = new Date().toLocaleDateString('sv');
    else if (field === 'title' && row) out[field] = row.title;
  }
  return out;
}

interface Preview {
  readonly parts: readonly { text: string; label: string | null; ok: boolean }[];
  readonly complete: boolean;
}

/** The name as far as it is known; the version stands for the next free one. */
function previewOf({ strict, bound }: FolderConvention, values: Readonly<Record<string, Value>>): Preview {
  const letters = strict.slots.some((s) => s.field === 'version' && s.domain.kind === 'letters');
  const all = { ...bound, ...values, version: letters ? 'A' : 1, frame: 1 };
  const written = writePieces(strict, all);
  const pieces = written.ok ? written.value : examplePieces(strict, all);
  const missing = new Set(written.ok ? [] : written.faults.map((f) => f.field));
  return {
    complete: written.ok,
    parts: pieces.map((p) => ({
      text: p.field === 'version' ? p.text.replace(/./g, '·') : missing.has(p.field ?? '') ? '?' : p.text,
      label: p.field === 'version' ? 'next free' : p.field,
      ok: !missing.has(p.field ?? ''),
    })),
  };
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  ext: 'Extension',
  person: 'Who',
  date: 'Date',
  client: 'Client',
};

function SlotField({
  field,
  domain,
  value,
  optional,
  onGive,
}: {
  field: string;
  domain: SlotDomain;
  value: string;
  optional: boolean;
  onGive: (value: string) => void;
}) {
  const id = useId();
  const words = FIELD_WORDS[field] ?? field.slice(0, 1).toUpperCase() + field.slice(1).replace(/[-_]/g, ' ');
  const label = optional ? `${words}, may be left out` : words;
  if (domain.kind === 'fixed') {
    const entries = domain.entries.filter((e) => !e.retired);
    const options = [
      ...(optional ? [{ value: '-', label: 'left out' }] : []),
      ...entries.map((e) => ({
        value: String(e.value),
        label: e.also[0] && e.also[0] !== e.text ? `${e.text}, ${e.also[0]}` : e.text,
      })),
    ];
    const chosen = value === '' && optional ? '-' : value;
    const choose = (next: string) => onGive(next === '-' ? '' : next);
    if (options.length <= 5)
      return (
        <Labelled id={id} label={label}>
          <Radios
            label={label}
            value={chosen}
            options={options.map((o) => ({ ...o, label: elementAt(o.label.split(','), 0) }))}
            onChange={choose}
          />
        </Labelled>
      );
    return (
      <Labelled id={id} label={label}>
        <Choose id={id} label={label} value={chosen} options={options} onChange={choose} />
      </Labelled>
    );
  }
  if (domain.kind === 'date')
    return (
      <Labelled id={id} label={label}>
        <DateField id={id} value={value} onGive={onGive} fault={false} />
      </Labelled>
    );
  const type = domain.kind === 'digits' ? 'number' : 'text';
  return (
    <Labelled id={id} label={label}>
      <TextInput id={id} type={type} value={value} onChange={(e) => onGive(e.target.value)} autoComplete="off" />
    </Labelled>
  );
}

function Result({
  place,
  preview,
  held,
  refused,
  project,
}: {
  place: PlannedLine;
  preview: Preview | null;
  held: HeldName | null;
  refused: string | null;
  project: ProjectPage;
}) {
  const system = useReaderSystem();
  const wholePath = useReaderPath(project);
  const folder = wholePath(place.path);
  const file = held === null ? '' : wholePath(`${held.folder}/${held.name}`);
  return (
    <div className="flex flex-col gap-5">
      {held ? (
        <section aria-label="The name" className="flex flex-col gap-2 rounded-tray border border-plum bg-sheet p-4">
          <Heading>The name</Heading>
          <p className="flex items-start gap-2 font-mono text-lg break-all">
            <strong className="font-semibold" data-testid="held-name">
              {held.name}
            </strong>{' '}
            <CopyButton text={held.name} what="the name" />
          </p>
          <p className="flex items-start gap-2 font-mono text-sm break-all text-ink2">
            {file} <CopyButton text={file} what="the whole path" />
          </p>
          {!held.folderThere && <p className="text-sm text-ochre">Its folder is not on the disk yet.</p>}
        </section>
      ) : (
        preview && (
          <section aria-label="The name so far" className="flex flex-col gap-2">
            <Heading>The name so far</Heading>
            <Anatomy parts={preview.parts} large />
          </section>
        )
      )}
      {refused && <Trouble message={refused} />}
      <section aria-label="The folder" className="flex flex-col gap-1">
        <Heading>Its folder, on {project.volume}</Heading>
        <p className="flex items-start gap-2 font-mono text-sm break-all">
          {folder} <CopyButton text={folder} what="the folder" />
        </p>
        <div className="flex flex-wrap items-center gap-2 pt-1 text-sm text-ink2">
          Paths as on
          <Radios
            label="Paths as on"
            value={system}
            options={SYSTEMS.map((value) => ({ value, label: SYSTEM_WORDS[value] }))}
            onChange={chooseReaderSystem}
          />
        </div>
      </section>
      <Newest project={project.id} path={place.path} />
    </div>
  );
}

const NEWEST_SHOWN = 8;

/** What lies in the folder at this moment: the versions so far. */
function Newest({ project, path }: { project: string; path: string }) {
  const { data } = projectsApi.useFolderFilesQuery({ project, path });
  if (data === undefined || data.path !== path || data.files.length === 0) return null;
  const newest = data.files.toSorted((a, b) => (a.modified < b.modified ? 1 : -1)).slice(0, NEWEST_SHOWN);
  return (
    <section aria-label="Newest in the folder" className="flex flex-col gap-1">
      <Heading>Newest in the folder</Heading>
      <ul className="divide-y divide-line">
        {newest.map((f) => (
          <li key={f.name} className="flex justify-between gap-3 py-1 font-mono text-sm">
            <span className="min-w-0 break-all">{f.name}</span>
            <span className="shrink-0 font-sans text-xs text-ink2">{ago(f.modified)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Found({ names, name, onName }: { names: ProjectNames | null; name: string; onName: (name: string) => void }) {
  const id = useId();
  const late = useDeferredValue(name.trim());
  const meaning = useMemo(() => (names === null || late === '' ? null : meaningOf(names, late)), [names, late]);
  return (
    <div className="flex flex-col gap-3">
      <Labelled id={id} label="A name you have" help="Its parts, and the right name where it breaks the rule">
        <TextInput
          id={id}
          value={name}
          onChange={(e) => onName(e.target.value)}
          placeholder="Paste a name"
          autoComplete="off"
          spellCheck={false}
          className="font-mono"
        />
      </Labelled>
      {late !== '' && names === null && <p className="text-sm text-ink2">Choose the project first.</p>}
      {meaning && (
        <>
          <TriedRow tried={meaning.tried} />
          <p className="text-sm">
            {meaning.tried.ok ? 'It follows' : 'Looked at as'}{' '}
            <strong className="font-semibold">{meaning.convention.name}</strong>
            {meaning.folders.length > 0 && (
              <>
                ; it belongs in <span className="font-mono break-all">{meaning.folders.slice(0, 3).join(', ')}</span>
                {meaning.folders.length > 3 ? ` and ${meaning.folders.length - 3} more` : ''}
              </>
            )}
            .
          </p>
        </>
      )}
    </div>
  );
}
