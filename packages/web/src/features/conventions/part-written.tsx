/** How a part is written: its shape, or which property of a person or client stands there. */
import { type Item, TEXT_SHAPES } from '@nesting/core/name';
import { useId } from 'react';
import { Choose, Labelled } from '../../ui';
import type { PartKind } from './edit';

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

interface Props {
  readonly slot: Item['slot'];
  readonly kind: PartKind;
  readonly readOnly: boolean;
  readonly onChange: (change: { shape?: string; property?: string }) => void;
}

interface Ways {
  /** How it is written now. */
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  readonly changeTo: (value: string) => { shape?: string; property?: string };
}

export function PartWritten({ slot, kind, readOnly, onChange }: Props) {
  const id = useId();
  const ways = waysOf(kind, slot);
  if (ways === null) return null;
  const { value, options, changeTo } = ways;
  return (
    <Labelled id={id} label="Written">
      <Choose
        id={id}
        label="Written"
        disabled={readOnly}
        value={value}
        options={options.some((o) => o.value === value) ? options : [{ value, label: value }, ...options]}
        onChange={(next) => onChange(changeTo(next))}
      />
    </Labelled>
  );
}

/** The ways in which a part of this kind can be written; `null` where there is but one. */
function waysOf(kind: PartKind, { shape, property }: Item['slot']): Ways | null {
  switch (kind) {
    case 'text':
    case 'choice':
      return {
        value: shape ?? 'as-is',
        options: TEXT_SHAPES.map((s) => ({ value: s, label: SHAPE_WORDS[s] ?? s })),
        changeTo: (s) => ({ shape: s === 'as-is' ? '' : s }),
      };
    case 'version':
      return paddedWays(shape, ['0', '00', '000', '0000', 'A', 'a']);
    case 'count':
    case 'frame':
      return paddedWays(shape, ['0', '00', '000', '0000', '00000', '000000']);
    case 'letters':
      return { value: shape ?? 'A', options: LETTERS, changeTo: (s) => ({ shape: s }) };
    case 'date':
      return {
        value: shape ?? 'yyyy-MM-dd',
        options: DATE_SHAPES.map((s) => ({ value: s, label: s })),
        changeTo: (s) => ({ shape: s }),
      };
    case 'client':
      return propertyWays(property, 'code');
    case 'person':
      return propertyWays(property, 'initials');
    default:
      return null;
  }
}

const LETTERS = [
  { value: 'A', label: 'A, B, C' },
  { value: 'a', label: 'a, b, c' },
];

/** By how many digits a number is written, or by letters. */
const paddedWays = (shape: string | null, shapes: readonly string[]): Ways => ({
  value: shape ?? '0',
  options: shapes.map((s) => ({
    value: s,
    label: s === 'A' || s === 'a' ? `letters: ${s}` : '7'.padStart(s.length, '0'),
  })),
  changeTo: (s) => ({ shape: s === '0' ? '' : s }),
});

/** By a short form, or by the whole name. */
const propertyWays = (property: string | null, short: string): Ways => ({
  value: property ?? short,
  options: [
    { value: short, label: `by ${short}` },
    { value: 'name', label: 'by name' },
  ],
  changeTo: (p) => ({ property: p, shape: p === 'name' ? 'kebab' : '' }),
});
