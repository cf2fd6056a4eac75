/**
 * From sample names to the conventions they were most likely written by. Samples are cut into tokens, parted into heaps
 * of one build, laid
 * in columns, and each column typed; what comes out is compiled, proved and tried on the very names, and only what they
 * read is claimed.
 */
import { elementAt } from '../../element';
import { LIMITS } from '../../limits';
import { compileConvention } from '../pattern/compile';
import type { Field, Registers } from '../pattern/field';
import type { CompiledConvention } from '../pattern/ops';
import { parsePattern } from '../pattern/parse';
import { curesFor } from '../prove/cure';
import { proveOneWay } from '../prove/prove';
import { readName } from '../read/read';
import { type Heap, heapsOf } from './columns';
import { type Learnt, learnColumn } from './slot';
import { type Sample, sampleOf, type Token, tokenOf } from './tokens';

export interface LearnedConvention {
  readonly pattern: string;
  readonly fields: readonly Field[];
  /** Families of the extensions met; nothing where none, or not all, are known. */
  readonly families: readonly string[] | undefined;
  /** Places in the given names of those it reads. */
  readonly reads: readonly number[];
  /** Whether it is proved to read one way. */
  readonly oneWay: boolean;
}

export interface Learned {
  /** Most names first. */
  readonly conventions: readonly LearnedConvention[];
  /** Places in the given names that no convention reads. */
  readonly misfits: readonly number[];
}

/** Conventions proposed of one heap of names: a coordinator looks at each. */
const MOST_CONVENTIONS = 12;

/** `title` is that of the project the names come from, where they are all of one and it is known. */
export function learnConventions(names: readonly string[], registers: Registers, title: string | null = null): Learned {
  const extensions = registers.families.flatMap((f) => f.extensions);
  const samples = names
    .slice(0, LIMITS.learnNames)
    .map((name) => sampleOf(name.slice(0, LIMITS.suggestLength + 1), extensions));
  const { heaps } = heapsOf(
    samples.filter((s) => s.tokens.length > 0 && s.name.length <= LIMITS.suggestLength),
    (ext) => registers.families.find((f) => f.extensions.includes(ext))?.name ?? ext,
  );
  const left = new Set(names.keys());
  const conventions: LearnedConvention[] = [];
  for (const heap of heaps.slice(0, MOST_CONVENTIONS)) {
    const learned = learnHeap(splitColumns(heap), registers, title);
    if (learned === null) continue;
    const reads = [...left].filter((i) => readName(learned.compiled, elementAt(names, i)) !== null);
    if (reads.length < Math.min(3, names.length)) continue;
    for (const i of reads) left.delete(i);
    conventions.push({
      pattern: learned.pattern,
      fields: learned.fields,
      families: learned.families,
      reads,
      oneWay: learned.oneWay,
    });
  }
  return { conventions: conventions.sort((a, b) => b.reads.length - a.reads.length), misfits: [...left] };
}

/** Values of which a list is made where nothing else tells two parts apart. */
const MOST_LISTED = 24;

interface Candidate {
  readonly pattern: string;
  readonly fields: readonly Field[];
  readonly families: readonly string[] | undefined;
  readonly compiled: CompiledConvention;
  readonly oneWay: boolean;
}

function learnHeap(heap: Heap, registers: Registers, title: string | null): Candidate | null {
  const taken = new Set<string>();
  const columns = heap.columns.map((column, index) => {
    const cells = heap.rows.flatMap((row) => row.cells[index] ?? []);
    return {
      column,
      learnt: learnColumn(column, cells, { registers, index, last: index === heap.columns.length - 1, taken, title }),
    };
  });
  // Any text at all is no convention.
  if (
    columns.every(
      ({ learnt }) =>
        learnt.kind === 'slot' &&
        learnt.rest === '' &&
        learnt.field?.type === 'text' &&
        learnt.field.like === undefined,
    )
  )
    return null;
  const ext = extensionOf(
    heap.rows.map((row) => row.sample.ext),
    registers,
  );
  const pattern =
    columns
      .map(({ column, learnt }, i) =>
        column.optional && learnt.kind === 'slot'
          ? `(${printed(column.before, learnt)})?`
          : printed(i === 0 && !/[()[\]{}]/.test(column.before) ? '' : column.before, learnt),
      )
      .join('') +
    literally(heap.rows[0]?.sample.tail ?? '') +
    ext.pattern;
  const fields = [
    ...columns.flatMap(({ learnt }) => (learnt.kind === 'slot' && learnt.field !== null ? [learnt.field] : [])),
    ...ext.fields,
  ];
  const values = Object.fromEntries(
    columns.flatMap(({ learnt }, i) =>
      learnt.kind === 'slot' ? [[learnt.key, [...new Set(heap.rows.flatMap((row) => row.cells[i]?.text ?? []))]]] : [],
    ),
  );
  return candidate(pattern, fields, ext.families, registers, values);
}

const printed = (before: string, learnt: Learnt): string =>
  literally(before) +
  (learnt.kind === 'literal' ? literally(learnt.text) : `${literally(learnt.lead)}{${learnt.key}${learnt.rest}}`);

const literally = (text: string): string => text.replace(/[{}()]/g, '$&$&');

/**
 * Compiled and proved; a pattern that can be misread takes a cure where there is one that leaves its separators alone.
 */
function candidate(
  pattern: string,
  fields: readonly Field[],
  families: readonly string[] | undefined,
  registers: Registers,
  values: Readonly<Record<string, readonly string[]>>,
): Candidate | null {
  const context = { fields, registers, families };
  const compiled = compiledOf(pattern, context);
  if (compiled === null) return null;
  const proof = proveOneWay(compiled);
  if (proof === 'one-way' || proof === null)
    return { pattern, fields, families, compiled, oneWay: proof === 'one-way' };
  // A cure that changes separators would no longer read the samples: only shapes and lists come into question.
  const cure = curesFor(pattern, context, proof, values).find(
    (c) => c.code === 'shape' || (c.code === 'values' && Number(c.params.count) <= MOST_LISTED),
  );
  const cured = cure && compiledOf(cure.pattern, { ...context, fields: cure.fields });
  if (cure && cured) return { pattern: cure.pattern, fields: cure.fields, families, compiled: cured, oneWay: true };
  return listed(pattern, context, values) ?? { pattern, fields, families, compiled, oneWay: false };
}

/** Texts of few values as lists of them, where that makes the pattern read one way and no single change does. */
function listed(
  pattern: string,
  context: { fields: readonly Field[]; registers: Registers; families: readonly string[] | undefined },
  values: Readonly<Record<string, readonly string[]>>,
): Candidate | null {
  let list = pattern;
  const fields = context.fields.map((field): Field => {
    const codes = values[field.key] ?? [];
    if (field.type !== 'text' || field.like !== undefined || codes.length === 0 || codes.length > MOST_LISTED)
      return field;
    list = list.replace(new RegExp(`\\{${field.key}:[a-z-]+\\}`), `{${field.key}}`);
    return { key: field.key, type: 'choice', options: [...codes].sort().map((code) => ({ code })) };
  });
  const compiled = compiledOf(list, { ...context, fields });
  return compiled !== null && proveOneWay(compiled) === 'one-way'
    ? { pattern: list, fields, families: context.families, compiled, oneWay: true }
    : null;
}

function compiledOf(
  pattern: string,
  context: { fields: readonly Field[]; registers: Registers; families: readonly string[] | undefined },
): CompiledConvention | null {
  const parsed = parsePattern(pattern);
  const compiled = parsed.ok ? compileConvention(parsed.value, context) : null;
  return compiled?.ok ? compiled.value : null;
}

/** One known family or several; an extension nobody knows is a choice of its own, so that the names still read. */
function extensionOf(
  all: readonly string[],
  registers: Registers,
): { pattern: string; fields: Field[]; families: readonly string[] | undefined } {
  const counts = new Map<string, number>();
  for (const ext of all) counts.set(ext, (counts.get(ext) ?? 0) + 1);
  // An extension met once among many is a slip (`.JPG`), unless it is known.
  const known = (ext: string) => registers.families.some((f) => f.extensions.includes(ext));
  const kept = [...counts]
    .filter(([ext, n]) => ext !== '' && (known(ext) || n > Math.max(1, 0.03 * all.length) || counts.size === 1))
    .map(([ext]) => ext);
  if (kept.length === 0) return { pattern: '', fields: [], families: undefined };
  if (kept.every(known))
    return {
      pattern: '.{ext}',
      fields: [],
      families: registers.families.filter((f) => kept.some((ext) => f.extensions.includes(ext))).map((f) => f.name),
    };
  const [only] = kept;
  if (only !== undefined && kept.length === 1)
    return { pattern: `.${literally(only)}`, fields: [], families: undefined };
  if (registers.families.length === 0 && kept.every((ext) => /^[a-z0-9]+$/.test(ext)))
    return { pattern: '.{ext}', fields: [], families: undefined };
  return {
    pattern: '.{kind}',
    fields: [{ key: 'kind', type: 'choice', options: kept.sort().map((code) => ({ code })) }],
    families: undefined,
  };
}

/**
 * A column in which every text holds the same number of hyphens, and not only words between them, is several columns
 * (`26014-QHT`).
 */
function splitColumns(heap: Heap): Heap {
  const pieces = heap.columns.map((column, index) => {
    const cells = heap.rows.flatMap((row) => row.cells[index] ?? []);
    const counts = new Set(cells.map((t) => t.text.split('-').length));
    const [count = 1] = counts;
    if (counts.size !== 1 || count === 1 || cells.length < 3 || column.optional || cells.some((t) => t.kind === 'date'))
      return null;
    const first = elementAt(cells, 0)
      .text.split('-')
      .map((text) => tokenOf(text, '').kind);
    const stable = first.map((kind, k) =>
      cells.every((t) => tokenOf(elementAt(t.text.split('-'), k), '').kind === kind),
    );
    return stable.every(Boolean) && first.some((kind) => kind !== 'lower' && kind !== 'mixed') ? count : null;
  });
  if (pieces.every((p) => p === null)) return heap;
  const split = <T>(each: readonly T[], cut: (item: T, count: number) => T[]): T[] =>
    each.flatMap((item, i) => {
      const count = pieces[i] ?? null;
      return count === null ? [item] : cut(item, count);
    });
  const cutToken = (token: Token | null, count: number): (Token | null)[] =>
    token === null
      ? new Array<null>(count).fill(null)
      : token.text.split('-').map((text, k) => tokenOf(text, k === 0 ? token.before : '-'));
  const rows = heap.rows.map(({ sample, cells }: { sample: Sample; cells: readonly (Token | null)[] }) => ({
    sample,
    cells: split(cells, cutToken),
  }));
  return {
    columns: split(heap.columns, (column, count) =>
      Array.from({ length: count }, (_, k) => ({ ...column, before: k === 0 ? column.before : '-' })),
    ),
    rows,
  };
}
