/** Which settings of the sheet files are held to, and in which folders. */
import { SETTING_FACTS, type SettingFact, type Template, visitFolders } from '@nesting/core/template';
import { SETTING_FACT_WORDS, unheldWords } from '@nesting/core/words';
import { useMemo } from 'react';
import { Button, Choose } from '../../../ui';
import { Finder } from '../../../ui/finder';

export type Settings = NonNullable<NonNullable<Template['setup']>['settings']>;
type Setting = Settings[number];

interface Props {
  readonly template: Template;
  readonly onSettings: (settings: Settings) => void;
}

const NOTHING = 'nothing';
const FACTS = [
  { value: NOTHING, label: 'Not held' },
  ...SETTING_FACTS.map((fact) => ({ value: fact, label: `by ${SETTING_FACT_WORDS[fact]}` })),
];

export function HeldForm({ template, onSettings }: Props) {
  const settings = template.setup?.settings ?? [];
  const folders = useMemo(() => foldersOf(template), [template]);
  if (settings.length === 0) return null;
  const put = (place: number, change: Partial<Setting>) =>
    onSettings(settings.map((one, at) => (at === place ? { ...one, ...change } : one)));
  return (
    <fieldset className="flex min-w-0 flex-col gap-2 text-sm">
      <legend className="pb-1 text-xs font-semibold text-ink2">Files are held to</legend>
      {settings.map((setting, place) => (
        <Held key={place} setting={setting} folders={folders} onChange={(change) => put(place, change)} />
      ))}
    </fieldset>
  );
}

interface HeldProps {
  readonly setting: Setting;
  readonly folders: readonly Folder[];
  readonly onChange: (change: Partial<Setting>) => void;
}

function Held({ setting: { label, value, fact, within = [] }, folders, onChange }: HeldProps) {
  const unheld = fact === undefined ? null : unheldWords(fact, value);
  const names = new Map(folders.map(({ value: id, label: path }) => [id, path]));
  const keep = (next: readonly string[]) => onChange({ within: next.length === 0 ? undefined : next });
  const open = folders.filter(({ value: id }) => !within.includes(id));
  return (
    <fieldset aria-label={label} className="flex min-w-0 flex-col gap-1">
      <div className="grid grid-cols-[1fr_11rem] items-center gap-2">
        <span className="break-words">{label}</span>
        <Choose
          label={`Files are held to: ${label}`}
          value={fact ?? NOTHING}
          options={FACTS}
          onChange={(next) =>
            onChange(next === NOTHING ? { fact: undefined, within: undefined } : { fact: next as SettingFact })
          }
        />
      </div>
      {unheld !== null && <p className="text-ochre">{unheld}</p>}
      {fact !== undefined && (
        <>
          {within.map((node) => (
            <p key={node} className="flex items-baseline gap-2">
              <span className="min-w-0 flex-1 truncate font-mono text-xs">
                {names.get(node) ?? 'a folder that is gone'}
              </span>
              <Button variant="quiet" onClick={() => keep(within.filter((one) => one !== node))}>
                Remove
              </Button>
            </p>
          ))}
          <Finder
            label={within.length === 0 ? 'Where' : 'Also in'}
            placeholder={within.length === 0 ? 'Everywhere' : 'Choose a folder'}
            mono
            options={open}
            value={null}
            onChoose={(node) => keep([...within, node])}
          />
        </>
      )}
    </fieldset>
  );
}

interface Folder {
  readonly value: string;
  /** Names of patterns, from the root. */
  readonly label: string;
}

function foldersOf(template: Template): readonly Folder[] {
  const paths = new Map<string, string>();
  const out: Folder[] = [];
  visitFolders(template.root, (node, depth, parent) => {
    const above = parent === null ? '' : (paths.get(parent.id) ?? '');
    const path = depth === 0 ? '' : `${above === '' ? '' : `${above}/`}${node.name ?? node.id}`;
    paths.set(node.id, path);
    if (depth > 0 && node.block === undefined) out.push({ value: node.id, label: path });
    return undefined;
  });
  return out;
}
