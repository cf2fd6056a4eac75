/** The values of the new project. */
import type { TemplateRow } from '@nesting/contract';
import { useId } from 'react';
import { Link } from 'react-router';
import { useAppDispatch } from '../../app/store';
import { TextInput } from '../../ui';
import { FieldRow, Row } from './fields';
import { Overrides } from './overrides';
import { SettingsSheet, settingsOf } from './sheet';
import { volumeChosen } from './start-slice';
import { TargetChoice } from './target';
import { TemplateChoice } from './template-choice';
import type { StartPlan } from './use-start-plan';
import type { StartWriting } from './use-start-writing';

interface StartFormProps {
  readonly plan: StartPlan;
  readonly all: readonly TemplateRow[];
  readonly writing: StartWriting;
}

export function StartForm({ plan, all, writing }: StartFormProps) {
  const dispatch = useAppDispatch();
  const { row, expansion, setParams } = plan;
  return (
    <div className="flex flex-col gap-3">
      <h1 className="text-xl font-semibold">Start a project</h1>
      <TemplateChoice row={row} all={all} onChoose={(id) => setParams({ template: id })} />
      <NumberRow
        value={plan.number}
        held={plan.held}
        trouble={plan.holdTrouble}
        taken={plan.clash}
        note={plan.note}
        onGive={(v) => plan.give('number', v)}
      />
      {row.template.fields.map((field) => (
        <FieldRow
          key={field.key}
          field={field}
          value={plan.values[field.key]}
          registers={expansion.registers}
          expansion={expansion}
          onGive={(v) => plan.give(field.key, v)}
        />
      ))}
      <TargetChoice
        volumes={plan.volumes}
        target={plan.target}
        onVolume={(name) => {
          writing.forget();
          setParams({ template: row.id }, { replace: true });
          dispatch(volumeChosen(name));
        }}
        onElsewhere={(kind) => {
          writing.forget();
          setParams({ template: row.id, to: kind }, { replace: true });
        }}
      />
      <Overrides adjusted={plan.adjusted} onAdjust={plan.adjust} />
      <Settings plan={plan} />
      <Link to={`/start/several?template=${row.id}`} className="text-sm text-bottle hover:underline">
        Several at once, from a table…
      </Link>
      <Link to="/start/adopt" className="text-sm text-bottle hover:underline">
        Take in a folder that is there…
      </Link>
    </div>
  );
}

function Settings({ plan: { row, settings, choose } }: { plan: StartPlan }) {
  const { setup } = row.template;
  if ((setup?.settings?.length ?? 0) === 0) return null;
  return (
    <details className="text-sm">
      <summary className="cursor-pointer font-semibold">
        Setup sheet{' '}
        <span className="font-normal text-ink2">
          {settingsOf(setup, settings)
            .map((s) => s.value)
            .join(', ')}
        </span>
      </summary>
      <div className="pt-2">
        <SettingsSheet setup={setup} chosen={settings} onChoose={choose} />
      </div>
    </details>
  );
}

interface NumberRowProps {
  readonly value: string;
  readonly held: string | null;
  readonly trouble: string | null;
  readonly taken: string | null;
  readonly note: string | null;
  readonly onGive: (value: string) => void;
}

function NumberRow({ value, held, trouble, taken, note, onGive }: NumberRowProps) {
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
