/** What a template says of checks, paths and the setup sheet. */

import { elementAt } from '@nesting/core';
import { RULE_CODES } from '@nesting/core/check';
import { PROFILE_NAMES, PROFILES } from '@nesting/core/portable';
import type { Template } from '@nesting/core/template';
import { RULE_WORDS } from '@nesting/core/words';
import { useId } from 'react';
import { Choose, Heading, Labelled, Lines, TextInput, Tick } from '../../../ui';
import { HeldForm, type Settings } from './held-form';

interface Props {
  readonly template: Template;
  readonly onChange: (template: Template, what: string | null) => void;
}

const WEIGHTS = [
  { value: 'usual', label: 'as usual' },
  { value: 'must', label: 'must' },
  { value: 'should', label: 'should' },
  { value: 'note', label: 'for information' },
  { value: 'off', label: 'off' },
] as const;

export function SettingsForm({ template, onChange }: Props) {
  const id = useId();
  const checks = template.checks ?? {};
  const set = (change: Partial<NonNullable<Template['checks']>>, what: string | null) =>
    onChange({ ...template, checks: { ...checks, ...change } }, what);
  const weigh = (rule: string, weight: (typeof WEIGHTS)[number]['value']) => {
    const { [rule]: _old, ...others } = checks.rules ?? {};
    set({ rules: weight === 'usual' ? others : { ...others, [rule]: weight } }, null);
  };
  const profiles = checks.profiles ?? ['posix', 'windows', 'macos'];
  return (
    <div className="flex flex-col gap-4">
      <Heading>What is checked, and how much it weighs</Heading>
      <div className="flex flex-col gap-2">
        {RULE_CODES.map((rule) => (
          <div key={rule} className="grid grid-cols-[1fr_7rem] items-center gap-2 text-sm">
            <span>{RULE_WORDS[rule].title}</span>
            <Choose
              label={`Weight of: ${RULE_WORDS[rule].title}`}
              value={checks.rules?.[rule] ?? 'usual'}
              options={WEIGHTS}
              onChange={(weight) => weigh(rule, weight)}
            />
          </div>
        ))}
      </div>
      <Labelled id={`${id}b`} label="Longest path, characters">
        <TextInput
          id={`${id}b`}
          type="number"
          min={20}
          max={32_000}
          value={checks.pathBudget ?? ''}
          placeholder="240"
          onChange={(e) =>
            set(
              {
                pathBudget:
                  e.target.value === ''
                    ? undefined
                    : Math.max(20, Math.min(32_000, Math.floor(Number(e.target.value)))),
              },
              'budget',
            )
          }
        />
      </Labelled>
      <fieldset className="flex flex-col gap-1.5 text-sm">
        <legend className="pb-1 text-xs font-semibold text-ink2">Names must do on</legend>
        {PROFILE_NAMES.map((name) => (
          <Tick
            key={name}
            label={PROFILES[name].label}
            checked={profiles.includes(name)}
            onChange={(on) => set({ profiles: on ? [...profiles, name] : profiles.filter((p) => p !== name) }, null)}
          />
        ))}
      </fieldset>
      <Tick
        label="Artists may put right what is theirs"
        checked={checks.artistsMayRepair === true}
        onChange={(on) => set({ artistsMayRepair: on ? true : undefined }, null)}
      />
      <SetupFields template={template} onChange={onChange} />
    </div>
  );
}

export const settingsText = (setup: Template['setup']): string =>
  (setup?.settings ?? [])
    .map(
      (s) =>
        `${s.label} = ${s.value}${s.allowed?.length ? ` (${s.allowed.join(', ')})` : ''}${s.why ? `: ${s.why}` : ''}`,
    )
    .join('\n');

/** What lines do not say, of what files are held to, stays by the setting's label, else by its line. */
export function settingsFrom(text: string, before: Settings = []): Settings {
  const lines = text.split('\n').flatMap((line) => settingFrom(line) ?? []);
  const kept = new Set(lines.map(({ label }) => label));
  return lines.map((one, at) => {
    // A setting that was called otherwise still stands in its line.
    const inLine = before[at];
    const own =
      before.find(({ label }) => label === one.label) ??
      (inLine !== undefined && !kept.has(inLine.label) ? inLine : undefined);
    return {
      ...one,
      ...(own?.fact !== undefined && { fact: own.fact }),
      ...(own?.within !== undefined && { within: own.within }),
    };
  });
}

function settingFrom(line: string): Settings[number] | null {
  const m = /^\s*([^=]+?)\s*=\s*(.*?)\s*(?:\(([^)]*)\))?\s*(?::\s*(.*?))?\s*$/.exec(line);
  if (m === null || m[2] === '') return null;
  const allowed = (m[3] ?? '')
    .split(',')
    .map((a) => a.trim())
    .filter((a) => a !== '');
  return {
    label: elementAt(m, 1),
    value: elementAt(m, 2),
    ...(allowed.length > 0 && { allowed }),
    ...(m[4] ? { why: m[4] } : {}),
  };
}

const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '');

/** What the setup sheet of a project says. */
function SetupFields({ template, onChange }: Props) {
  const id = useId();
  const set = (setup: Template['setup']) => onChange({ ...template, setup: { ...template.setup, ...setup } }, null);
  return (
    <>
      <Labelled id={`${id}s`} label="Setup sheet, one a line" help="Frame rate = 25 (24, 25, 50): why">
        <Lines
          id={`${id}s`}
          key={template.id}
          rows={5}
          defaultValue={settingsText(template.setup)}
          onBlur={(e) => set({ settings: settingsFrom(e.target.value, template.setup?.settings) })}
        />
      </Labelled>
      <HeldForm template={template} onSettings={(settings) => set({ settings })} />
      <Labelled id={`${id}d`} label="To do on the first day, one a line">
        <Lines
          id={`${id}d`}
          key={template.id}
          rows={4}
          defaultValue={(template.setup?.firstDay ?? []).join('\n')}
          onBlur={(e) => set({ firstDay: linesOf(e.target.value) })}
        />
      </Labelled>
    </>
  );
}
