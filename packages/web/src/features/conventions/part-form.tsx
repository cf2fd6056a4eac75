/** The selected part: what it is, how it is written, what it may hold. */
import { type Field, type Item, removeItem, ruleFor, type ScalarRule, TEXT_SHAPES } from '@nesting/core/name';
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
  optionsFrom,
  optionsText,
  PART_KINDS,
  type PartKind,
  renameField,
  rowFor,
  withPattern,
} from './edit';

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

/** Shapes in the words the editor has for them, each shown by an example. */
const SHAPE_WORDS: Readonly<Record<string, string>> = {
  'as-is': 'as it is written',
  lower: 'harbour lights',
  upper: 'HARBOUR LIGHTS',
  title: 'Harbour Lights',
  kebab: 'harbour-lights',
  snake: 'harbour_lights',
  camel: 'harbourLights',
  pascal: 'HarbourLights',
};
const DATE_SHAPES = ['yyyy-MM-dd', 'yyyyMMdd', 'yyMMdd', 'dd-MM-yyyy', 'yyyy-MM', 'yyyyMMdd-HHmm'];
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
            options={Object.entries(PART_KINDS).map(([value, label]) => ({ value, label }))}
            onChange={(value) => onChange(changeKind(convention, slot, value as PartKind), null)}
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
      <Written
        slot={slot}
        kind={kind}
        readOnly={readOnly}
        onChange={(change) => onChange(changeSlot(convention, slot, change), null)}
      />
      {kind === 'text' && (
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
                set(
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
              onChange={(e) => set({ like: e.target.value === '' ? undefined : e.target.value }, 'like')}
              className="font-mono"
            />
          </Labelled>
        </div>
      )}
      {kind === 'text' && rule.like === undefined && (
        <Labelled id={`${id}c`} label="Only these characters">
          <TextInput
            id={`${id}c`}
            value={rule.chars ?? ''}
            placeholder="any of its shape"
            disabled={readOnly}
            onChange={(e) => set({ chars: e.target.value === '' ? undefined : e.target.value }, 'chars')}
            className="font-mono"
          />
        </Labelled>
      )}
      {kind === 'choice' && (
        <Labelled id={`${id}o`} label="The list, one a line" help="code = what it is called, what people write instead">
          <Lines
            id={`${id}o`}
            key={`${slot.field} ${(rule.options ?? []).length === 0}`}
            rows={7}
            defaultValue={optionsText(rule.options ?? [])}
            disabled={readOnly}
            onChange={(e) => set({ options: optionsFrom(e.target.value) }, 'options')}
          />
        </Labelled>
      )}
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

function Written({
  slot,
  kind,
  readOnly,
  onChange,
}: {
  slot: Item['slot'];
  kind: PartKind;
  readOnly: boolean;
  onChange: (change: { shape?: string; property?: string }) => void;
}) {
  const id = useId();
  const choose = (
    label: string,
    value: string,
    options: readonly { value: string; label: string }[],
    change: (value: string) => void,
  ) => (
    <Labelled id={id} label={label}>
      <Choose
        id={id}
        label={label}
        disabled={readOnly}
        value={value}
        options={options.some((o) => o.value === value) ? options : [{ value, label: value }, ...options]}
        onChange={change}
      />
    </Labelled>
  );
  const padded = (shapes: readonly string[]) =>
    shapes.map((shape) => ({
      value: shape,
      label: shape === 'A' || shape === 'a' ? `letters: ${shape}` : `${'7'.padStart(shape.length, '0')}`,
    }));
  switch (kind) {
    case 'text':
    case 'choice':
      return choose(
        'Written',
        slot.shape ?? 'as-is',
        TEXT_SHAPES.map((shape) => ({ value: shape, label: SHAPE_WORDS[shape] ?? shape })),
        (shape) => onChange({ shape: shape === 'as-is' ? '' : shape }),
      );
    case 'version':
      return choose('Written', slot.shape ?? '0', padded(['0', '00', '000', '0000', 'A', 'a']), (shape) =>
        onChange({ shape: shape === '0' ? '' : shape }),
      );
    case 'count':
    case 'frame':
      return choose('Written', slot.shape ?? '0', padded(['0', '00', '000', '0000', '00000', '000000']), (shape) =>
        onChange({ shape: shape === '0' ? '' : shape }),
      );
    case 'letters':
      return choose(
        'Written',
        slot.shape ?? 'A',
        [
          { value: 'A', label: 'A, B, C' },
          { value: 'a', label: 'a, b, c' },
        ],
        (shape) => onChange({ shape }),
      );
    case 'date':
      return choose(
        'Written',
        slot.shape ?? 'yyyy-MM-dd',
        DATE_SHAPES.map((shape) => ({ value: shape, label: shape })),
        (shape) => onChange({ shape }),
      );
    case 'client':
      return choose(
        'Written',
        slot.property ?? 'code',
        [
          { value: 'code', label: 'by code' },
          { value: 'name', label: 'by name' },
        ],
        (property) => onChange({ property, shape: property === 'name' ? 'kebab' : '' }),
      );
    case 'person':
      return choose(
        'Written',
        slot.property ?? 'initials',
        [
          { value: 'initials', label: 'by initials' },
          { value: 'name', label: 'by name' },
        ],
        (property) => onChange({ property, shape: property === 'name' ? 'kebab' : '' }),
      );
    default:
      return null;
  }
}

/** Where the part stands: what parts it from the one before, whether it may be left out. */
function Place({
  convention,
  index,
  item,
  readOnly,
  onChange,
}: {
  convention: Convention;
  index: number;
  item: Item;
  readOnly: boolean;
  onChange: (convention: Convention) => void;
}) {
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
            look="quiet"
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
