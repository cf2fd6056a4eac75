/**
 * What the project is to become: its values, entries of its lists, folders made when they are needed, another edition.
 */
import type { Me, ProjectPage, TemplateRow } from '@nesting/contract';
import type { ListField, Registers, Value, Values } from '@nesting/core/name';
import type { Expansion, Template } from '@nesting/core/template';
import { useId } from 'react';
import { Button, Choose, Heading, Labelled, TextInput } from '../../ui';
import { FieldRow, Row } from '../start/fields';
import { withAdjustment } from '../start/overrides';
import { ExtraStarter } from './extra-starter';
import { ListRows } from './list-rows';
import { renamedEntry, type Wish } from './reshape-slice';

interface Props {
  readonly me: Me;
  readonly project: ProjectPage;
  readonly wish: Wish;
  readonly template: Template;
  readonly templates: readonly TemplateRow[];
  readonly editions: readonly number[];
  readonly registers: Registers;
  readonly expansion: Expansion;
  readonly onChange: (wish: Wish, what: string | null) => void;
}

export function WishForm({ me, project, wish, template, templates, editions, registers, expansion, onChange }: Props) {
  const isArtist = me.role === 'artist';
  const lists = template.fields.filter(
    (f): f is ListField => f.type === 'list' && (!isArtist || f.artistsMayAdd === true),
  );
  return (
    <div className="flex flex-col gap-4">
      {lists.length > 0 && (
        <section aria-label="More of what it has" className="flex flex-col gap-2">
          <Heading>More of what it has</Heading>
          {lists.map((field) => (
            <ListRows
              key={field.key}
              field={field}
              values={wish.values}
              expansion={expansion}
              onValues={(values, what) => onChange({ ...wish, values }, what)}
              {...(!isArtist && {
                onRename: (from: string, to: string, values: Values) =>
                  onChange(renamedEntry(wish, field.key, from, to, values), null),
              })}
            />
          ))}
        </section>
      )}
      <OptionalFolders me={me} project={project} wish={wish} expansion={expansion} onChange={onChange} />
      {!isArtist && (
        <>
          <WhatItIs wish={wish} template={template} registers={registers} expansion={expansion} onChange={onChange} />
          <ItsRules project={project} wish={wish} templates={templates} editions={editions} onChange={onChange} />
          <ExtraStarter wish={wish} expansion={expansion} onChange={onChange} />
        </>
      )}
    </div>
  );
}

function OptionalFolders({
  me,
  project,
  wish,
  expansion,
  onChange,
}: Pick<Props, 'me' | 'project' | 'wish' | 'expansion' | 'onChange'>) {
  const optional = expansion.lines.filter(
    (l) =>
      l.kind === 'folder' &&
      l.presence !== 'always' &&
      l.elsewhere === undefined &&
      !l.made &&
      (me.role !== 'artist' || l.folder?.artistsMayAdd === true),
  );
  const chosen = Object.entries(wish.adjusted).filter(([key, a]) => a.make && project.adjusted[key]?.make !== true);
  if (optional.length + chosen.length === 0) return null;
  return (
    <section aria-label="Folders made when they are needed" className="flex flex-col gap-1 text-sm">
      <Heading>Folders made when they are needed</Heading>
      <ul>
        {optional.slice(0, 60).map((l) => (
          <li key={l.key} className="flex items-baseline gap-2 border-b border-line py-1">
            <span className="min-w-0 flex-1 font-mono text-xs break-all">{l.path}</span>
            <Button
              variant="quiet"
              className="h-5!"
              aria-label={`Make ${l.path}`}
              onClick={() =>
                onChange({ ...wish, adjusted: withAdjustment(wish.adjusted, l.key, { make: true }) }, null)
              }
            >
              Make it
            </Button>
          </li>
        ))}
        {chosen.map(([key]) => (
          <li key={key} className="flex items-baseline gap-2 border-b border-line py-1">
            <span className="min-w-0 flex-1 font-mono text-xs break-all">
              {expansion.lines.find((l) => l.key === key)?.path ?? key}
            </span>
            <Button
              variant="quiet"
              className="h-5!"
              onClick={() => onChange({ ...wish, adjusted: withAdjustment(wish.adjusted, key, { make: false }) }, null)}
            >
              Not now
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function WhatItIs({
  wish,
  template,
  registers,
  expansion,
  onChange,
}: Pick<Props, 'wish' | 'template' | 'registers' | 'expansion' | 'onChange'>) {
  const id = useId();
  const give = (key: string, value: Value) => onChange({ ...wish, values: { ...wish.values, [key]: value } }, key);
  return (
    <section aria-label="What it is" className="flex flex-col gap-2">
      <Heading>What it is</Heading>
      <Row id={`${id}n`} label="Number" faults={[]}>
        <TextInput
          id={`${id}n`}
          value={String(wish.values.number ?? '')}
          onChange={(e) => give('number', e.target.value)}
          className="font-mono"
          spellCheck={false}
          autoComplete="off"
        />
      </Row>
      {template.fields
        .filter((f) => f.type !== 'list')
        .map((field) => (
          <FieldRow
            key={field.key}
            field={field}
            value={wish.values[field.key]}
            registers={registers}
            expansion={expansion}
            onGive={(v) => give(field.key, v)}
          />
        ))}
    </section>
  );
}

function ItsRules({
  project,
  wish,
  templates,
  editions,
  onChange,
}: Pick<Props, 'project' | 'wish' | 'templates' | 'editions' | 'onChange'>) {
  const id = useId();
  const { template } = project;
  const isSame = wish.template === template.id;
  const editionOf = (of: string) =>
    of === template.id ? template.edition : (templates.find((r) => r.id === of)?.edition ?? 1);
  return (
    <section aria-label="Its rules" className="flex flex-col gap-2">
      <Heading>Its rules</Heading>
      <Labelled id={`${id}t`} label="Template">
        <Choose
          id={`${id}t`}
          label="Template"
          value={wish.template}
          options={templates.map((t) => ({ value: t.id, label: t.name }))}
          onChange={(t) => onChange({ ...wish, template: t, edition: editionOf(t) }, null)}
        />
      </Labelled>
      <Labelled
        id={`${id}e`}
        label="Edition"
        help={
          isSame && wish.edition === template.edition
            ? undefined
            : `it has edition ${template.edition}${isSame ? '' : ` of ${template.name}`} now`
        }
      >
        <Choose
          id={`${id}e`}
          label="Edition"
          value={String(wish.edition)}
          options={editions.map((e) => ({
            value: String(e),
            label: `edition ${e}${e === Math.max(...editions) ? ', the newest' : ''}`,
          }))}
          onChange={(e) => onChange({ ...wish, edition: Number(e) }, null)}
        />
      </Labelled>
    </section>
  );
}
