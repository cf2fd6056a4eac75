/** What new files are made with. */
import type { Change, MakingStep, NewContent } from '@nesting/core/change';
import { makingSteps } from '@nesting/core/planners';
import { type Expansion, fillText, type Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import type { Contents } from '@nesting/disk';
import { Refused } from '../world';

/**
 * What a file is made with: a text as it is, a starter file from beside its template, filled in where it asks for it.
 */
export function contentBytes(
  content: NewContent,
  starters: ReadonlyMap<string, Uint8Array>,
  template: Template,
  expansion: Expansion,
): Uint8Array {
  if (content.kind === 'text') return Buffer.from(content.text);
  const fill = content.key.startsWith('fill:');
  const bytes = starters.get(fill ? content.key.slice(5) : content.key);
  if (bytes === undefined)
    throw new Refused(
      422,
      'starter-missing',
      `The starter file ${content.key.replace(/^fill:/, '')} is not kept with the template. Nothing was written.`,
    );
  return fill
    ? Buffer.from(
        fillText(Buffer.from(bytes).toString('utf8'), expansion.values.values, template.fields, expansion.registers),
      )
    : bytes;
}

/** The steps that make what is new. @throws Refused where two things would have one place */
export function stepsOf(changes: readonly Change[]): readonly MakingStep[] {
  const steps = makingSteps(changes);
  if (steps.ok) return steps.value;
  const [fault] = steps.faults;
  throw new Refused(
    422,
    'plan-refused',
    `${fault?.path ?? ''}: ${wordsFor(fault?.code ?? '', {})} Nothing was written.`.trim(),
  );
}

/** Everything that steps or changes write, by its key, to be handed to the process that writes it. */
export function contentsOf(
  all: readonly (Change | MakingStep)[],
  bytesOf: (content: NewContent) => Uint8Array,
): Contents {
  const contents = new Map<string, Uint8Array>();
  for (const one of all) {
    const content = 'content' in one ? one.content : null;
    if (content?.kind === 'kept' && !contents.has(content.key)) contents.set(content.key, bytesOf(content));
  }
  return contents;
}
