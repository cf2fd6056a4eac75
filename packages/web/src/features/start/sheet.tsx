/**
 * The settings every program is to have, with what is allowed and why; what is usual is chosen until somebody chooses
 * otherwise.
 */
import type { Setup } from '@nesting/core/template';
import { SETTING_FACT_WORDS, unheldWords } from '@nesting/core/words';
import { useId } from 'react';
import { Choose, Labelled, TextInput } from '../../ui';

export type Chosen = Readonly<Record<string, string>>;

/** All settings with what is chosen for them. */
export const settingsOf = (
  setup: Setup | undefined,
  chosen: Chosen,
): { label: string; value: string; usual: string; why: string }[] =>
  (setup?.settings ?? []).map((s) => ({
    label: s.label,
    value: chosen[s.label] ?? s.value,
    usual: s.value,
    why: s.why ?? '',
  }));

/** Why it is set so, and whether files are held to it. */
function helpOf({ why, fact }: Pick<Setting, 'why' | 'fact'>, value: string): string {
  const held =
    fact === undefined
      ? null
      : (unheldWords(fact, value) ?? `Checks hold files to it, by their ${SETTING_FACT_WORDS[fact]}.`);
  return [why, held].filter((words) => words !== undefined && words !== null && words !== '').join(' ');
}

type Setting = NonNullable<Setup['settings']>[number];

interface SettingsSheetProps {
  readonly setup: Setup | undefined;
  readonly chosen: Chosen;
  readonly readOnly?: boolean;
  readonly onChoose: (chosen: Chosen) => void;
}

export function SettingsSheet({ setup, chosen, readOnly = false, onChoose }: SettingsSheetProps) {
  const id = useId();
  const all = setup?.settings ?? [];
  const set = (label: string, value: string, usual: string) => {
    const { [label]: _old, ...others } = chosen;
    onChoose(value === usual ? others : { ...others, [label]: value });
  };
  return (
    <div className="flex flex-col gap-3">
      {all.map((s, i) => {
        const value = chosen[s.label] ?? s.value;
        return (
          <Labelled key={s.label} id={`${id}${i}`} label={s.label} help={helpOf(s, value)}>
            {s.allowed?.length ? (
              <Choose
                id={`${id}${i}`}
                label={s.label}
                disabled={readOnly}
                value={value}
                options={[...new Set([s.value, ...s.allowed])].map((v) => ({
                  value: v,
                  label: v === s.value ? `${v} (usual)` : v,
                }))}
                onChange={(v) => set(s.label, v, s.value)}
              />
            ) : (
              <TextInput
                id={`${id}${i}`}
                value={value}
                readOnly={readOnly}
                maxLength={200}
                onChange={(e) => set(s.label, e.target.value, s.value)}
              />
            )}
          </Labelled>
        );
      })}
    </div>
  );
}
