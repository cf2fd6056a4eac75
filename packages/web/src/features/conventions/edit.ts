/**
 * Acts on a convention's pattern and fields, as the editor offers them. Pure: a convention goes in, the changed one
 * comes out.
 */
import { withoutAbsent } from '@nesting/core';
import {
  addItem,
  type Field,
  parsePattern,
  printRow,
  type Row,
  rowOf,
  type ScalarField,
  type Slot,
} from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';

/** What a part may be, in the words the editor has for it. */
export const PART_KIND_OPTIONS = [
  { value: 'number', label: 'Project number' },
  { value: 'text', label: 'Words' },
  { value: 'choice', label: 'One of a list' },
  { value: 'client', label: 'Client' },
  { value: 'person', label: 'Person' },
  { value: 'date', label: 'Date' },
  { value: 'count', label: 'Number' },
  { value: 'letters', label: 'Letter' },
  { value: 'version', label: 'Version' },
  { value: 'frame', label: 'Frame' },
  { value: 'ext', label: 'Extension' },
] as const;
export type PartKind = (typeof PART_KIND_OPTIONS)[number]['value'];

/** Kinds whose field goes by the kind's own name and needs no declaration. */
const BY_NAME = ['number', 'client', 'person', 'date', 'version', 'frame', 'ext'] as const;
const goesByName = (kind: string): boolean => BY_NAME.some((name) => name === kind);

const FRESH: Readonly<Record<PartKind, string>> = {
  number: '',
  text: ':kebab',
  choice: '',
  client: '.code',
  person: '.initials',
  date: ':yyyyMMdd',
  count: ':00',
  letters: ':A',
  version: ':000',
  frame: ':0000',
  ext: '',
};

export const rowFor = (pattern: string): Row | null => {
  const parsed = parsePattern(pattern);
  return parsed.ok ? rowOf(parsed.value) : null;
};

export function kindOf(slot: Slot, fields: readonly Field[]): PartKind {
  const declared = fields.find((f) => f.key === slot.field);
  if (declared !== undefined) return declared.type === 'list' ? declared.of.type : declared.type;
  return BY_NAME.find((kind) => kind === slot.field) ?? 'text';
}

export const withPattern = (convention: Convention, row: Row): Convention => ({
  ...convention,
  pattern: printRow(row),
});

/** A new part of a kind, before the extension. */
export function addPart(convention: Convention, kind: PartKind): Convention {
  const row = rowFor(convention.pattern) ?? { items: [], tail: '' };
  const taken = new Set([...row.items.map((i) => i.slot.field), ...(convention.fields ?? []).map((f) => f.key)]);
  const key = freeKey(
    goesByName(kind)
      ? kind
      : kind === 'text'
        ? 'title'
        : kind === 'choice'
          ? 'task'
          : kind === 'letters'
            ? 'letter'
            : kind,
    taken,
  );
  const lead = kind === 'version' && key === 'version' ? 'v' : '';
  return declare(withPattern(convention, addItem(row, `${lead}{${key}${FRESH[kind]}}`, key)), key, kind);
}

function freeKey(wanted: string, taken: ReadonlySet<string>): string {
  let key = wanted;
  for (let n = 2; taken.has(key); n++) key = `${wanted}${n}`;
  return key;
}

/** Declares a field where its name alone does not say what it is. */
function declare(convention: Convention, key: string, kind: PartKind): Convention {
  const fields = (convention.fields ?? []).filter((f) => f.key !== key);
  if (key === kind && goesByName(kind)) return { ...convention, fields };
  const type = kind === 'number' ? 'text' : kind;
  const rule: ScalarField =
    type === 'text'
      ? { key, type, max: 24 }
      : type === 'choice'
        ? { key, type, options: [{ code: 'one' }, { code: 'two' }] }
        : { key, type };
  return { ...convention, fields: [...fields, rule] };
}

/** Another kind for a part: its field is declared anew, its shape is the kind's usual one. */
export function changeKind(convention: Convention, slot: Slot, kind: PartKind): Convention {
  const others = new Set(
    (rowFor(convention.pattern)?.items ?? []).map((i) => i.slot.field).filter((f) => f !== slot.field),
  );
  const key = goesByName(kind)
    ? freeKey(kind, others)
    : goesByName(slot.field)
      ? freeKey(kind === 'choice' ? 'task' : 'part', others)
      : slot.field;
  const without = { ...convention, fields: (convention.fields ?? []).filter((f) => f.key !== slot.field) };
  return declare(writeSlot(without, slot, `{${key}${FRESH[kind]}}`), key, kind);
}

const writeSlot = (convention: Convention, slot: Slot, source: string): Convention => ({
  ...convention,
  pattern: convention.pattern.slice(0, slot.at) + source + convention.pattern.slice(slot.end),
});

/** The slot with another shape or property; an empty one leaves it out. */
export function changeSlot(
  convention: Convention,
  slot: Slot,
  change: { readonly shape?: string; readonly property?: string },
): Convention {
  const shape = change.shape ?? slot.shape ?? '';
  const property = change.property ?? slot.property ?? '';
  return writeSlot(
    convention,
    slot,
    `{${slot.field}${property === '' ? '' : `.${property}`}${shape === '' ? '' : `:${shape}`}}`,
  );
}

/** Renames a field wherever the pattern has it. */
export function renameField(convention: Convention, slot: Slot, key: string): Convention {
  const parsed = parsePattern(convention.pattern);
  if (!parsed.ok || !/^[A-Za-z][A-Za-z0-9_-]*$/.test(key)) return convention;
  const uses = [...(rowFor(convention.pattern)?.items ?? [])]
    .map((i) => i.slot)
    .filter((s) => s.field === slot.field)
    .sort((a, b) => b.at - a.at);
  const pattern = uses.reduce(
    (text, s) => `${text.slice(0, s.at + 1)}${key}${text.slice(s.at + 1 + s.field.length)}`,
    convention.pattern,
  );
  return {
    ...convention,
    pattern,
    fields: (convention.fields ?? []).map((f) => (f.key === slot.field ? { ...f, key } : f)),
  };
}

/**
 * The field's own rule with some of it changed; a field that is leaned on is taken over as the convention's own first.
 */
export function changeField(
  convention: Convention,
  key: string,
  leaned: readonly Field[],
  change: Partial<ScalarField>,
): Convention {
  const own = (convention.fields ?? []).find((f) => f.key === key);
  const outer = leaned.find((f) => f.key === key);
  const base = [own, outer].find((f) => f !== undefined && f.type !== 'list') ?? { key, type: 'text' as const };
  const changed = withoutAbsent<ScalarField>({ ...base, ...change });
  return {
    ...convention,
    fields:
      own === undefined
        ? [...(convention.fields ?? []), changed]
        : (convention.fields ?? []).map((f) => (f.key === key ? changed : f)),
  };
}

/** Whether a part may be left out: a group of its own with its separator, or not. */
export function changeOptional(convention: Convention, index: number, optional: boolean): Convention {
  const row = rowFor(convention.pattern);
  const item = row?.items[index];
  if (row === null || item === undefined || item.optional === optional) return convention;
  const separator = /^\(([^\p{L}\p{N}{}()]*)/u.exec(item.source)?.[1] ?? '';
  const changed = optional
    ? { ...item, before: '', source: `(${item.before}${item.source})?`, optional }
    : { ...item, before: index === 0 ? '' : separator, source: item.source.slice(1 + separator.length, -2), optional };
  return withPattern(convention, { ...row, items: row.items.map((i) => (i === item ? changed : i)) });
}

/** The separator before a part. */
export function changeSeparator(convention: Convention, index: number, before: string): Convention {
  const row = rowFor(convention.pattern);
  const item = row?.items[index];
  if (row === null || item === undefined || index === 0) return convention;
  const separator = /^\(([^\p{L}\p{N}{}()]*)/u.exec(item.source)?.[1] ?? '';
  const changed = item.optional
    ? { ...item, source: `(${before}${item.source.slice(1 + separator.length)}` }
    : { ...item, before };
  return withPattern(convention, { ...row, items: row.items.map((i) => (i === item ? changed : i)) });
}

/** `anim = Animation, animate` a line → the options of a list. */
export function optionsFrom(text: string): { code: string; label?: string; also?: string[] }[] {
  return text.split('\n').flatMap((line) => {
    const [code = '', words = ''] = line.split('=').map((part) => part.trim());
    if (code === '') return [];
    const [label, ...also] = words
      .split(',')
      .map((word) => word.trim())
      .filter((word) => word !== '');
    return [{ code, ...(label !== undefined && { label }), ...(also.length > 0 && { also }) }];
  });
}

/** Of a choice: what its words are to a version. */
export const OF_VERSION_WORDS = 'Says how far a version is: a new one begins with the first';

export const optionsText = (
  options: readonly {
    readonly code: string;
    readonly label?: string | undefined;
    readonly also?: readonly string[] | undefined;
  }[],
): string =>
  options
    .map((o) =>
      o.label === undefined && !o.also?.length
        ? o.code
        : `${o.code} = ${[o.label, ...(o.also ?? [])].filter((w) => w !== undefined).join(', ')}`,
    )
    .join('\n');
