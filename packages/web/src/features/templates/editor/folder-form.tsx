/** Everything about the selected folder. */
import { type FolderNode, PRESENCES, renumberFolders, setFolder, type Template } from '@nesting/core/template';
import { useId } from 'react';
import { Button, Choose, Heading, Labelled, Lines, Menu, TextInput, Tick } from '../../../ui';
import { MarkChoice } from '../../../ui/mark-choice';
import { conditionOf, conditions, entryName, wordOfCondition } from './conditions';
import { DeliveriesForm } from './deliveries-form';
import { Numbering } from './numbering-form';
import type { SectionProps, SetFolder } from './section-props';
import { type StarterPlace, StartersForm } from './starters-form';

interface Props extends StarterPlace {
  readonly template: Template;
  readonly root: FolderNode;
  readonly node: FolderNode;
  readonly families: readonly string[];
  readonly readOnly: boolean;
  readonly onChange: (root: FolderNode, what: string | null) => void;
}

const NONE = 'none';
const PRESENCE_WORDS: Readonly<Record<(typeof PRESENCES)[number], string>> = {
  always: 'when a project starts',
  optional: 'where it is chosen',
  'on-demand': 'when somebody needs it',
};

export function FolderForm({ template, root, node, families, readOnly, onChange, ...place }: Props) {
  const set: SetFolder = (change, what = null) =>
    onChange(setFolder(root, node.id, change), what === null ? null : `${node.id} ${what}`);
  const section = { template, node, readOnly, set };
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-4">
      <Heading>Selected: {node.name || 'unnamed'}</Heading>
      <Purpose {...section} />
      <MarkChoice
        label="Mark"
        value={node.mark ?? null}
        none="as the folder above"
        disabled={readOnly}
        onChoose={(mark) => set({ mark: mark ?? undefined })}
      />
      <div className="grid grid-cols-2 gap-3">
        <Presence {...section} />
        <Conditions {...section} />
        <Expectations {...section} />
      </div>
      <Holds {...section} families={families} />
      <Manners {...section} />
      <DeliveriesForm {...section} families={families} />
      <Numbering
        node={node}
        readOnly={readOnly}
        onSet={set}
        onRenumber={() => onChange(renumberFolders(root, node.id), null)}
      />
      <StartersForm
        {...place}
        template={template}
        node={node}
        readOnly={readOnly}
        onSet={(starters) => set({ starters: starters.length === 0 ? undefined : starters })}
      />
    </fieldset>
  );
}

function Purpose({ node, set }: SectionProps) {
  const id = useId();
  return (
    <Labelled id={id} label="What it is for">
      <Lines
        id={id}
        rows={2}
        value={node.purpose ?? ''}
        onChange={(e) => set({ purpose: e.target.value || undefined }, 'purpose')}
        className="font-sans"
      />
    </Labelled>
  );
}

/** When it is made, and by whom. */
function Presence({ node, readOnly, set }: SectionProps) {
  const id = useId();
  const choose = (value: string) => {
    const presence = PRESENCES.find((p) => p === value);
    set({ presence: presence === 'always' ? undefined : presence });
  };
  return (
    <div className="col-span-2">
      <Labelled id={id} label="Made">
        <Choose
          id={id}
          label="Made"
          disabled={readOnly}
          value={node.presence ?? 'always'}
          options={PRESENCES.map((value) => ({ value, label: PRESENCE_WORDS[value] }))}
          onChange={choose}
        />
      </Labelled>
      {node.presence !== undefined && node.presence !== 'always' && (
        <Tick
          label="Artists may make it too"
          checked={node.artistsMayAdd ?? false}
          disabled={readOnly}
          onChange={(may) => set({ artistsMayAdd: may || undefined })}
        />
      )}
    </div>
  );
}

/** On what it depends, and how often it is made. */
function Conditions({ template, node, readOnly, set }: SectionProps) {
  const id = useId();
  const lists = template.fields.filter((f) => f.type === 'list');
  return (
    <>
      <Labelled id={`${id}c`} label="Only when">
        <Choose
          id={`${id}c`}
          label="Only when"
          disabled={readOnly}
          value={wordOfCondition(node.onlyWhen)}
          options={conditions(template)}
          onChange={(value) => set({ onlyWhen: conditionOf(value) })}
        />
      </Labelled>
      <Labelled id={`${id}o`} label="Once for each of">
        <Choose
          id={`${id}o`}
          label="Once for each of"
          disabled={readOnly}
          value={node.onePer?.list ?? NONE}
          options={[
            { value: NONE, label: 'only once' },
            ...lists.map((l) => ({ value: l.key, label: l.label ?? l.key })),
          ]}
          onChange={(value) => set(onePerOf(node, value))}
        />
      </Labelled>
      {node.onePer && (
        <Labelled id={`${id}a`} label="Each is called">
          <TextInput
            id={`${id}a`}
            value={node.onePer.as}
            onChange={(e) => set({ onePer: { list: node.onePer?.list ?? '', as: e.target.value } }, 'as')}
            className="font-mono"
          />
        </Labelled>
      )}
    </>
  );
}

/** Its path for programs, and what is expected to lie in it. */
function Expectations({ node, set }: SectionProps) {
  const id = useId();
  const days = (text: string) => Number(text.replace(/\D/g, '').slice(0, 4)) || undefined;
  return (
    <>
      <Labelled id={`${id}s`} label="Path for programs">
        <TextInput
          id={`${id}s`}
          value={node.signpost ?? ''}
          placeholder="cache, delivery…"
          onChange={(e) => set({ signpost: e.target.value || undefined }, 'signpost')}
        />
      </Labelled>
      <Labelled id={`${id}w`} label="Filled within, days">
        <TextInput
          id={`${id}w`}
          inputMode="numeric"
          value={node.filledWithinDays ?? ''}
          placeholder="may stay empty"
          onChange={(e) => set({ filledWithinDays: days(e.target.value) }, 'filled')}
        />
      </Labelled>
      <Labelled id={`${id}f`} label="Frames expected">
        <TextInput
          id={`${id}f`}
          value={node.frames ?? ''}
          placeholder="1..240, or a field"
          onChange={(e) => set({ frames: e.target.value || undefined }, 'frames')}
          className="font-mono"
        />
      </Labelled>
    </>
  );
}

/** Which files it takes, and what they are called by. */
function Holds({ template, node, readOnly, set, families }: SectionProps & { readonly families: readonly string[] }) {
  const toggle = (key: 'accepts' | 'conventions', value: string) => {
    const now = node[key] ?? [];
    const next = now.includes(value) ? now.filter((v) => v !== value) : [...now, value];
    set({ [key]: next.length === 0 ? undefined : next });
  };
  return (
    <>
      <Several
        label="Takes files of"
        chosen={node.accepts}
        known={families.map((f) => ({ value: f, label: f }))}
        empty="as the folder above"
        none={node.accepts?.length === 0 ? 'none' : null}
        readOnly={readOnly}
        onToggle={(value) => toggle('accepts', value)}
        onNone={() => set({ accepts: node.accepts?.length === 0 ? undefined : [] })}
        noneWords="No files at all"
      />
      <Several
        label="Files are called by"
        chosen={node.conventions}
        known={template.conventions.map((c) => ({ value: c.id, label: c.name }))}
        empty="as the folder above"
        none={null}
        readOnly={readOnly}
        onToggle={(value) => toggle('conventions', value)}
      />
    </>
  );
}

function Manners({ node, readOnly, set }: SectionProps) {
  return (
    <div className="grid grid-cols-2 gap-2 text-sm">
      <Tick
        label="Anything goes inside"
        checked={node.free ?? false}
        disabled={readOnly}
        onChange={(free) => set({ free: free || undefined })}
      />
      <Tick
        label="Names never change"
        checked={node.stable ?? false}
        disabled={readOnly}
        onChange={(stable) => set({ stable: stable || undefined })}
      />
      <Tick
        label="Licensed material"
        checked={node.licensed ?? false}
        disabled={readOnly}
        onChange={(licensed) => set({ licensed: licensed || undefined })}
      />
      <Tick
        label="Cards come here whole"
        checked={node.cards ?? false}
        disabled={readOnly}
        onChange={(cards) => set(cards ? { cards, free: true } : { cards: undefined })}
      />
      <Tick
        label="Checksums beside what is brought in"
        checked={node.checksums ?? false}
        disabled={readOnly}
        onChange={(checksums) => set({ checksums: checksums || undefined })}
      />
      <Tick
        label="Not for outsiders"
        checked={node.outsiders === false}
        disabled={readOnly}
        onChange={(isKept) => set({ outsiders: isKept ? false : undefined })}
      />
      <Tick
        label="No number in front"
        checked={node.unnumbered ?? false}
        disabled={readOnly}
        onChange={(unnumbered) => set(unnumbered ? { unnumbered, number: undefined } : { unnumbered: undefined })}
      />
      <Tick
        label="Older versions apart"
        checked={node.older !== undefined}
        disabled={readOnly}
        onChange={(older) => set({ older: older ? { folder: 'older', keep: 5 } : undefined })}
      />
    </div>
  );
}

/** Its name is that of the entry until another is written. */
function onePerOf(node: FolderNode, list: string): Partial<FolderNode> {
  if (list === NONE) return { onePer: undefined };
  const as = entryName(list);
  return { onePer: { list, as }, number: undefined, ...(!node.name && { name: `{${as}}` }) };
}

interface SeveralProps {
  readonly label: string;
  readonly chosen: readonly string[] | undefined;
  readonly known: readonly { value: string; label: string }[];
  readonly empty: string;
  readonly none: string | null;
  readonly readOnly: boolean;
  readonly onToggle: (value: string) => void;
  readonly onNone?: () => void;
  readonly noneWords?: string;
}

function Several({ label, chosen, known, empty, none, readOnly, onToggle, onNone, noneWords }: SeveralProps) {
  const words = (value: string) => known.find((k) => k.value === value)?.label ?? value;
  return (
    <div className="flex items-baseline gap-3 text-sm">
      <span className="w-28 shrink-0 text-xs font-semibold text-ink2">{label}</span>
      <span className="min-w-0 flex-1">{none ?? (chosen?.length ? chosen.map(words).join(', ') : empty)}</span>
      {!readOnly && (
        <Menu
          stay
          trigger={
            <Button variant="quiet" className="h-6!" aria-label={`${label}: choose`}>
              Choose…
            </Button>
          }
          lines={[
            ...(onNone && noneWords ? [{ words: noneWords, run: onNone, chosen: none !== null }] : []),
            ...known.map((k) => ({
              words: k.label,
              run: () => onToggle(k.value),
              chosen: chosen?.includes(k.value) ?? false,
            })),
          ]}
        />
      )}
    </div>
  );
}
