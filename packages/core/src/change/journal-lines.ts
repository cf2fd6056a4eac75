/**
 * The journal's file: one JSON value a line, so that a million changes are no one text. The first line says what the
 * batch is, the last one of the intents that all of them stand there; outcomes follow.
 */
import { elementAt } from '../element';
import { type Change, isSameMove, type Step } from './change';
import type { Bystander, Intents, Outcome } from './journal';
import type { Place } from './place';

/** In a batch's folder. */
export const JOURNAL = 'journal.ndjson';

const JOURNAL_FORM = { format: 'nesting/batch', formatVersion: 2 } as const;

/** Steps that say no more than the changes do are not written down. */
type Steps = 'as-changes' | 'own';

type Line =
  | (typeof JOURNAL_FORM &
      Pick<Intents, 'id' | 'what' | 'by' | 'at' | 'undoes' | 'request'> & { readonly steps: Steps })
  | { readonly change: Change }
  | { readonly step: Step }
  | { readonly ids: Readonly<Record<string, string>> }
  | { readonly other: Bystander }
  | { readonly intends: 'all' }
  | Outcome;

/** Identities in one line: enough that the line's own letters cost nothing. */
const IDS_A_LINE = 500;

export function* intentLines(intents: Intents): Generator<string> {
  const { id, what, by, at, undoes, request, changes, steps, ids, others } = intents;
  const isPlain = steps.length === changes.length && steps.every((step, i) => isSameMove(elementAt(changes, i), step));
  const line = (value: Line) => `${JSON.stringify(value)}\n`;
  yield line({ ...JOURNAL_FORM, id, what, by, at, undoes, request, steps: isPlain ? 'as-changes' : 'own' });
  for (const change of changes) yield line({ change });
  if (!isPlain) for (const step of steps) yield line({ step });
  const named = Object.entries(ids);
  for (let i = 0; i < named.length; i += IDS_A_LINE)
    yield line({ ids: Object.fromEntries(named.slice(i, i + IDS_A_LINE)) });
  for (const other of others) yield line({ other });
  yield line({ intends: 'all' });
}

/** A line that a crash cut off is ended first. */
export const outcomeLine = (outcome: Outcome): string => `\n${JSON.stringify(outcome)}\n`;

export interface ReadJournal {
  /** `null` where they are not whole: the batch never began. */
  readonly intents: Intents | null;
  readonly outcomes: readonly Outcome[];
}

/** Reads what `intentLines` and `outcomeLine` wrote. Lines that are cut off, or of a later form, are passed over. */
export function readJournal(lines: Iterable<string>): ReadJournal {
  let head: Extract<Line, { format: string }> | null = null;
  let isWhole = false;
  const changes: Change[] = [];
  const steps: Step[] = [];
  const others: Bystander[] = [];
  const ids: Record<string, string> = {};
  const outcomes: Outcome[] = [];
  for (const text of lines) {
    const line = lineOf(text);
    if (line === null) continue;
    if ('format' in line) head = isOurs(line) ? line : null;
    else if ('change' in line) {
      if (!isChange(line.change)) return { intents: null, outcomes };
      changes.push(line.change);
    } else if ('step' in line) {
      if (!isStep(line.step)) return { intents: null, outcomes };
      steps.push(line.step);
    } else if ('ids' in line) Object.assign(ids, line.ids);
    else if ('other' in line) others.push(line.other);
    else if ('intends' in line) isWhole = true;
    else outcomes.push(line);
  }
  if (head === null || !isWhole) return { intents: null, outcomes };
  const { id, what, by, at, undoes, request } = head;
  const asked = request === undefined ? {} : { request };
  const all = head.steps === 'own' ? steps : changes.flatMap(moveOf);
  return { intents: { id, what, by, at, undoes, ...asked, changes, steps: all, ids, others }, outcomes };
}

const isOurs = ({ format, formatVersion }: Extract<Line, { format: string }>): boolean =>
  format === JOURNAL_FORM.format && formatVersion === JOURNAL_FORM.formatVersion;

// A journal lies where anybody can write: what is no change and no step is nothing that anybody does.

const isPlace = (value: unknown): value is Place =>
  typeof value === 'object' &&
  value !== null &&
  'root' in value &&
  typeof value.root === 'string' &&
  'path' in value &&
  typeof value.path === 'string';

const isChange = (value: unknown): value is Change => {
  if (typeof value !== 'object' || value === null) return false;
  const { id, subject, entry, before, after } = value as Partial<Change>;
  return (
    typeof id === 'string' &&
    typeof subject?.kind === 'string' &&
    (entry === 'folder' || entry === 'file') &&
    [before, after].every((at) => at === null || isPlace(at))
  );
};

const ACTS: ReadonlySet<unknown> = new Set<Step['do']>([
  ...(['copy', 'rewrite', 'make', 'write', 'place', 'move', 'set-aside', 'remove', 'unmake'] as const),
]);

const isStep = (value: unknown): value is Step => {
  if (typeof value !== 'object' || value === null) return false;
  const { id, do: act, at } = value as Partial<Step>;
  const isMove = act !== 'move' || ('from' in value && isPlace(value.from));
  return typeof id === 'string' && ACTS.has(act) && isPlace(at) && isMove;
};

function lineOf(text: string): Line | null {
  if (text === '') return null;
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? (value as Line) : null;
  } catch {
    return null;
  }
}

const moveOf = ({ id, before, after }: Change): Step[] =>
  before === null || after === null ? [] : [{ id, do: 'move', from: before, at: after }];
