/** Frames where no convention of their own folder has them: by the convention of the folder they belong to. */
import type { PlannedLine } from '../template/expansion';
import { frameless } from './frameless';
import type { ProjectRules } from './rules';

/** The subject of a finding about a file that lies elsewhere: the frames of one sequence share it. */
export function subjectAt(
  rules: ProjectRules,
  home: PlannedLine | null,
  path: string,
): { readonly subject: string } | Record<string, never> {
  const framed =
    home === null
      ? undefined
      : rules.conventionsIn(home).find(({ strict }) => strict.slots.some(({ field }) => field === 'frame'));
  return framed === undefined ? {} : frameless(framed.strict, path);
}
