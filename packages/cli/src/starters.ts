/**
 * The bytes a plan writes: texts as they are, starter files from beside the template, filled in where they ask for it.
 */
import { readFileSync } from 'node:fs';
import { codeOf, type MakingStep, type NewContent } from '@nesting/core/change';
import { makingSteps, startChanges } from '@nesting/core/planners';
import { type Expansion, fillText, type Template } from '@nesting/core/template';
import { inside } from '@nesting/disk';
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
  const steps = makingSteps(startChanges({ template, expansion, project, started }));
  const bytesOf = (content: NewContent): Uint8Array => {
    if (content.kind === 'text') return Buffer.from(content.text);
    const fill = content.key.startsWith('fill:');
    const from = fill ? content.key.slice(5) : content.key;
    const path = inside(folder, from);
    if (!path.ok)
      throw new Unusable(
        `starter file ${from}: ${path.faults[0]?.code === 'path-missing' ? `not beside the template in ${folder}` : 'its path leads out of the template'}`,
      );
    try {
      const bytes = readFileSync(path.value);
      return fill
        ? Buffer.from(fillText(bytes.toString('utf8'), expansion.values.values, template.fields, expansion.registers))
        : bytes;
    } catch (error) {
      throw new Unusable(`starter file ${from}: cannot be read (${codeOf(error)})`);
    }
  };
  // Every starter file is looked at before anything is written.
  for (const step of steps) if (step.do === 'write') bytesOf(step.content);
  return { steps, bytesOf };
}
