/** One name held against a convention: its anatomy, what is wrong with it, the name it was meant to be. */
import { type CompiledConvention, explainName, type NameContext, readName, spansOf } from '@nesting/core/name';
import { CHANGE_WORDS, expectationWords } from '@nesting/core/words';
import { type AnatomyPart, partsOfBroken } from '../../anatomy/anatomy';

export interface Tried {
  readonly name: string;
  readonly ok: boolean;
  readonly parts: readonly AnatomyPart[];
  readonly meant: string | null;
  readonly confidence: string | null;
  readonly why: string;
}

export function tryName(compiled: CompiledConvention, context: NameContext, name: string): Tried {
  if (readName(compiled, name, context.bound) !== null) {
    const spans = spansOf(compiled, name, 1, context.bound)[0] ?? [];
    return {
      name,
      ok: true,
      parts: partsOfBroken(
        name,
        spans.map((s) => ({ part: s.field, at: s.at, end: s.end, ok: true })),
        [],
      ),
      meant: null,
      confidence: null,
      why: '',
    };
  }
  const { problems, stretches, suggestions } = explainName(compiled, name, context);
  const [best] = suggestions;
  const why = [
    ...new Set(
      problems.map((p) =>
        p.part === null || p.change === 'order' || !/[A-Za-z]/.test(p.part)
          ? CHANGE_WORDS[p.change]
          : `${p.part}: ${expectationWords(p.expected)}`,
      ),
    ),
  ].join('; ');
  return {
    name,
    ok: false,
    parts: partsOfBroken(name, stretches, problems),
    meant: best?.name ?? null,
    confidence: best?.confidence ?? null,
    why,
  };
}

/** Words for how far a proposed name can be trusted. */
export const TRUST: Readonly<Record<string, string>> = { sure: 'sure', likely: 'likely', guess: 'a guess' };
