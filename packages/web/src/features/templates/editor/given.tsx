/** What a template says at left: its name and purpose, what is asked for, its conventions; or the sample project. */

import type { TemplateRow } from '@nesting/contract';
import { present } from '@nesting/core';
import type { Field, Registers } from '@nesting/core/name';
import type { Convention, Template } from '@nesting/core/template';
import { useId, useMemo } from 'react';
import { Link } from 'react-router';
import { many } from '../../../app/words';
import { Nest } from '../../../nest/nest';
import { nestOfTemplate } from '../../../nest/of-template';
import { Button, Heading, Labelled, Lines, Menu, TextInput } from '../../../ui';
import { conventionsApi } from '../../conventions/conventions-api';
import { FieldRow } from '../../start/fields';
import { FilesOfTemplate } from './files-of-template';
import { type Sample, sampleValues, type useSampleValues } from './sample';

/** Stands in the address where a field would: what holds for the whole template. */
export const SETTINGS = ':settings';

interface GivenProps {
  readonly row: TemplateRow;
  readonly template: Template;
  readonly registers: Registers;
  readonly laid: boolean;
  readonly sample: Sample | null;
  readonly values: Parameters<typeof sampleValues>[2];
  readonly chosen: string | null;
  readonly onField: (key: string) => void;
  readonly onChange: (template: Template, what: string | null) => void;
  readonly onValue: ReturnType<typeof useSampleValues>[1];
}

export function Given({
  row,
  template,
  registers,
  laid,
  sample,
  values,
  chosen,
  onField,
  onChange,
  onValue,
}: GivenProps) {
  const id = useId();
  const nest = useMemo(() => nestOfTemplate(template), [template]);
  return (
    <div className="flex flex-col gap-4">
      <Link to="/templates" className="text-sm text-bottle hover:underline">
        All templates
      </Link>
      <h1 className="sr-only">{template.name}</h1>
      <Labelled id={`${id}n`} label="Template">
        <TextInput
          id={`${id}n`}
          value={template.name}
          onChange={(e) => onChange({ ...template, name: e.target.value }, 'name')}
          className="text-lg font-semibold"
        />
      </Labelled>
      <p className="text-sm text-ink2">
        {row.edition === 0
          ? 'a draft, never in force'
          : row.draft
            ? `draft of edition ${row.edition + 1}`
            : `edition ${row.edition}, in force`}
        {row.projects > 0 ? `, ${many(row.projects, 'project')}` : ''}
      </p>
      <Nest root={nest} width={200} height={110} label={`The shape of ${template.name}`} />
      <Labelled id={`${id}p`} label="What it is for">
        <Lines
          id={`${id}p`}
          rows={2}
          value={template.purpose ?? ''}
          onChange={(e) => onChange({ ...template, purpose: e.target.value || undefined }, 'purpose')}
          className="font-sans"
        />
      </Labelled>
      {laid && sample ? (
        <SampleFields template={template} registers={registers} sample={sample} values={values} onValue={onValue} />
      ) : (
        <AskedFields template={template} chosen={chosen} onField={onField} onChange={onChange} />
      )}
      <Conventions template={template} onChange={onChange} />
      <FilesOfTemplate template={template} />
      <Button variant="quiet" className="self-start" onClick={() => onField(SETTINGS)}>
        Checks, paths and setup sheet…
      </Button>
    </div>
  );
}

type SampleProps = Pick<GivenProps, 'template' | 'registers' | 'values' | 'onValue'> & { readonly sample: Sample };

function SampleFields({ template, registers, sample, values, onValue }: SampleProps) {
  return (
    <section aria-label="The sample project" className="flex flex-col gap-2">
      <Heading>The sample project</Heading>
      {template.fields.map((f) => (
        <FieldRow
          key={f.key}
          field={f}
          value={sampleValues(template.fields, registers, values)[f.key]}
          registers={registers}
          expansion={sample.expansion}
          onGive={(value) => onValue(f.key, value)}
        />
      ))}
    </section>
  );
}

function AskedFields({
  template,
  chosen,
  onField,
  onChange,
}: Pick<GivenProps, 'template' | 'chosen' | 'onField' | 'onChange'>) {
  const addField = () => {
    // A field keeps its id when it is renamed: neither is given twice.
    const taken = new Set(template.fields.flatMap((f) => [f.key, f.id ?? f.key]));
    let key = 'field';
    for (let n = 2; taken.has(key); n++) key = `field${n}`;
    const field: Field = { id: key, key, type: 'text', label: '', max: 24 };
    onChange({ ...template, fields: [...template.fields, field] }, null);
    onField(key);
  };
  return (
    <section aria-label="Asked for when a project starts" className="flex flex-col gap-1">
      <Heading>Asked for when a project starts</Heading>
      <ul>
        {template.fields.map((f) => (
          <li key={f.id ?? f.key} className="border-b border-line">
            <button
              type="button"
              aria-pressed={chosen === (f.id ?? f.key)}
              onClick={() => onField(f.id ?? f.key)}
              className={`flex w-full justify-between gap-3 rounded-tray px-2 py-1.5 text-left text-sm ${chosen === (f.id ?? f.key) ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
            >
              <span className="font-semibold">{f.label || f.key}</span>
              <span className="text-note">
                {f.type === 'list' ? `list${f.within ? `, within ${f.within}` : ''}` : f.type}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Button variant="quiet" className="self-start" onClick={addField}>
        Ask for something more…
      </Button>
    </section>
  );
}

/** Conventions of the house that this template uses; a house convention is taken in by its id. */
function Conventions({ template, onChange }: { template: Template; onChange: GivenProps['onChange'] }) {
  const { data: house = [] } = conventionsApi.useConventionsQuery();
  const taken = new Set(template.conventions.map((c) => c.id));
  const free = house.filter(
    (h) => h.convention !== null && !taken.has(h.id) && !h.usedIn.some((u) => u.template === template.id),
  );
  const add = (convention: Convention) =>
    onChange({ ...template, conventions: [...template.conventions, convention] }, null);
  return (
    <section aria-label="Conventions" className="flex flex-col gap-1">
      <Heading>Conventions it uses</Heading>
      <ul className="flex flex-col gap-1.5 text-sm">
        {template.conventions.map((c) => (
          <li key={c.id}>
            <span className="font-semibold">{c.name}</span>
            <span className="block font-mono text-xs break-all text-ink2">{c.pattern}</span>
          </li>
        ))}
      </ul>
      {free.length > 0 && (
        <Menu
          trigger={
            <Button variant="quiet" className="self-start">
              Take in another…
            </Button>
          }
          lines={free.map((h) => ({
            words: `${h.name}  ${h.convention?.pattern}`,
            run: () => add(present(h.convention)),
          }))}
        />
      )}
    </section>
  );
}
