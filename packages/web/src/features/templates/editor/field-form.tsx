/** The selected field: what is asked for when a project starts. */
import { withoutAbsent } from '@nesting/core';
import { type Field, type ListField, SCALAR_TYPES, type ScalarRule } from '@nesting/core/name';
import { renameField, type Template } from '@nesting/core/template';
import { useId } from 'react';
import { Button, Choose, Heading, Labelled, Lines, TextInput, Tick } from '../../../ui';
import { OF_VERSION_WORDS, optionsFrom, optionsText } from '../../conventions/edit';

const TYPE_WORDS: Readonly<Record<string, string>> = {
  text: 'Words',
  choice: 'One of a few',
  client: 'A client',
  person: 'A person',
  count: 'A number',
  letters: 'A letter',
  date: 'A date',
  list: 'A list',
};
const ASKED = SCALAR_TYPES.filter((t) => t in TYPE_WORDS);
const NONE = 'none';

interface Props {
  readonly template: Template;
  readonly field: Field;
  readonly readOnly: boolean;
  readonly onChange: (template: Template, what: string | null) => void;
  readonly onGone: () => void;
}

type PutField = (next: Field, what: string | null) => void;

interface SectionProps {
  readonly template: Template;
  readonly field: Field;
  readonly readOnly: boolean;
  /** `what` names what is being typed, so that one undo takes all of it back. */
  readonly put: PutField;
}

export function FieldForm({ template, field, readOnly, onChange, onGone }: Props) {
  const put: PutField = (next, what) =>
    onChange(
      { ...template, fields: template.fields.map((f) => (f === field ? next : f)) },
      what === null ? null : `field ${field.id ?? field.key} ${what}`,
    );
  const section = { template, field, readOnly, put };
  const remove = () => {
    onChange({ ...template, fields: template.fields.filter((f) => f !== field) }, null);
    onGone();
  };
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-4">
      <Heading>Asked for: {field.label ?? field.key}</Heading>
      <div className="grid grid-cols-2 gap-3">
        <Names {...section} onRename={(key) => onChange(renameField(template, field.key, key), null)} />
        <Type {...section} />
        {field.type === 'list' && <ListOf {...section} field={field} />}
        <TextRule {...section} />
      </div>
      <Options {...section} />
      <Help {...section} />
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        {field.type === 'list' && (
          <Tick
            label="Artists may add entries"
            checked={field.artistsMayAdd ?? false}
            disabled={readOnly}
            onChange={(may) => put({ ...field, artistsMayAdd: may || undefined }, null)}
          />
        )}
        <Tick
          label="Needed"
          checked={field.required ?? false}
          disabled={readOnly}
          onChange={(required) => put({ ...field, required: required || undefined }, null)}
        />
        {!readOnly && (
          <Button variant="quiet" onClick={remove}>
            Take it out
          </Button>
        )}
      </div>
    </fieldset>
  );
}

const ruleOf = (field: Field): ScalarRule => (field.type === 'list' ? field.of : field);

/** What a field has whatever it is. */
const headOf = ({ id, key, label, help, required }: Field) => ({
  ...(id !== undefined && { id }),
  key,
  ...(label !== undefined && { label }),
  ...(help !== undefined && { help }),
  ...(required !== undefined && { required }),
});

function withRule(field: Field, change: Partial<ScalarRule>): Field {
  const rule = pure(withoutAbsent({ ...ruleOf(field), ...change }));
  return field.type === 'list' ? { ...field, of: rule } : { ...headOf(field), ...rule };
}

function withType(field: Field, type: string): Field {
  const head = headOf(field);
  if (type === 'list') return { ...head, type: 'list', of: { type: 'text', max: 24 } };
  if (type === 'choice') return { ...head, type: 'choice', options: [{ code: 'one' }, { code: 'two' }] };
  return { ...head, type: ASKED.find((t) => t === type) ?? 'text' };
}

function Names({ template, field, put, onRename }: SectionProps & { readonly onRename: (key: string) => void }) {
  const id = useId();
  const rename = (key: string) => {
    const isFree = !template.fields.some((f) => f.key === key);
    if (key !== field.key && /^[A-Za-z][A-Za-z0-9_-]*$/.test(key) && isFree) onRename(key);
  };
  return (
    <>
      <Labelled id={`${id}l`} label="Label">
        <TextInput
          id={`${id}l`}
          value={field.label ?? ''}
          onChange={(e) => put({ ...field, label: e.target.value || undefined }, 'label')}
        />
      </Labelled>
      <Labelled id={`${id}k`} label="Its name in patterns">
        <TextInput
          id={`${id}k`}
          key={field.key}
          defaultValue={field.key}
          onBlur={(e) => rename(e.target.value)}
          className="font-mono"
        />
      </Labelled>
    </>
  );
}

function Type({ field, readOnly, put }: SectionProps) {
  const id = useId();
  return (
    <Labelled id={id} label="It is">
      <Choose
        id={id}
        label="It is"
        disabled={readOnly}
        value={field.type}
        options={[...ASKED, 'list'].map((value) => ({ value, label: TYPE_WORDS[value] ?? value }))}
        onChange={(type) => put(withType(field, type), null)}
      />
    </Labelled>
  );
}

/** Of a list: what its entries are, and whether another list's entries have lists of their own. */
function ListOf({ template, field, readOnly, put }: Omit<SectionProps, 'field'> & { readonly field: ListField }) {
  const id = useId();
  const others = template.fields.filter((f) => f.type === 'list' && f.key !== field.key);
  return (
    <>
      <Labelled id={`${id}e`} label="Of">
        <Choose
          id={`${id}e`}
          label="Of"
          disabled={readOnly}
          value={field.of.type}
          options={ASKED.map((value) => ({ value, label: TYPE_WORDS[value] ?? value }))}
          onChange={(type) => put({ ...field, of: { type: ASKED.find((t) => t === type) ?? 'text' } }, null)}
        />
      </Labelled>
      <Labelled id={`${id}w`} label="For each of">
        <Choose
          id={`${id}w`}
          label="For each of"
          disabled={readOnly}
          value={field.within ?? NONE}
          options={[
            { value: NONE, label: 'nothing else' },
            ...others.map((f) => ({ value: f.key, label: f.label ?? f.key })),
          ]}
          onChange={(value) => put({ ...field, within: value === NONE ? undefined : value }, null)}
        />
      </Labelled>
      <Labelled
        id={`${id}r`}
        label="A revision is called"
        help="Where each entry is made from the one before: its name in patterns. Else empty."
      >
        <TextInput
          id={`${id}r`}
          value={field.revisions ?? ''}
          maxLength={60}
          className="font-mono"
          onChange={(e) => put({ ...field, revisions: e.target.value.trim() || undefined }, 'revisions')}
        />
      </Labelled>
    </>
  );
}

function TextRule({ field, put }: SectionProps) {
  const id = useId();
  const rule = ruleOf(field);
  if (rule.type !== 'text') return null;
  const most = (text: string) => (text === '' ? undefined : Math.max(1, Math.min(255, Number(text))));
  return (
    <>
      <Labelled id={`${id}m`} label="At most, characters">
        <TextInput
          id={`${id}m`}
          type="number"
          min={1}
          max={255}
          value={rule.max ?? ''}
          onChange={(e) => put(withRule(field, { max: most(e.target.value) }), 'max')}
        />
      </Labelled>
      <Labelled id={`${id}f`} label="Of the form">
        <TextInput
          id={`${id}f`}
          value={rule.like ?? ''}
          placeholder="s00"
          onChange={(e) => put(withRule(field, { like: e.target.value || undefined }), 'like')}
          className="font-mono"
        />
      </Labelled>
    </>
  );
}

function Options({ field, put }: SectionProps) {
  const id = useId();
  const rule = ruleOf(field);
  if (rule.type !== 'choice') return null;
  return (
    <>
      <Labelled id={id} label="The list, one a line" help="code = what it is called, what people write instead">
        <Lines
          id={id}
          key={field.key}
          rows={5}
          defaultValue={optionsText(rule.options ?? [])}
          onChange={(e) => put(withRule(field, { options: optionsFrom(e.target.value) }), 'options')}
        />
      </Labelled>
      <Tick
        label={OF_VERSION_WORDS}
        checked={rule.ofVersion === true}
        onChange={(ofVersion) => put(withRule(field, { ofVersion: ofVersion || undefined }), 'states')}
      />
    </>
  );
}

function Help({ field, put }: SectionProps) {
  const id = useId();
  return (
    <Labelled id={id} label="A word of help">
      <TextInput
        id={id}
        value={field.help ?? ''}
        onChange={(e) => put({ ...field, help: e.target.value || undefined }, 'help')}
      />
    </Labelled>
  );
}

/** The rule's own settings, without what belongs to the field. */
const pure = ({ type, max, chars, like, options, ofVersion }: ScalarRule): ScalarRule =>
  withoutAbsent({ type, max, chars, like, options, ofVersion });
