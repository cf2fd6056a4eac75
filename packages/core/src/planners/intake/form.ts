/**
 * The convention whose form a name has, read loosely: its parts stand for the convention's slots in their order, whatever
 * parts them and however they are written. So a bare number is known by its place.
 */
import type { Part } from '../../name/pattern/ast';
import type { CompiledConvention, CompiledSlot } from '../../name/pattern/ops';
import { Remembered } from '../../remembered';
import type { Found } from './vocabulary';

/** A stretch of a name that means one thing. */
export type Atom =
  | { readonly kind: 'found'; readonly found: readonly Found[] }
  | { readonly kind: 'date' | 'version' | 'counted' }
  | { readonly kind: 'digits' | 'word'; readonly text: string };

export interface Form {
  /** By field: digits and words that their place tells. */
  readonly values: Readonly<Record<string, string>>;
  /** Slots that something stands for. */
  readonly filled: number;
}

interface Place {
  readonly slot: CompiledSlot;
  readonly isNeeded: boolean;
}

/** What a name may leave out: the project tells it, or it is counted on. */
const LEFT_OUT: ReadonlySet<string> = new Set(['number', 'client', 'title', 'ext', 'version', 'person']);
const MOST_ATOMS = 14;
const MOST_STEPS = 2000;

/**
 * `null` where the name does not have the convention's form, or could have it in two ways.
 *
 * @param entries - fields that the folder tells: names may leave them out
 */
export function formOf(
  convention: CompiledConvention,
  atoms: readonly Atom[],
  isListed: (field: string) => boolean,
  entries: ReadonlySet<string>,
): Form | null {
  if (atoms.length === 0 || atoms.length > MOST_ATOMS) return null;
  const places = placesIn.of(convention);
  const found: Form[] = [];
  let steps = 0;
  const walk = (at: number, place: number, values: Readonly<Record<string, string>>, filled: number): void => {
    if (found.length > 1 || steps++ > MOST_STEPS) return;
    const atom = atoms[at];
    const here = places[place];
    if (here === undefined) {
      if (atom === undefined) found.push({ values, filled });
      return;
    }
    if (atom !== undefined && fits(here.slot, atom, isListed)) {
      const { field } = here.slot;
      if (atom.kind !== 'word')
        walk(at + 1, place + 1, atom.kind === 'digits' ? { ...values, [field]: atom.text } : values, filled + 1);
      else {
        // Of words one slot takes as many as stand together.
        const end = wordsUntil(atoms, at);
        const text = atoms
          .slice(at, end)
          .map((word) => ('text' in word ? word.text : ''))
          .join(' ');
        walk(end, place + 1, { ...values, [field]: text }, filled + 1);
      }
    }
    const mayMiss = !here.isNeeded || LEFT_OUT.has(here.slot.field) || entries.has(here.slot.field);
    if (mayMiss) walk(at, place + 1, values, filled);
  };
  walk(0, 0, {}, 0);
  const [only, other] = found;
  return only === undefined || other !== undefined || only.filled < FEWEST_FILLED ? null : only;
}

/** One part alone is no form. */
const FEWEST_FILLED = 3;

function wordsUntil(atoms: readonly Atom[], from: number): number {
  let end = from;
  while (atoms[end]?.kind === 'word') end++;
  return end;
}

const placesIn = new Remembered((convention: CompiledConvention) =>
  placesOf(convention, convention.parts, true).filter(({ slot }) => slot.field !== 'ext'),
);

function placesOf(convention: CompiledConvention, parts: readonly Part[], isNeeded: boolean): Place[] {
  return parts.flatMap((part): Place[] => {
    if (part.kind === 'literal') return [];
    if (part.kind === 'group') return placesOf(convention, part.parts, false);
    const domain = convention.domains.get(part);
    return domain === undefined ? [] : [{ slot: { field: part.field, slot: part, domain }, isNeeded }];
  });
}

function fits({ field, domain }: CompiledSlot, atom: Atom, isListed: (field: string) => boolean): boolean {
  switch (atom.kind) {
    case 'found':
      return atom.found.some((one) => one.field === field);
    case 'date':
      return domain.kind === 'date';
    case 'version':
      return field === 'version';
    case 'counted':
      return domain.kind === 'digits' && field !== 'version';
    case 'digits':
      return domain.kind === 'digits' && field !== 'version';
    case 'word':
      return domain.kind === 'text' && !isListed(field);
  }
}
