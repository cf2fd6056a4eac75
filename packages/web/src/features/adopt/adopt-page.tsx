/**
 * A folder that grew without a template becomes a project: which template fits, what its names say, what is otherwise;
 * taken in as it is.
 */

import type { FitRow, TemplateRow } from '@nesting/contract';
import type { Registers, Value, Values } from '@nesting/core/name';
import { compileTemplate } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Button, Choose, Empty, Heading, TextInput, Tick, Trouble } from '../../ui';
import { changesApi } from '../batches/changes-api';
import { houseApi } from '../house/house-api';
import { volumesApi } from '../house/volumes-api';
import { ListRows } from '../reshape/list-rows';
import { FieldRow, Row } from '../start/fields';
import { templatesApi } from '../templates/templates-api';

export function AdoptPage() {
  const [params, put] = useAddress();
  const volumes = volumesApi.useVolumesQuery();
  const registers = houseApi.useRegistersQuery();
  const templates = templatesApi.useTemplatesQuery();
  const failed = [volumes, registers, templates].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!volumes.data || !registers.data || !templates.data) return null;
  const volume = params.get('volume') ?? volumes.data[0]?.name ?? '';
  const folder = params.get('folder') ?? '';
  return (
    <Adopting
      key={`${volume}/${folder}`}
      volume={volume}
      folder={folder}
      volumes={volumes.data.map((v) => v.name)}
      registers={registers.data}
      templates={templates.data}
      onPlace={(v, f) => put({ volume: v, folder: f === '' ? null : f })}
    />
  );
}

interface Props {
  readonly volume: string;
  readonly folder: string;
  readonly volumes: readonly string[];
  readonly registers: Registers;
  readonly templates: readonly TemplateRow[];
  readonly onPlace: (volume: string, folder: string) => void;
}

function Adopting({ volume, folder, volumes, registers, templates, onPlace }: Props) {
  const go = useNavigate();
  const { data, error, isFetching } = changesApi.useFitsQuery({ volume, folder }, { skip: folder === '' });
  const [chosen, setChosen] = useState<string | null>(null);
  const [given, setGiven] = useState<Values>({});
  const [makeMissing, setMakeMissing] = useState(false);
  const [adopt, adopting] = changesApi.useAdoptMutation();
  const fit = data?.fits.find((f) => f.template === chosen) ?? data?.fits[0];
  const row = templates.find((t) => t.id === fit?.template);
  const values = useMemo<Values>(() => ({ ...fit?.values, ...given }), [fit, given]);
  const expansion = useMemo(
    () =>
      row === undefined || fit === undefined
        ? null
        : compileTemplate({ ...row.template, adjusted: fit.adjusted }, registers).expand(values),
    [row, fit, registers, values],
  );
  const give = (key: string, value: Value) => setGiven({ ...given, [key]: value });
  const refused = expansion?.diagnostics.find((d) => d.weight === 'refused');
  const hindrance =
    folder === ''
      ? 'Choose a folder first.'
      : fit === undefined
        ? 'Nothing fits yet.'
        : String(values.number ?? '') === ''
          ? 'It needs a number.'
          : refused
            ? wordsFor(refused.code, refused.params)
            : null;
  const take = async () => {
    if (fit === undefined) return;
    const made = await adopt({
      volume,
      folder,
      template: fit.template,
      edition: fit.edition,
      values: values as never,
      adjusted: fit.adjusted,
      makeMissing,
    })
      .unwrap()
      .catch(() => null);
    if (made !== null) await go(`/projects/${made.id}`);
  };
  return (
    <Columns
      id="adopt"
      labels={['The folder and what it is', 'How it fits', 'The template']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <h1 className="text-xl font-semibold">Take a folder in as a project</h1>
            <p className="text-sm text-ink2">Nothing in it is moved, renamed or removed.</p>
          </div>
          <FolderChoice volume={volume} folder={folder} volumes={volumes} onPlace={onPlace} />
          {data && (
            <Fits
              fits={data.fits}
              chosen={fit?.template ?? ''}
              templates={templates}
              onChoose={(t) => {
                setChosen(t);
                setGiven({});
              }}
            />
          )}
          {row && expansion && (
            <section aria-label="What it is" className="flex flex-col gap-2">
              <Heading>What it is</Heading>
              <Row id="adopt-number" label="Number" faults={[]}>
                <TextInput
                  id="adopt-number"
                  value={String(values.number ?? '')}
                  onChange={(e) => give('number', e.target.value)}
                  className="font-mono"
                  spellCheck={false}
                  autoComplete="off"
                />
              </Row>
              {row.template.fields.map((field) =>
                field.type === 'list' ? (
                  <ListRows
                    key={field.key}
                    field={field}
                    values={values}
                    expansion={expansion}
                    onValues={(v) => setGiven({ ...given, [field.key]: v[field.key] as Value })}
                  />
                ) : (
                  <FieldRow
                    key={field.key}
                    field={field}
                    value={values[field.key]}
                    registers={expansion.registers}
                    expansion={expansion}
                    onGive={(v) => give(field.key, v)}
                  />
                ),
              )}
            </section>
          )}
        </div>
      }
      plan={
        error ? (
          <Trouble message={troubleOf(error)} />
        ) : folder === '' ? (
          <Empty title="No folder is chosen">
            Choose one at left: the templates are compared with it, and its names are read.
          </Empty>
        ) : fit === undefined ? (
          <p className="text-ink2">{isFetching ? 'Comparing it with every template…' : ''}</p>
        ) : (
          <FitShown fit={fit} />
        )
      }
      consequence={
        row && (
          <div className="flex flex-col gap-3 text-sm">
            <Heading>{row.name}</Heading>
            <Nest root={nestOfTemplate(row.template)} width={240} height={150} label={`The nest of ${row.name}`} />
            <p className="text-ink2">{row.purpose}</p>
            <p className="text-ink2">
              What is called otherwise keeps its name, as this project’s own. What no rule knows stays, and the first
              check says so.
            </p>
          </div>
        )
      }
      ledger={
        <>
          <div className="min-w-0 flex-1" aria-live="polite">
            {adopting.isError ? (
              <p className="text-brick">{troubleOf(adopting.error)}</p>
            ) : hindrance !== null ? (
              <p>
                <strong className="font-semibold">It cannot be taken in yet.</strong>{' '}
                <span className="text-ink2">{hindrance}</span>
              </p>
            ) : (
              <p>
                <strong className="font-semibold">
                  Takes{' '}
                  <span className="font-mono">
                    {volume}/{folder}
                  </span>{' '}
                  in as {String(values.number)}.
                </strong>{' '}
                <span className="text-ink2">
                  Only Nesting’s own folder is made in it
                  {makeMissing && fit ? `, and the ${many(fit.missing.length, 'folder')} it lacks` : ''}.
                </span>
              </p>
            )}
          </div>
          {fit && fit.missing.length > 0 && (
            <Tick label={`Make the ${fit.missing.length} it lacks`} checked={makeMissing} onChange={setMakeMissing} />
          )}
          <Button look="main" disabled={hindrance !== null || adopting.isLoading} onClick={() => void take()}>
            {adopting.isLoading ? 'Taking it in…' : 'Take it in'}
          </Button>
        </>
      }
    />
  );
}

function FolderChoice({ volume, folder, volumes, onPlace }: Pick<Props, 'volume' | 'folder' | 'volumes' | 'onPlace'>) {
  const [at, setAt] = useState(folder.includes('/') ? folder.slice(0, folder.lastIndexOf('/')) : '');
  const { data, error } = templatesApi.useVolumeFoldersQuery({ volume, path: at }, { skip: volume === '' });
  const below = (name: string) => (at === '' ? name : `${at}/${name}`);
  return (
    <section aria-label="The folder" className="flex flex-col gap-2 text-sm">
      <Heading>The folder</Heading>
      <Choose
        label="Volume"
        value={volume}
        options={volumes.map((v) => ({ value: v, label: v }))}
        onChange={(v) => onPlace(v, '')}
      />
      {at !== '' && (
        <p className="flex items-center gap-2">
          <span className="min-w-0 flex-1 font-mono text-xs break-all">{at}</span>
          <Button look="quiet" className="h-6!" onClick={() => setAt(at.split('/').slice(0, -1).join('/'))}>
            Up
          </Button>
        </p>
      )}
      {error && <p className="text-brick">{troubleOf(error)}</p>}
      <ul
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
        tabIndex={0}
        aria-label="Folders"
        className="max-h-40 overflow-auto rounded-tray border border-line bg-sheet p-1"
      >
        {data?.folders.map((name) => (
          <li key={name} className="flex items-center gap-1">
            <button
              type="button"
              aria-pressed={below(name) === folder}
              onClick={() => onPlace(volume, below(name))}
              className={`min-w-0 flex-1 rounded px-1.5 py-0.5 text-left font-mono text-xs break-all ${below(name) === folder ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
            >
              {name}
            </button>
            <Button
              look="quiet"
              className="h-5! text-xs"
              aria-label={`Look into ${name}`}
              onClick={() => setAt(below(name))}
            >
              into it
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Fits({
  fits,
  chosen,
  templates,
  onChoose,
}: {
  fits: readonly FitRow[];
  chosen: string;
  templates: readonly TemplateRow[];
  onChoose: (template: string) => void;
}) {
  return (
    <section aria-label="Templates that fit" className="flex flex-col gap-1">
      <Heading>Templates, the best fitting first</Heading>
      <ul>
        {fits.map((f) => {
          const row = templates.find((t) => t.id === f.template);
          return (
            <li key={f.template}>
              <button
                type="button"
                aria-pressed={f.template === chosen}
                onClick={() => onChoose(f.template)}
                className={`flex w-full items-center gap-3 rounded-tray px-2 py-1 text-left text-sm ${f.template === chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
              >
                {row && (
                  <Nest root={nestOfTemplate(row.template)} width={64} height={44} label={`The shape of ${f.name}`} />
                )}
                <span className="min-w-0 flex-1 truncate font-semibold">{f.name}</span>
                <span className="text-ink2 tabular-nums">{Math.round(f.score * 100)} of 100</span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function FitShown({ fit }: { fit: FitRow }) {
  const parts = [
    {
      title: `${many(fit.otherwise.length, 'folder')} called otherwise`,
      lines: fit.otherwise.map((o) => ({ path: o.path, note: `planned as ${o.planned}` })),
      none: 'Every folder found has the name the template gives it.',
    },
    {
      title: `${many(fit.missing.length, 'folder')} it lacks`,
      lines: fit.missing.map((path) => ({ path, note: 'not there' })),
      none: 'Nothing the template always makes is missing.',
    },
    {
      title: `${many(fit.unplanned.length, 'folder')} no rule knows`,
      lines: fit.unplanned.map((path) => ({ path, note: 'stays as it is' })),
      none: 'The template knows every folder.',
    },
  ];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
    <div tabIndex={0} className="flex min-h-0 flex-1 flex-col gap-5 overflow-auto">
      <p className="text-lg">
        <strong className="font-semibold">{many(fit.matched, 'folder')} fit.</strong>
      </p>
      {parts.map((p) => (
        <section key={p.title} aria-label={p.title} className="flex flex-col gap-1">
          <Heading>{p.title}</Heading>
          {p.lines.length === 0 && <p className="text-sm text-ink2">{p.none}</p>}
          <ul>
            {p.lines.slice(0, 200).map((l) => (
              <li key={l.path} className="flex items-baseline justify-between gap-3 border-b border-line py-1">
                <span className="min-w-0 font-mono text-sm break-all">{l.path}</span>
                <span className="shrink-0 text-xs text-ink2">{l.note}</span>
              </li>
            ))}
          </ul>
          {p.lines.length > 200 && <p className="text-xs text-ink2">…and {p.lines.length - 200} more</p>}
        </section>
      ))}
    </div>
  );
}
