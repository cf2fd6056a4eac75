/** What is wrong in a template, by the folder it is wrong in: the last fault of each, in words. */
import type { Registers } from '@nesting/core/name';
import { diagnoseTemplate, type Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useMemo } from 'react';

export function useFaults(template: Template, studio: Registers): ReadonlyMap<string, string> {
  return useMemo(
    () =>
      new Map(
        diagnoseTemplate(template, studio).flatMap((d) =>
          d.node === null ? [] : [[d.node, wordsFor(d.code, d.params)] as const],
        ),
      ),
    [template, studio],
  );
}
