/** The tree of a name pattern. Places (`at`, `end`) are UTF-16 offsets into the pattern's source. */
export type Part = Literal | Slot | Group;

export interface Literal {
  readonly kind: 'literal';
  readonly text: string;
  readonly at: number;
  readonly end: number;
}

export interface Slot {
  readonly kind: 'slot';
  readonly field: string;
  readonly property: string | null;
  readonly shape: string | null;
  readonly at: number;
  readonly end: number;
}

export interface Group {
  readonly kind: 'group';
  readonly parts: readonly Part[];
  readonly at: number;
  readonly end: number;
}

export interface Pattern {
  readonly source: string;
  readonly parts: readonly Part[];
}

/** Every slot of a pattern in reading order, those inside groups included. */
export function slotsOf(parts: readonly Part[]): Slot[] {
  return parts.flatMap((part) => (part.kind === 'slot' ? [part] : part.kind === 'group' ? slotsOf(part.parts) : []));
}
