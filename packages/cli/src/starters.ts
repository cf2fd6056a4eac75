/**
 * The bytes a plan writes: texts as they are, starter files from beside the template, filled in where they ask for it.
 */
import { LIMITS } from '@nesting/core';
import { codeOf, type MakingStep, type NewContent } from '@nesting/core/change';
import { makingSteps, startChanges } from '@nesting/core/planners';
import { type Expansion, fillText, type Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { inRoot, readPlain } from '@nesting/disk';
import { Unusable } from './fail';

export interface Making {
  readonly steps: readonly MakingStep[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
}

export function makingOf(
  template: Template,
  folder: string,
  expansion: Expansion,
  project: string,
  started: string,
): Making {
  const ordered = makingSteps(startChanges({ template, expansion, project, started }));
  if (!ordered.ok) throw new Unusable(`${ordered.faults[0]?.path}: ${wordsFor(ordered.faults[0]?.code ?? '', {})}`);
  const steps = ordered.value;
  const bytesOf = (content: NewContent): Uint8Array => {
    if (content.kind === 'text') return Buffer.from(content.text);
    const fill = content.key.startsWith('fill:');
    const from = fill ? content.key.slice(5) : content.key;
    const bytes = starterBytes(folder, from);
    return fill
      ? Buffer.from(fillText(bytes.toString('utf8'), expansion.values.values, template.fields, expansion.registers))
      : bytes;
  };
  // Every starter file is looked at before anything is written.
  for (const step of steps) if (step.do === 'write') bytesOf(step.content);
  return { steps, bytesOf };
}

/** Why a starter file cannot be taken, by the code it fails with. */
const REASONS: Readonly<Record<string, string>> = {
  ELOOP: 'its path leads out of the template',
  EREFUSED: 'its path leads out of the template',
  EFBIG: 'it is too large',
  ENOTFILE: 'it is no file',
};

function starterBytes(folder: string, from: string): Buffer {
  try {
    return inRoot({ base: folder, folder: '' }, (beside) => readPlain(beside, from, LIMITS.starterBytes));
  } catch (error) {
    const code = codeOf(error);
    const why = code === 'ENOENT' ? `not beside the template in ${folder}` : REASONS[code];
    throw new Unusable(`starter file ${from}: ${why ?? `cannot be read (${code})`}`);
  }
}
