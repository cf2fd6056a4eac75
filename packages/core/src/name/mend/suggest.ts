/** Why a name does not follow its convention, part by part, and the names it was most likely meant to be. */

import { LIMITS } from '../../limits';
import { ownValue } from '../../own-value';
import { Remembered } from '../../remembered';
import { type Expectation, expectationOf, NOTHING } from '../pattern/expect';
import type { CompiledConvention } from '../pattern/ops';
import { readName } from '../read/read';
import { agreeing } from './agree';
import { type ChangeCode, COST, type NameContext, NO_CONTEXT } from './costs';
import type { Hypothesis, Move, Target } from './hypotheses';
import { alignInAnyOrder, separatorsOf } from './order';
import { type Tidied, tidied } from './tidy';

export const CONFIDENCES = ['sure', 'likely', 'guess'] as const;
export type Confidence = (typeof CONFIDENCES)[number];

export interface Problem {
  /** The field, or the literal text, that is not met; `null` for something that does not belong in the name. */
  readonly part: string | null;
  readonly at: number;
  readonly length: number;
  readonly found: string;
  readonly expected: Expectation;
  readonly change: ChangeCode;
  /** What should stand there, where that is known. */
  readonly meant: string | null;
}

export interface Suggestion {
  readonly name: string;
  readonly confidence: Confidence;
  readonly changes: readonly {
    readonly code: ChangeCode;
    readonly part: string | null;
    readonly from: string;
    readonly to: string;
  }[];
}

/** A stretch of the name under one part of the pattern, for the anatomy. */
export interface Stretch {
  readonly part: string | null;
  readonly at: number;
  readonly end: number;
  readonly ok: boolean;
}

export interface Explanation {
  readonly problems: readonly Problem[];
  readonly suggestions: readonly Suggestion[];
  readonly stretches: readonly Stretch[];
}

/** Changes by which nothing is made up: the name says all there is to know. */
const PLAIN: ReadonlySet<ChangeCode> = new Set([
  'characters',
  'spelling',
  'case',
  'separator',
  'padding',
  'accents',
  'abbreviation',
  'date-form',
  'version-style',
  'extension',
  'banned-word',
  'copy-mark',
  'doubled',
  'missing',
  'order',
]);

/** How much dearer the next name must be before the first is sure; and how dear a name may be at all. */
const SURE_MARGIN = 0.75;
const SURE_COST = 4;

export function explainName(
  convention: CompiledConvention,
  name: string,
  context: NameContext = NO_CONTEXT,
): Explanation {
  if (name.length > LIMITS.suggestLength) return unexplained(name);
  const clean = tidied(name);
  const hypotheses = alignInAnyOrder(convention, clean.text, context)
    .flatMap((h) => agreeing(convention, h))
    .map((h) => inName(h, name, clean));
  const best = hypotheses[0];
  if (best === undefined) return unexplained(name);
  const problems = problemsOf(best, name);
  // What cannot be told in parts is still no name of this rule.
  if (problems.length === 0 && readName(convention, name, context.bound) === null) return unexplained(name);
  return {
    problems,
    suggestions: suggestionsOf(convention, name, hypotheses, context),
    stretches: stretchesOf(best),
  };
}

/** Refused as a whole. */
function unexplained(name: string): Explanation {
  const problem: Problem = {
    part: null,
    at: 0,
    length: name.length,
    found: name.length > SHOWN ? `${name.slice(0, SHOWN)}…` : name,
    expected: NOTHING,
    change: 'extra',
    meant: null,
  };
  return { problems: [problem], suggestions: [], stretches: [{ part: null, at: 0, end: name.length, ok: false }] };
}

const SHOWN = 40;

/** A hypothesis about the tidied name, told of the name itself; characters that were put right are a change of it. */
function inName(h: Hypothesis, name: string, { text, places }: Tidied): Hypothesis {
  if (text === name) return h;
  const moves = h.moves.map((m): Move => {
    const at = places[m.at] ?? name.length;
    const end = m.end > m.at ? (places[m.end] ?? name.length) : at;
    const isOther = m.change === null && name.slice(at, end) !== m.text;
    return { ...m, at, end, change: isOther ? 'characters' : m.change };
  });
  return { ...h, moves, cost: h.cost + COST.characters };
}

function partOf(target: Target | null): string | null {
  if (target === null || target.kind === 'enter') return null;
  return target.kind === 'slot' ? target.slot.field : target.text;
}

function expectedOf(target: Target | null): Expectation {
  if (target === null || target.kind === 'enter') return NOTHING;
  return target.kind === 'slot'
    ? expectationOf(target.slot.domain)
    : { code: 'literal', params: { text: target.text } };
}

function problemsOf(best: Hypothesis, name: string): Problem[] {
  return best.moves
    .filter((m): m is Move & { change: ChangeCode } => m.change !== null)
    .map((m) => ({
      part: partOf(m.target),
      at: m.at,
      length: m.end - m.at,
      found: name.slice(m.at, m.end),
      expected: expectedOf(m.target),
      change: m.change,
      meant: m.target === null || m.change === 'unknown' ? null : m.text,
    }));
}

function stretchesOf(best: Hypothesis): Stretch[] {
  return best.moves
    .filter((m) => m.end > m.at)
    .map((m) => ({
      part: m.target?.kind === 'slot' ? m.target.slot.field : null,
      at: m.at,
      end: m.end,
      ok: m.change === null,
    }));
}

const extensions = new Remembered(
  (convention: CompiledConvention): ReadonlySet<string> =>
    new Set(
      convention.slots.flatMap(({ domain }) =>
        domain.kind === 'fixed' && domain.of === 'ext' ? domain.entries.map((e) => e.text) : [],
      ),
    ),
);

/** `name_v003.mov_new.mov`: an extension left in the middle is no word of the name, though a free text could hold it. */
const readsExtensionAsText = (convention: CompiledConvention, { moves }: Hypothesis): boolean =>
  moves.some(
    (m) =>
      m.target?.kind === 'slot' &&
      m.target.slot.domain.kind === 'text' &&
      extensions.of(convention).has(m.text.toLowerCase()),
  );

/** `loop3`: a number cut off a text that nothing knows may as well be a part of it. */
function isCutFromText({ moves }: Hypothesis, { bound, known }: NameContext): boolean {
  const laid = moves.filter((m) => m.end > m.at).sort((a, b) => a.at - b.at);
  return laid.some((m, i) => {
    const [before, after] = [laid[i - 1], laid[i + 1]];
    if (m.target?.kind !== 'slot' || m.target.slot.domain.kind !== 'text') return false;
    const { field } = m.target.slot;
    if (ownValue(bound, field) !== undefined || ownValue(known, field)?.includes(m.text)) return false;
    const touches = (other: Move | undefined, at: boolean) =>
      other !== undefined && other.target?.kind === 'slot' && (at ? other.end === m.at : other.at === m.end);
    return touches(before, true) || touches(after, false);
  });
}

function suggestionsOf(
  convention: CompiledConvention,
  name: string,
  hypotheses: readonly Hypothesis[],
  context: NameContext,
): Suggestion[] {
  const reading = hypotheses.filter((h) => h.name !== name && readName(convention, h.name, context.bound) !== null);
  const [first, second] = reading;
  return reading.map((h) => {
    const changes = h.moves.filter((m): m is Move & { change: ChangeCode } => m.change !== null);
    const plain =
      !h.invented &&
      !h.doubtful &&
      changes.every((m) => PLAIN.has(m.change)) &&
      !readsExtensionAsText(convention, h) &&
      !isCutFromText(h, context);
    const alone = second === undefined || first === undefined || second.cost - first.cost >= SURE_MARGIN;
    const confidence: Confidence =
      h === first && plain && alone && h.cost - separatorsOf(h) <= SURE_COST
        ? 'sure'
        : !h.invented && h === first
          ? 'likely'
          : 'guess';
    return {
      name: h.name,
      confidence,
      changes: changes.map((m) => ({
        code: m.change,
        part: partOf(m.target),
        from: name.slice(m.at, m.end),
        to: m.text,
      })),
    };
  });
}
