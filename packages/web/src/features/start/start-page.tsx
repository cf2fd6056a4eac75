/**
 * Start a project: fields at left, the hierarchy live in the middle, the selected line at right; the ledger alone
 * writes.
 */
import type { Me, TemplateRow, VolumeRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { useMemo } from 'react';
import { useOutletContext, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { type Command, usePageCommands } from '../../app/commands';
import { useAppDispatch } from '../../app/store';
import { Columns } from '../../columns/columns';
import { TrayTree } from '../../tray/tray-tree';
import { Empty, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { volumesApi } from '../house/volumes-api';
import { templatesApi } from '../templates/templates-api';
import { NameHead } from './name-head';
import { LineActs } from './overrides';
import { SelectedLine } from './selected-line';
import { StartForm } from './start-form';
import { StartLedger } from './start-ledger';
import { redone, undone } from './start-slice';
import { TemplateChoice } from './template-choice';
import { type StartPlan, useStartPlan } from './use-start-plan';
import { useStartWriting } from './use-start-writing';

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
  const me = useOutletContext<Me>();
  const plan = useStartPlan(row, registers, volumes, me);
  const writing = useStartWriting(plan);
  useUndo(plan);
  return (
    <Columns
      id="start"
      labels={['Values of the new project', 'What will be made', 'The selected line']}
      given={<StartForm plan={plan} writing={writing} />}
      plan={
        <>
          <TemplateChoice row={row} all={all} onChoose={(id) => plan.setParams({ template: id })} />
          <NameHead plan={plan} />
          <TrayTree label="What will be made" nodes={plan.nodes} selected={plan.selected} onSelect={plan.select} />
        </>
      }
      consequence={<Consequence plan={plan} />}
      ledger={<StartLedger plan={plan} writing={writing} />}
    />
  );
}

function useUndo({ row, draft }: StartPlan): void {
  const dispatch = useAppDispatch();
  const [canUndo, canRedo] = [draft.past.length > 0, draft.future.length > 0];
  usePageCommands(
    useMemo(
      (): readonly Command[] => [
        { id: 'undo', words: 'Undo', keys: 'Ctrl+Z', run: () => void dispatch(undone(row.id)), enabled: canUndo },
        { id: 'redo', words: 'Redo', keys: 'Ctrl+Shift+Z', run: () => void dispatch(redone(row.id)), enabled: canRedo },
      ],
      [dispatch, row.id, canUndo, canRedo],
    ),
  );
}

function Consequence({ plan }: { plan: StartPlan }) {
  const { line, volumes, volume, isOnVolume } = plan;
  if (line === undefined) return null;
  const other = volumes.find((v) => v.name === line.elsewhere?.volume);
  const others = volumes.filter((v) => v.name !== volume?.name && v.state === 'ready').map((v) => v.name);
  return (
    <div className="flex flex-col gap-5">
      <SelectedLine
        template={plan.template}
        registers={plan.expansion.registers}
        expansion={plan.expansion}
        line={line}
        prefix={line.elsewhere === undefined ? plan.prefix : `${other?.root ?? ''}/`}
        volume={isOnVolume ? (other ?? volume ?? null) : null}
        clash={line.depth === 0 ? plan.clash : null}
        onSelect={plan.select}
      />
      <LineActs
        key={line.key}
        line={line}
        adjusted={plan.adjusted}
        volumes={isOnVolume ? others : []}
        onAdjust={plan.adjust}
      />
    </div>
  );
}
