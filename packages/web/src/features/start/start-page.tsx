/** Start a project: fields at left, the hierarchy live in the middle, the selected line at right; the ledger alone writes. */
import type { TemplateRow, VolumeRow } from '@nesting/contract';
import { compileTemplate, NO_REGISTERS, type Registers, resolveTemplate, type Value, wordsFor } from '@nesting/core';
import { useEffect, useId, useMemo } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, troubleOf } from '../../app/api';
import { usePageCommands } from '../../app/commands';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { useLate } from '../../app/use-late';
import { size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { TrayTree } from '../../tray/tray-tree';
import { Button, Empty, Heading, Line, Menu, Trouble } from '../../ui/ui';
import { FieldRow, Row } from './fields';
import { SelectedLine } from './selected-line';
import { draftDone, EMPTY_DRAFT, fieldGiven, numberOffered, redone, undone, volumeChosen } from './start-slice';
import { treeOfPlan } from './tree';

export function StartPage() {
  const [params] = useSearchParams();
  const templates = api.useTemplatesQuery();
  const registers = api.useRegistersQuery();
  const volumes = api.useVolumesQuery(undefined, { pollingInterval: 30_000 });
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
  const draft = useAppSelector((s) => s.start.drafts[row.id]) ?? EMPTY_DRAFT;
  const kept = useAppSelector((s) => s.start.volume);
  const volume = volumes.find((v) => v.name === kept) ?? volumes[0];
  const prefix = volume === undefined ? '' : `${volume.root}/`;
  const expander = useMemo(() => compileTemplate(row.template, registers ?? NO_REGISTERS), [row.template, registers]);
  const resolved = useMemo(() => resolveTemplate(row.template, expander.registers), [row.template, expander]);
  const expansion = useMemo(() => expander.expand(draft.values, { prefix }), [expander, draft.values, prefix]);
  const number = typeof draft.values.number === 'string' ? draft.values.number : '';
  const { held, holdTrouble } = useHeldNumber(row.id, draft.past.some((change) => change.field === 'number'));
  const clash = useClash(number, volume, expansion.rootName);
  const nodes = useMemo(() => treeOfPlan(expansion, clash !== null, resolved), [expansion, clash, resolved]);
  const selected = params.get('line') ?? resolved.root.id;
  const line = expansion.lines.find((l) => l.key === selected) ?? expansion.lines[0];
  const [start, starting] = api.useStartProjectMutation();
  const select = (key: string) => setParams({ template: row.id, line: key }, { replace: true });
  const give = (field: string, value: Value) => dispatch(fieldGiven({ template: row.id, field, value }));

  usePageCommands(useMemo(() => [
    { id: 'undo', words: 'Undo', keys: 'Ctrl+Z', run: () => void dispatch(undone(row.id)), enabled: draft.past.length > 0 },
    { id: 'redo', words: 'Redo', keys: 'Ctrl+Shift+Z', run: () => void dispatch(redone(row.id)), enabled: draft.future.length > 0 },
  ], [dispatch, row.id, draft.past.length, draft.future.length]));

  const make = async () => {
    const made = await start({ template: row.id, edition: row.edition, volume: volume?.name ?? '', values: draft.values }).unwrap().catch(() => null);
    if (made === null) return;
    dispatch(draftDone(row.id));
    await go(`/projects/${made.id}`);
  };
  const hindrance = hindranceOf(expansion, volume, clash, number);
  return (
    <Columns
      id="start"
      labels={['Values of the new project', 'What will be made', 'The selected line']}
      given={
        <div className="flex flex-col gap-3">
          <h1 className="text-xl font-semibold">Start a project</h1>
          <TemplateChoice row={row} all={all} onChoose={(id) => setParams({ template: id })} />
          <NumberRow value={number} held={held} trouble={holdTrouble} taken={clash} onGive={(v) => give('number', v)} />
          {row.template.fields.map((field) => (
            <FieldRow key={field.key} field={field} value={draft.values[field.key]} registers={expansion.registers} expansion={expansion} onGive={(v) => give(field.key, v)} />
          ))}
          <VolumeRowChoice volumes={volumes} chosen={volume} onChoose={(name) => dispatch(volumeChosen(name))} />
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
      consequence={line && <SelectedLine template={row.template} registers={expansion.registers} expansion={expansion} line={line} prefix={prefix} volume={volume?.name ?? ''} clash={line.depth === 0 ? clash : null} onSelect={select} />}
      ledger={
        <>
          <div className="min-w-0 flex-1" aria-live="polite">
            {starting.isError ? (
              <p className="text-brick">{troubleOf(starting.error)}</p>
            ) : hindrance ? (
              <p>
                <strong className="font-semibold">Nothing can be written yet.</strong> <span className="text-ink2">{hindrance}</span>
              </p>
            ) : (
              <p>
                <strong className="font-semibold">
                  Makes {expansion.folders} folders and {expansion.files} files on <span className="font-mono">{volume?.name}</span>.
                </strong>{' '}
                <span className="text-ink2">
                  Nothing exists there yet. Longest path {expansion.longest} of {expansion.budget}.{expansion.diagnostics.some((d) => d.code.startsWith('name-')) ? '' : ' Every name is legal on every system.'}
                </span>
              </p>
            )}
          </div>
          <Button look="main" disabled={hindrance !== null || starting.isLoading} onClick={() => void make()}>
            {starting.isLoading ? 'Making it…' : 'Make this project'}
          </Button>
        </>
      }
    />
  );
}

/** The next number, held for whoever fills in the form; renewed while the page is open. One written by hand stays. */
function useHeldNumber(template: string, byHand: boolean): { held: string | null; holdTrouble: string | null } {
  const dispatch = useAppDispatch();
  const [hold, { data, error }] = api.useHoldNumberMutation();
  useEffect(() => {
    const ask = () => void hold(new Date().getFullYear());
    ask();
    const timer = setInterval(ask, 10 * 60_000);
    return () => clearInterval(timer);
  }, [hold]);
  const number = data?.number;
  useEffect(() => {
    if (number !== undefined && !byHand) dispatch(numberOffered({ template, number }));
  }, [number, byHand, template, dispatch]);
  return { held: number ?? null, holdTrouble: error === undefined ? null : troubleOf(error) };
}

/** Looked up a moment after the last letter: another project, or a folder that stands there already. */
function useClash(number: string, volume: VolumeRow | undefined, folder: string): string | null {
  const asked = useLate(useMemo(() => ({ number, volume: volume?.name ?? '', folder }), [number, volume?.name, folder]), 250);
  const { data, originalArgs } = api.useLookQuery(asked, { skip: asked.volume === '' || asked.folder === '', refetchOnMountOrArgChange: true }) as { data?: import('@nesting/contract').Look; originalArgs?: typeof asked };
  if (data === undefined || originalArgs?.folder !== folder || originalArgs.number !== number) return null;
  if (data.numberTaken) return `The number ${number} belongs to another project.`;
  if (data.numberHeldBy !== null) return `The number ${number} is held for ${data.numberHeldBy} just now.`;
  if (data.folderTaken || data.folderOnDisk) return `${folder} exists already on ${volume?.name}.`;
  return null;
}

/** The first thing in the way, in a sentence; `null` when the project can be made. */
function hindranceOf(expansion: ReturnType<ReturnType<typeof compileTemplate>['expand']>, volume: VolumeRow | undefined, clash: string | null, number: string): string | null {
  if (volume === undefined) return 'No volume is configured.';
  if (volume.state === 'missing') return `The volume ${volume.name} cannot be reached just now.`;
  if (volume.state === 'read-only') return `The volume ${volume.name} is read-only.`;
  if (number === '') return 'A project needs a number.';
  const refused = expansion.diagnostics.filter((d) => d.weight === 'refused');
  const required = refused.find((d) => d.code === 'field-required') ?? refused.find((d) => d.code === 'value-missing');
  if (required) return wordsFor(required.code, required.params);
  if (refused[0]) return `${wordsFor(refused[0].code, refused[0].params)}${refused.length > 1 ? ` And ${refused.length - 1} more.` : ''}`;
  return clash;
}

function TemplateChoice({ row, all, onChoose }: { row: TemplateRow; all: readonly TemplateRow[]; onChoose: (id: string) => void }) {
  const nest = useMemo(() => nestOfTemplate(row.template), [row.template]);
  return (
    <div className="flex items-center gap-3 rounded-tray border border-line bg-sheet p-2.5">
      <Nest root={nest} width={64} height={48} label={`The shape of ${row.name}`} />
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{row.name}</span>
        <span className="block truncate text-xs text-ink2">edition {row.edition}{row.projects > 0 ? `, used by ${row.projects}` : ''}</span>
      </span>
      <Menu trigger={<Button look="quiet">Other…</Button>} lines={all.map((t) => ({ words: t.name, run: () => onChoose(t.id), chosen: t.id === row.id }))} />
    </div>
  );
}

function NumberRow({ value, held, trouble, taken, onGive }: { value: string; held: string | null; trouble: string | null; taken: string | null; onGive: (value: string) => void }) {
  const id = useId();
  return (
    <Row id={id} label="Number" faults={[]} help={trouble ?? undefined}>
      <Line id={id} value={value} onChange={(e) => onGive(e.target.value)} fault={taken?.includes(value) ?? false} autoComplete="off" becomes={value !== '' && value === held ? 'next, held for you' : undefined} className="font-mono" />
    </Row>
  );
}

function VolumeRowChoice({ volumes, chosen, onChoose }: { volumes: readonly VolumeRow[]; chosen: VolumeRow | undefined; onChoose: (name: string) => void }) {
  const id = useId();
  const said = chosen === undefined ? '' : chosen.state === 'ready' ? (chosen.freeBytes === null ? '' : `${size(chosen.freeBytes)} free`) : chosen.state === 'missing' ? 'cannot be reached' : 'read-only';
  return (
    <Row id={id} label="On volume" faults={[]}>
      <Menu
        trigger={
          <button id={id} type="button" aria-label={`On volume ${chosen?.name ?? ''}, ${said}`} className="flex h-8 w-full items-center justify-between gap-2 rounded-tray border border-line bg-sheet px-2">
            <span className="font-mono">{chosen?.name}</span>
            <span className={`text-xs ${chosen?.state === 'ready' ? 'text-ink2' : 'text-brick'}`}>{said}</span>
          </button>
        }
        lines={volumes.map((v) => ({ words: v.name, run: () => onChoose(v.name), chosen: v.name === chosen?.name }))}
      />
    </Row>
  );
}
