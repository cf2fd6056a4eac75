/** The selected part: what it is, how it is written, what it may hold. */
import { type Field, type Item, removeItem, ruleFor, type ScalarRule } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { useId } from 'react';
import { Button, Choose, Heading, Labelled, Lines, TextInput, Tick } from '../../ui';
import {
  changeField,
  changeKind,
  changeOptional,
  changeSeparator,
  changeSlot,
  kindOf,
  OF_VERSION_WORDS,
  optionsFrom,
  optionsText,
  PART_KIND_OPTIONS,
  renameField,
  rowFor,
  withPattern,
} from './edit';
import { PartWritten } from './part-written';

interface Props {
  readonly convention: Convention;
  readonly index: number;
  readonly item: Item;
  /** Fields it may lean on, and whose they are. */
  readonly leaned: readonly Field[];
  readonly from: string | null;
  readonly readOnly: boolean;
  readonly onChange: (convention: Convention, what: string | null) => void;
}

const NONE = 'none';

export function PartForm({ convention, index, item, leaned, from, readOnly, onChange }: Props) {
  const id = useId();
  const { slot } = item;
  const own = (convention.fields ?? []).find((f) => f.key === slot.field);
  const kind = kindOf(slot, [...(convention.fields ?? []), ...leaned]);
  const rule = ruleFor(slot.field, [...(convention.fields ?? []), ...leaned]);
  const set = (change: Partial<ScalarRule>, what: string) =>
    onChange(changeField(convention, slot.field, leaned, change), `${slot.field} ${what}`);
  const leans = own === undefined && leaned.some((f) => f.key === slot.field);
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-3">
      <Heading>Selected part: {slot.field}</Heading>
      <div className="grid grid-cols-2 gap-3">
        <Labelled id={`${id}k`} label="What it is">
          <Choose
            id={`${id}k`}
            label="What it is"
            disabled={readOnly}
            value={kind}
            options={PART_KIND_OPTIONS}
            onChange={(value) => onChange(changeKind(convention, slot, value), null)}
          />
        </Labelled>
        <Labelled id={`${id}n`} label="Its name">
          <TextInput
            id={`${id}n`}
            key={slot.field}
            defaultValue={slot.field}
            disabled={readOnly}
            onBlur={(e) => onChange(renameField(convention, slot, e.target.value.trim()), null)}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            className="font-mono"
          />
        </Labelled>
      </div>
      {leans && from && (
        <p className="text-xs text-ink2">
          Its limits are those of the template {from}. Changing one here gives this convention its own.
        </p>
      )}
      <PartWritten
        slot={slot}
        kind={kind}
        readOnly={readOnly}
        onChange={(change) => onChange(changeSlot(convention, slot, change), null)}
      />
      {kind === 'text' && <TextFields rule={rule} readOnly={readOnly} onSet={set} />}
      {kind === 'choice' && <ChoiceFields field={slot.field} rule={rule} readOnly={readOnly} onSet={set} />}
      <Place
        convention={convention}
        index={index}
        item={item}
        readOnly={readOnly}
        onChange={(next) => onChange(next, null)}
      />
    </fieldset>
  );
}

interface ChoiceProps {
  readonly field: string;
  readonly rule: ScalarRule;
  readonly readOnly: boolean;
  readonly onSet: (change: Partial<ScalarRule>, what: string) => void;
}

/** What it may be, and whether it says how far a version is. */
function ChoiceFields({ field, rule, readOnly, onSet }: ChoiceProps) {
  const id = useId();
  return (
    <>
      <Labelled id={id} label="The list, one a line" help="code = what it is called, what people write instead">
        <Lines
          id={id}
          key={`${field} ${(rule.options ?? []).length === 0}`}
          rows={7}
          defaultValue={optionsText(rule.options ?? [])}
          disabled={readOnly}
          onChange={(e) => onSet({ options: optionsFrom(e.target.value) }, 'options')}
        />
      </Labelled>
      <Tick
        label={OF_VERSION_WORDS}
        checked={rule.ofVersion === true}
        disabled={readOnly}
        onChange={(ofVersion) => onSet({ ofVersion: ofVersion || undefined }, 'states')}
      />
    </>
  );
}

interface PlaceProps {
  readonly convention: Convention;
  readonly index: number;
  readonly item: Item;
  readonly readOnly: boolean;
  readonly onChange: (convention: Convention) => void;
}

/** Where the part stands: what parts it from the one before, whether it may be left out. */
function Place({ convention, index, item, readOnly, onChange }: PlaceProps) {
  const id = useId();
  const separator = item.optional ? (/^\(([^\p{L}\p{N}{}()]*)/u.exec(item.source)?.[1] ?? '') : item.before;
  const options = ['_', '-', '.', ' ', NONE].map((value) => ({
    value,
    label: value === NONE ? 'nothing' : value === ' ' ? 'a blank' : value,
  }));
  const value = separator === '' ? NONE : separator;
  return (
    <>
      {index > 0 && (
        <Labelled id={id} label="Parted from what is before it by">
          <Choose
            id={id}
            label="Parted from what is before it by"
            disabled={readOnly}
            value={value}
            options={options.some((o) => o.value === value) ? options : [{ value, label: value }, ...options]}
            onChange={(next) => onChange(changeSeparator(convention, index, next === NONE ? '' : next))}
          />
        </Labelled>
      )}
      <div className="flex items-center justify-between">
        <Tick
          label="May be left out"
          checked={item.optional}
          disabled={readOnly}
          onChange={(optional) => onChange(changeOptional(convention, index, optional))}
        />
        {!readOnly && (
          <Button
            variant="quiet"
            onClick={() => {
              const row = rowFor(convention.pattern);
              if (row) onChange(withPattern(convention, removeItem(row, index)));
            }}
          >
            Take this part out
          </Button>
        )}
      </div>
    </>
  );
}

interface TextFieldsProps {
  readonly rule: ScalarRule;
  readonly readOnly: boolean;
  readonly onSet: (change: Partial<ScalarRule>, what: string) => void;
}

function TextFields({ rule, readOnly, onSet }: TextFieldsProps) {
  const id = useId();
  const given = (text: string) => (text === '' ? undefined : text);
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Labelled id={`${id}m`} label="At most, characters">
          <TextInput
            id={`${id}m`}
            type="number"
            min={1}
            max={255}
            value={rule.max ?? ''}
            disabled={readOnly}
            onChange={(e) =>
              onSet(
                { max: e.target.value === '' ? undefined : Math.max(1, Math.min(255, Number(e.target.value))) },
                'max',
              )
            }
          />
        </Labelled>
        <Labelled id={`${id}l`} label="Of the form" help="s00: an s and two digits or more">
          <TextInput
            id={`${id}l`}
            value={rule.like ?? ''}
            disabled={readOnly}
            onChange={(e) => onSet({ like: given(e.target.value) }, 'like')}
            className="font-mono"
          />
        </Labelled>
      </div>
      {rule.like === undefined && (
        <Labelled id={`${id}c`} label="Only these characters">
          <TextInput
            id={`${id}c`}
            value={rule.chars ?? ''}
            placeholder="any of its shape"
            disabled={readOnly}
            onChange={(e) => onSet({ chars: given(e.target.value) }, 'chars')}
            className="font-mono"
          />
        </Labelled>
      )}
    </>
  );
}
