/** Journals of the first form, which knew one root and no copies: read as what they would be today. */
import { OWN_FOLDER } from '../project/own-folder';
import type { Change, Content, Expected, Step, Subject } from './change';
import type { Intents, Outcome, Rest } from './journal';
import { home, type Place } from './place';

/** In a batch's folder. */
export const FIRST_INTENTS = 'intents.json';
export const FIRST_OUTCOMES = 'outcomes.ndjson';

type FirstContent =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'kept'; readonly key: string }
  | { readonly kind: 'set-aside'; readonly path: string };

interface FirstChange {
  readonly key: string;
  readonly what: 'folder' | 'file';
  readonly before: string | null;
  readonly after: string | null;
  readonly content: FirstContent | null;
  readonly expects?: Expected;
}

type FirstStep = { readonly key: string; readonly path: string } & (
  | { readonly do: 'make' | 'unmake' | 'unwrite' }
  | { readonly do: 'write'; readonly content: FirstContent }
  | { readonly do: 'move'; readonly from: string }
);

interface FirstIntents extends Omit<Intents, 'changes' | 'steps' | 'others'> {
  readonly format: string;
  readonly formatVersion: number;
  readonly changes: readonly FirstChange[];
  readonly steps: readonly FirstStep[];
}

/** `null` where it is none, or was cut off while it was written. */
export function firstIntents(text: string): Intents | null {
  let first: FirstIntents;
  try {
    first = JSON.parse(text) as FirstIntents;
  } catch {
    return null;
  }
  if (first.format !== 'nesting/batch' || first.formatVersion !== 1) return null;
  const { id, what, by, at, undoes, ids } = first;
  const [changes, steps] = [first.changes.map(changeOf), first.steps.map(stepOf)];
  return { id, what, by, at, undoes, changes, steps, ids, others: [] };
}

export const firstOutcomes = (text: string): Outcome[] =>
  text.split('\n').flatMap((line) => {
    try {
      return [outcomeOf(JSON.parse(line) as Outcome)];
    } catch {
      // The last line may be cut off.
      return [];
    }
  });

interface FirstRest {
  readonly key: string;
  readonly path: string;
  readonly code: string;
}

/** What was left of a closed one was named by keys and paths; one that is closed today is written as all are. */
function outcomeOf(outcome: Outcome): Outcome {
  if (!('ended' in outcome) || outcome.rest === undefined) return outcome;
  const rest = (outcome.rest as readonly (Rest | FirstRest)[]).map((one) =>
    'key' in one ? { id: one.key, at: home(one.path), code: one.code } : one,
  );
  return { ...outcome, rest };
}

const placeOf = (path: string | null): Place | null => (path === null ? null : home(path));

const changeOf = ({ key, what, before, after, content, expects }: FirstChange): Change => ({
  id: key,
  subject: subjectOf(key),
  group: null,
  entry: what,
  before: placeOf(before),
  after: placeOf(after),
  content: content && contentOf(content),
  expects,
});

const FILLED = 'fill:';

function contentOf(content: FirstContent): Content {
  switch (content.kind) {
    case 'text':
      return content;
    case 'kept': {
      const isFilled = content.key.startsWith(FILLED);
      return { kind: 'starter', key: isFilled ? content.key.slice(FILLED.length) : content.key, isFilled };
    }
    case 'set-aside':
      return { kind: 'set-aside', from: home(content.path) };
  }
}

function subjectOf(key: string): Subject {
  if (key === OWN_FOLDER || key.startsWith(`${OWN_FOLDER}/`)) return { kind: 'own' };
  return /^(?:file|extra):/.test(key) ? { kind: 'file' } : { kind: 'line', line: key };
}

function stepOf(step: FirstStep): Step {
  const [id, at] = [step.key, home(step.path)];
  switch (step.do) {
    case 'write':
      return { id, do: 'place', at, content: contentOf(step.content) };
    case 'unwrite':
      return { id, do: 'set-aside', at };
    case 'move':
      return { id, do: 'move', from: home(step.from), at };
    case 'make':
    case 'unmake':
      return { id, do: step.do, at };
  }
}
