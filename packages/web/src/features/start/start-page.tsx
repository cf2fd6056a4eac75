/**
 * Start a project: fields at left, the hierarchy live in the middle, the selected line at right; the ledger alone
 * writes.
 */

import type { Look, StartRequest, TemplateRow, VolumeRow } from '@nesting/contract';
import { NO_REGISTERS, type Registers, type Value, type Values } from '@nesting/core/name';
import {
  type Adjustments,
  compileTemplate,
  type Expansion,
  inOnePlace,
  resolveTemplate,
  type Template,
} from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { usePageCommands } from '../../app/commands';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { useDebounced } from '../../app/use-debounced';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { TrayTree } from '../../tray/tray-tree';
import { Button, Empty, Heading, TextInput, Tick, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { numbersApi } from '../house/numbers-api';
import { volumesApi } from '../house/volumes-api';
import { templatesApi } from '../templates/templates-api';
import { FieldRow, Row } from './fields';
import { LineActs, Overrides } from './overrides';
import { SelectedLine } from './selected-line';
import { type Chosen, SettingsSheet, settingsOf } from './sheet';
import {
  ADJUSTED,
  draftDone,
  draftFrom,
  fieldGiven,
  numberOffered,
  redone,
  SETTINGS,
  undone,
  volumeChosen,
} from './start-slice';
import { startsApi } from './starts-api';
import { isElsewhere, type Target, TargetChoice, targetWords } from './target';
import { TemplateChoice } from './template-choice';
import { treeOfPlan } from './tree';
import { canWriteFolders, download, intoFolder, type Outcome, type Progress } from './write-elsewhere';

export function StartPage() {
  const [params] = useSearchParams();
  const templates = templatesApi.useTemplatesQuery();
  const registers = houseApi.useRegistersQuery();
  const volumes = volumesApi.useVolumesQuery(undefined, { pollingInterval: 30_000 });
  const failed = [templates, registers, volumes].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!templates.data || !registers.data || !volumes.data) return null;
  // Only what is in force, and not put away, can be started from.
  const all = templates.data.filter((t) => t.edition > 0 && !t.archived);
  const row = all.find((t) => t.id === params.get('template')) ?? all[0];
  if (row === undefined) return <Empty title="No template to start from">A coordinator writes one first.</Empty>;
  return <Starting key={row.id} row={row} all={all} registers={registers.data} volumes={volumes.data} />;
}

interface Props {
  readonly row: TemplateRow;
  readonly all: readonly TemplateRow[];
  readonly registers: Registers;
  readonly volumes: readonly VolumeRow[];
}

function Starting({ row, all, registers, volumes }: Props) {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const drafts = useAppSelector((s) => s.start);
  const draft = useMemo(() => draftFrom(drafts, row.id), [drafts, row.id]);
  const { values, adjusted, settings } = useMemo(() => parted(draft.values), [draft.values]);
  const kept = useAppSelector((s) => s.start.volume);
  const volume = volumes.find((v) => v.name === kept) ?? volumes[0];
  const to = params.get('to');
  const target: Target | null = isElsewhere(to)
    ? { kind: to }
    : volume === undefined
      ? null
      : { kind: 'volume', volume };
  const here = target?.kind === 'volume';
  const prefix = here && volume !== undefined ? `${volume.root}/` : '';
  // What is not written on a volume is one tree: the plan shows it as it will be.
  const placed = useMemo(() => (here ? adjusted : inOnePlace(adjusted)), [here, adjusted]);
  const template = useMemo(
    () => (Object.keys(placed).length === 0 ? row.template : { ...row.template, adjusted: placed }),
    [row.template, placed],
  );
  const expander = useMemo(() => compileTemplate(template, registers ?? NO_REGISTERS), [template, registers]);
  const resolved = useMemo(() => resolveTemplate(template, expander.registers), [template, expander]);
  const expansion = useMemo(() => expander.expand(values, { prefix }), [expander, values, prefix]);
  const number = typeof values.number === 'string' ? values.number : '';
  const { held, holdTrouble } = useHeldNumber(
    row.id,
    typeof expansion.values.values.client === 'string' ? expansion.values.values.client : null,
    draft.past.some((change) => change.field === 'number'),
  );
  const { clash: whole, adds, note } = useClash(number, volume, expansion.rootName);
  const [into, setInto] = useState(false);
  const adding = here && adds && into;
  const clash = adding || (!here && whole !== null && !whole.startsWith('The number')) ? null : whole;
  const there = useThere(adding ? volume : undefined, expansion);
  const nodes = useMemo(
    () => treeOfPlan(expansion, clash !== null, resolved, there),
    [expansion, clash, resolved, there],
  );
  const selected = params.get('line') ?? resolved.root.id;
  const line = expansion.lines.find((l) => l.key === selected) ?? expansion.lines[0];
  const [start, starting] = startsApi.useStartProjectMutation();
  const select = (key: string) => setParams({ template: row.id, line: key, ...(to && { to }) }, { replace: true });
  const give = (field: string, value: Value) => dispatch(fieldGiven({ template: row.id, field, value }));

  usePageCommands(
    useMemo(
      () => [
        {
          id: 'undo',
          words: 'Undo',
          keys: 'Ctrl+Z',
          run: () => void dispatch(undone(row.id)),
          enabled: draft.past.length > 0,
        },
        {
          id: 'redo',
          words: 'Redo',
          keys: 'Ctrl+Shift+Z',
          run: () => void dispatch(redone(row.id)),
          enabled: draft.future.length > 0,
        },
      ],
      [dispatch, row.id, draft.past.length, draft.future.length],
    ),
  );

  const make = async () => {
    const request: StartRequest = {
      template: row.id,
      edition: row.edition,
      volume: volume?.name ?? '',
      values,
      adjusted,
      settings,
      into: adding,
    };
    if (target?.kind !== 'volume') return elsewhere(request);
    const watch = crypto.randomUUID?.();
    setWatched(watch ?? null);
    const asked = start({ ...request, ...(watch && { watch }) });
    abort.current = asked.abort;
    const made = await asked.unwrap().catch(() => null);
    setWatched(null);
    if (made === null) return;
    dispatch(draftDone({ template: row.id, keep: keptFields(row.template) }));
    await go(`/projects/${made.id}`);
  };
  const [watched, setWatched] = useState<string | null>(null);
  const abort = useRef<(() => void) | null>(null);
  const { data: far } = startsApi.useMakingQuery(watched ?? '', { skip: watched === null, pollingInterval: 400 });
  const [written, setWritten] = useState<Outcome | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  const stop = useRef<AbortController | null>(null);
  const [reserve] = numbersApi.useReserveNumberMutation();
  const elsewhere = async (request: StartRequest) => {
    if (target === null || target.kind === 'volume') return;
    stop.current = new AbortController();
    setWritten(null);
    const outcome =
      target.kind === 'folder'
        ? await intoFolder(request, setProgress, stop.current.signal)
        : await download(request, target.kind);
    setProgress(null);
    setWritten(outcome);
    // No project here knows it: its number is kept from everybody else.
    if (outcome.ok && number === held)
      await giveBack(number).then(() =>
        reserve({ number, why: `${expansion.rootName}, written to ${targetWords(target)}` }),
      );
  };
  const [giveBack] = numbersApi.useGiveBackNumberMutation();
  const hindrance = hindranceOf(expansion, target, clash, number);
  const adjust = (next: Adjustments) => give(ADJUSTED, next as unknown as Value);
  return (
    <Columns
      id="start"
      labels={['Values of the new project', 'What will be made', 'The selected line']}
      given={
        <div className="flex flex-col gap-3">
          <h1 className="text-xl font-semibold">Start a project</h1>
          <TemplateChoice row={row} all={all} onChoose={(id) => setParams({ template: id })} />
          <NumberRow
            value={number}
            held={held}
            trouble={holdTrouble}
            taken={clash}
            note={note}
            onGive={(v) => give('number', v)}
          />
          {row.template.fields.map((field) => (
            <FieldRow
              key={field.key}
              field={field}
              value={values[field.key]}
              registers={expansion.registers}
              expansion={expansion}
              onGive={(v) => give(field.key, v)}
            />
          ))}
          <TargetChoice
            volumes={volumes}
            target={target}
            onVolume={(name) => {
              setWritten(null);
              setParams({ template: row.id }, { replace: true });
              dispatch(volumeChosen(name));
            }}
            onElsewhere={(kind) => {
              setWritten(null);
              setParams({ template: row.id, to: kind }, { replace: true });
            }}
          />
          <Overrides adjusted={adjusted} onAdjust={adjust} />
          {(row.template.setup?.settings?.length ?? 0) > 0 && (
            <details className="text-sm">
              <summary className="cursor-pointer font-semibold">
                Setup sheet{' '}
                <span className="font-normal text-ink2">
                  {settingsOf(row.template.setup, settings)
                    .map((s) => s.value)
                    .join(', ')}
                </span>
              </summary>
              <div className="pt-2">
                <SettingsSheet
                  setup={row.template.setup}
                  chosen={settings}
                  onChoose={(chosen) => give(SETTINGS, chosen as unknown as Value)}
                />
              </div>
            </details>
          )}
          <Link to={`/start/several?template=${row.id}`} className="text-sm text-bottle hover:underline">
            Several at once, from a table…
          </Link>
          <Link to="/start/adopt" className="text-sm text-bottle hover:underline">
            Take in a folder that is there…
          </Link>
        </div>
      }
      plan={
        <>
          <div className="pb-2">
            <Heading>What will be made</Heading>
          </div>
          <TrayTree label="What will be made" nodes={nodes} selected={selected} onSelect={select} />
        </>
      }
      consequence={
        line && (
          <div className="flex flex-col gap-5">
            <SelectedLine
              template={template}
              registers={expansion.registers}
              expansion={expansion}
              line={line}
              prefix={
                line.elsewhere === undefined
                  ? prefix
                  : `${volumes.find((v) => v.name === line.elsewhere?.volume)?.root ?? ''}/`
              }
              volume={here ? (volumes.find((v) => v.name === line.elsewhere?.volume) ?? volume ?? null) : null}
              clash={line.depth === 0 ? clash : null}
              onSelect={select}
            />
            <LineActs
              key={line.key}
              line={line}
              adjusted={adjusted}
              volumes={
                here ? volumes.filter((v) => v.name !== volume?.name && v.state === 'ready').map((v) => v.name) : []
              }
              onAdjust={adjust}
            />
          </div>
        )
      }
      ledger={
        <>
          <div className="min-w-0 flex-1" aria-live="polite">
            {starting.isLoading ? (
              <p>
                <strong className="font-semibold">{far ? `${far.done} of ${far.all} written.` : 'Making it…'}</strong>{' '}
                <Button look="quiet" className="h-6!" onClick={() => abort.current?.()}>
                  Stop, and take it back
                </Button>
              </p>
            ) : progress ? (
              <p>
                <strong className="font-semibold">
                  {progress.done} of {progress.all} written.
                </strong>{' '}
                <Button look="quiet" className="h-6!" onClick={() => stop.current?.abort()}>
                  Stop, and take it back
                </Button>
              </p>
            ) : written ? (
              <p className={written.ok ? '' : 'text-brick'}>{written.words}</p>
            ) : starting.isError ? (
              <p className="text-brick">
                {isAborted(starting.error) ? 'Stopped: what was made is taken back.' : troubleOf(starting.error)}
              </p>
            ) : hindrance ? (
              <p>
                <strong className="font-semibold">Nothing can be written yet.</strong>{' '}
                <span className="text-ink2">{hindrance}</span>
              </p>
            ) : (
              <p>
                <strong className="font-semibold">
                  {adding
                    ? `Adds ${expansion.folders - 1 - there.filter((p) => expansion.lines.some((l) => l.kind === 'folder' && l.path === p)).length} folders and what files are missing to`
                    : `Makes ${expansion.folders} folders and ${expansion.files} files ${here ? 'on' : 'in'}`}{' '}
                  <span className={here ? 'font-mono' : ''}>{target === null ? '' : targetWords(target)}</span>.
                </strong>{' '}
                <span className="text-ink2">
                  {here ? awayWords(expansion) : inPlaceWords(adjusted)}
                  {adding ? 'What is there stays as it is.' : here ? 'Nothing exists there yet.' : ''} Longest path{' '}
                  {expansion.longest} of {expansion.budget}.
                  {expansion.diagnostics.some((d) => d.code.startsWith('name-'))
                    ? ''
                    : ' Every name is legal on every system.'}
                </span>
              </p>
            )}
          </div>
          {here && adds && <Tick label="Add to the folder that is there" checked={into} onChange={setInto} />}
          <Button
            look="main"
            disabled={hindrance !== null || starting.isLoading || progress !== null}
            onClick={() => void make()}
          >
            {starting.isLoading
              ? 'Making it…'
              : here
                ? adding
                  ? 'Add to it'
                  : 'Make this project'
                : target?.kind === 'folder'
                  ? 'Choose the folder, and write it'
                  : 'Save it'}
          </Button>
        </>
      }
    />
  );
}

/** The next number, held for whoever fills in the form; renewed while the page is open. One written by hand stays. */
function useHeldNumber(
  template: string,
  client: string | null,
  byHand: boolean,
): { held: string | null; holdTrouble: string | null } {
  const dispatch = useAppDispatch();
  const [hold, { data, error }] = numbersApi.useHoldNumberMutation();
  const number = data?.number;
  const [giveBack] = numbersApi.useGiveBackNumberMutation();
  useEffect(() => {
    const ask = () => void hold({ year: new Date().getFullYear(), month: new Date().getMonth() + 1, client, template });
    ask();
    const timer = setInterval(ask, 10 * 60_000);
    addEventListener('pageshow', ask);
    return () => {
      clearInterval(timer);
      removeEventListener('pageshow', ask);
    };
  }, [hold, client, template]);
  // Who leaves the form, or gets another number, gives this one back; after a start there is nothing to give.
  useEffect(() => {
    if (number === undefined) return;
    const leave = () =>
      void fetch(`/api/numbers/hold/${encodeURIComponent(number)}`, { method: 'DELETE', keepalive: true });
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('pagehide', leave);
      void giveBack(number);
    };
  }, [giveBack, number]);
  useEffect(() => {
    if (number !== undefined && !byHand) dispatch(numberOffered({ template, number }));
  }, [number, byHand, template, dispatch]);
  return { held: number ?? null, holdTrouble: error === undefined ? null : troubleOf(error) };
}

/** Looked up a moment after the last letter: another project, or a folder that stands there already. */
function useClash(
  number: string,
  volume: VolumeRow | undefined,
  folder: string,
): { clash: string | null; adds: boolean; note: string | null } {
  const asked = useDebounced(
    useMemo(() => ({ number, volume: volume?.name ?? '', folder }), [number, volume?.name, folder]),
    250,
  );
  const { data, originalArgs } = startsApi.useLookQuery(asked, {
    skip: asked.volume === '' || (asked.folder === '' && asked.number === ''),
    refetchOnMountOrArgChange: true,
    pollingInterval: 15_000,
  }) as { data?: Look; originalArgs?: typeof asked };
  if (data === undefined || originalArgs?.folder !== folder || originalArgs.number !== number)
    return { clash: null, adds: false, note: null };
  return {
    clash: clashOf(data, number, folder, volume?.name ?? ''),
    adds: data.folderOnDisk && !data.folderTaken,
    note: data.numberNote,
  };
}

function clashOf(look: Look, number: string, folder: string, volume: string): string | null {
  if (look.numberReserved !== null) return `The number ${number} is reserved: ${look.numberReserved}.`;
  if (look.numberTaken) return `The number ${number} belongs to another project.`;
  if (look.numberHeldBy !== null) return `The number ${number} is held for ${look.numberHeldBy} just now.`;
  if (look.folderTaken || look.folderOnDisk) return `${folder} exists already on ${volume}.`;
  return null;
}

/** The first thing in the way, in a sentence; `null` when the project can be made. */
function hindranceOf(expansion: Expansion, target: Target | null, clash: string | null, number: string): string | null {
  if (target === null) return 'No volume is configured.';
  if (target.kind === 'folder' && !canWriteFolders())
    return 'This browser cannot write folders on this computer: take a zip instead.';
  if (target.kind === 'volume' && target.volume.state === 'missing')
    return `The volume ${target.volume.name} cannot be reached just now.`;
  if (target.kind === 'volume' && target.volume.state === 'read-only')
    return `The volume ${target.volume.name} is read-only.`;
  if (number === '') return 'A project needs a number.';
  const refused = expansion.diagnostics.filter((d) => d.weight === 'refused');
  const required = refused.find((d) => d.code === 'field-required') ?? refused.find((d) => d.code === 'value-missing');
  if (required) return wordsFor(required.code, required.params);
  if (refused[0])
    return `${wordsFor(refused[0].code, refused[0].params)}${refused.length > 1 ? ` And ${refused.length - 1} more.` : ''}`;
  return clash;
}

function NumberRow({
  value,
  held,
  trouble,
  taken,
  note,
  onGive,
}: {
  value: string;
  held: string | null;
  trouble: string | null;
  taken: string | null;
  note: string | null;
  onGive: (value: string) => void;
}) {
  const id = useId();
  const clash = value !== '' && taken?.startsWith('The number') ? taken : null;
  return (
    <Row id={id} label="Number" faults={[]} help={clash === null ? (trouble ?? note ?? undefined) : undefined}>
      <TextInput
        id={id}
        value={value}
        onChange={(e) => onGive(e.target.value)}
        fault={clash !== null}
        autoComplete="off"
        becomes={value !== '' && value === held ? 'next, held for you' : undefined}
        className="font-mono"
      />
      {clash && <p className="pt-0.5 text-xs text-brick">{clash}</p>}
    </Row>
  );
}

/** What a draft holds: the values of its fields, and what stands beside them. */
function parted(all: Values): { values: Values; adjusted: Adjustments; settings: Chosen } {
  const { [ADJUSTED]: adjusted, [SETTINGS]: settings, ...values } = all;
  return {
    values,
    adjusted: (adjusted ?? {}) as unknown as Adjustments,
    settings: (settings ?? {}) as unknown as Chosen,
  };
}

/** Fields whose values are mostly the same for one template: offered again the next time. */
const keptFields = (template: Template): string[] => [
  ...template.fields.filter((f) => f.type === 'choice' || f.type === 'person').map((f) => f.key),
  SETTINGS,
];

const isAborted = (error: unknown): boolean => (error as { name?: string } | undefined)?.name === 'AbortError';

/** What is made on other volumes, in words. */
function awayWords(expansion: Expansion): string {
  const by = new Map<string, number>();
  for (const l of expansion.lines)
    if (l.elsewhere?.made && l.kind === 'folder') by.set(l.elsewhere.volume, (by.get(l.elsewhere.volume) ?? 0) + 1);
  return [...by].map(([volume, n]) => `And ${n} ${n === 1 ? 'folder' : 'folders'} on ${volume}. `).join('');
}

/** What was to lie on another volume, said where there are no volumes. */
function inPlaceWords(adjusted: Adjustments): string {
  const count = Object.values(adjusted).filter((a) => a.volume !== undefined).length;
  if (count === 0) return '';
  return `${many(count, 'folder')} meant for another volume ${count === 1 ? 'is' : 'are'} written here too. `;
}

const NOTHING: readonly string[] = [];

/** Which of the planned paths are in the folder that is added to. */
function useThere(volume: VolumeRow | undefined, expansion: Expansion): readonly string[] {
  const paths = useMemo(() => expansion.lines.filter((l) => l.made && l.path !== '').map((l) => l.path), [expansion]);
  const asked = useDebounced(
    useMemo(
      () => ({ volume: volume?.name ?? '', folder: expansion.rootName, paths }),
      [volume?.name, expansion.rootName, paths],
    ),
    250,
  );
  const { data } = startsApi.usePathsThereQuery(asked, { skip: volume === undefined || asked.folder === '' });
  return volume === undefined ? NOTHING : (data ?? NOTHING);
}
