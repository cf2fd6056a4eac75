/** The values of the new project. */
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { useAppDispatch } from '../../app/store';
import { inStartOrder } from './field-order';
import { FieldRow } from './fields';
import { Overrides } from './overrides';
import { SettingsSheet, settingsOf } from './sheet';
import { volumeChosen } from './start-slice';
import { TargetChoice } from './target';
import type { StartPlan } from './use-start-plan';
import type { StartWriting } from './use-start-writing';

interface StartFormProps {
  readonly plan: StartPlan;
  readonly writing: StartWriting;
}

export function StartForm({ plan, writing }: StartFormProps) {
  const dispatch = useAppDispatch();
  const { row, expansion, setParams } = plan;
  const form = useRef<HTMLDivElement>(null);
  // One begins to write at once; on a phone the keyboard would cover the page.
  useEffect(() => {
    if (matchMedia('(pointer: fine)').matches) form.current?.querySelector('input')?.focus();
  }, []);
  return (
    <div ref={form} className="flex flex-col gap-3">
      <h1 className="text-xl font-semibold">Start a project</h1>
      {inStartOrder(row.template.fields).map((field) => (
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
