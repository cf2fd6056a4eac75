/** The selected field: what is asked for when a project starts. */
import { type Field, type ListField, SCALAR_TYPES, type ScalarField, type ScalarRule } from '@nesting/core/name';
import { renameField, type Template } from '@nesting/core/template';
import { useId } from 'react';
import { Button, Choose, Heading, Labelled, Lines, TextInput, Tick } from '../../../ui';
import { optionsFrom, optionsText } from '../../conventions/edit';

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

export function FieldForm({ template, field, readOnly, onChange, onGone }: Props) {
  const id = useId();
  const put = (next: Field, what: string | null) =>
    onChange(
      { ...template, fields: template.fields.map((f) => (f === field ? next : f)) },
      what === null ? null : `field ${field.id ?? field.key} ${what}`,
    );
  const rule: ScalarRule = field.type === 'list' ? field.of : field;
  const head = {
    ...(field.id !== undefined && { id: field.id }),
    key: field.key,
    ...(field.label !== undefined && { label: field.label }),
    ...(field.help !== undefined && { help: field.help }),
    ...(field.required !== undefined && { required: field.required }),
  };
  const setRule = (change: Partial<ScalarRule>, what: string | null) => {
    const next = clean({ ...rule, ...change });
    put(
      field.type === 'list' ? ({ ...field, of: pure(next) } as ListField) : ({ ...head, ...pure(next) } as ScalarField),
      what,
    );
  };
  const setType = (type: string) => {
    if (type === 'list') put({ ...head, type: 'list', of: { type: 'text', max: 24 } }, null);
    else
      put(
        {
          ...head,
          ...(type === 'choice' ? { type, options: [{ code: 'one' }, { code: 'two' }] } : { type }),
        } as ScalarField,
        null,
      );
  };
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-4">
      <Heading>Asked for: {field.label ?? field.key}</Heading>
      <div className="grid grid-cols-2 gap-3">
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
            onBlur={(e) =>
              e.target.value !== field.key &&
              /^[A-Za-z][A-Za-z0-9_-]*$/.test(e.target.value) &&
              !template.fields.some((f) => f.key === e.target.value) &&
              onChange(renameField(template, field.key, e.target.value), null)
            }
            className="font-mono"
          />
        </Labelled>
        <Labelled id={`${id}t`} label="It is">
          <Choose
            id={`${id}t`}
            label="It is"
            disabled={readOnly}
            value={field.type}
            options={[...ASKED, 'list'].map((value) => ({ value, label: TYPE_WORDS[value] as string }))}
            onChange={setType}
          />
        </Labelled>
        {field.type === 'list' && (
          <Labelled id={`${id}e`} label="Of">
            <Choose
              id={`${id}e`}
              label="Of"
              disabled={readOnly}
              value={field.of.type}
              options={ASKED.map((value) => ({ value, label: TYPE_WORDS[value] as string }))}
              onChange={(type) => put({ ...field, of: { type: type as ScalarRule['type'] } }, null)}
            />
          </Labelled>
        )}
        {field.type === 'list' && (
          <Labelled id={`${id}w`} label="For each of">
            <Choose
              id={`${id}w`}
              label="For each of"
              disabled={readOnly}
              value={field.within ?? NONE}
              options={[
                { value: NONE, label: 'nothing else' },
                ...template.fields
                  .filter((f) => f.type === 'list' && f !== field)
                  .map((f) => ({ value: f.key, label: f.label ?? f.key })),
              ]}
              onChange={(value) => put({ ...field, within: value === NONE ? undefined : value }, null)}
            />
          </Labelled>
        )}
        {rule.type === 'text' && (
          <>
            <Labelled id={`${id}m`} label="At most, characters">
              <TextInput
                id={`${id}m`}
                type="number"
                min={1}
                max={255}
                value={rule.max ?? ''}
                onChange={(e) =>
                  setRule(
                    { max: e.target.value === '' ? undefined : Math.max(1, Math.min(255, Number(e.target.value))) },
                    'max',
                  )
                }
              />
            </Labelled>
            <Labelled id={`${id}f`} label="Of the form">
              <TextInput
                id={`${id}f`}
                value={rule.like ?? ''}
                placeholder="s00"
                onChange={(e) => setRule({ like: e.target.value || undefined }, 'like')}
                className="font-mono"
              />
            </Labelled>
          </>
        )}
      </div>
      {rule.type === 'choice' && (
        <Labelled id={`${id}o`} label="The list, one a line" help="code = what it is called, what people write instead">
          <Lines
            id={`${id}o`}
            key={field.key}
            rows={5}
            defaultValue={optionsText(rule.options ?? [])}
            onChange={(e) => setRule({ options: optionsFrom(e.target.value) }, 'options')}
          />
        </Labelled>
      )}
      <Labelled id={`${id}h`} label="A word of help">
        <TextInput
          id={`${id}h`}
          value={field.help ?? ''}
          onChange={(e) => put({ ...field, help: e.target.value || undefined }, 'help')}
        />
      </Labelled>
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
          <Button
            look="quiet"
            onClick={() => {
              onChange({ ...template, fields: template.fields.filter((f) => f !== field) }, null);
              onGone();
            }}
          >
            Take it out
          </Button>
        )}
      </div>
    </fieldset>
  );
}

const clean = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;

/** The rule's own settings, without what belongs to the field. */
const pure = ({ type, max, chars, like, options }: ScalarRule): ScalarRule =>
  clean({ type, max, chars, like, options });
