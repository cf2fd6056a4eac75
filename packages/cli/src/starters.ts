/**
 * The bytes a plan writes: texts as they are, starter files from beside the template, filled in where they ask for it.
 */
import { LIMITS } from '@nesting/core';
import { type Change, codeOf, isNew, type NewContent, orderChanges } from '@nesting/core/change';
import { startChanges } from '@nesting/core/planners';
import { type Expansion, fillText, type Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { inRoot, readPlain } from '@nesting/disk';
import { Unusable } from './fail';

export interface Making {
  readonly changes: readonly Change[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
}

export function makingOf(
  template: Template,
  folder: string,
  expansion: Expansion,
  project: string,
  started: string,
): Making {
  const changes = startChanges({ template, expansion, project, started });
  const [fault] = orderChanges(changes).faults;
  if (fault !== undefined) throw new Unusable(`${fault.at.path}: ${wordsFor(fault.code, {})}`);
  const bytesOf = (content: NewContent): Uint8Array => {
    if (content.kind === 'text') return Buffer.from(content.text);
    const bytes = starterBytes(folder, content.key);
    return content.isFilled
      ? Buffer.from(fillText(bytes.toString('utf8'), expansion.values.values, template.fields, expansion.registers))
      : bytes;
  };
  // Every starter file is looked at before anything is written.
  for (const { content } of changes) if (content !== null && isNew(content)) bytesOf(content);
  return { changes, bytesOf };
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
