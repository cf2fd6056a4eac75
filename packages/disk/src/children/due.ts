/** The task that looks what of a project's deliveries is there. */
import { type CheckInput, deliveredAs, deliveriesOf, isLate, ProjectRules } from '@nesting/core/project';
import { inTree, type Mount } from '../roots/tree';
import { listFolder } from '../walk';
import type { OfWhere } from './looks';

export interface DueTask extends OfWhere {
  readonly mounts: readonly Mount[];
  readonly rules: CheckInput;
}

export interface DueLine {
  readonly name: string;
  /** From the project's root. */
  readonly folder: string;
  readonly entry: string | null;
  /** ISO 8601; `null` where no day is known. */
  readonly by: string | null;
  /** The file it came as; `null` where it is not there. */
  readonly file: string | null;
  readonly isLate: boolean;
}

/** Days known come first, the nearest of them before others. */
export const dueIn = ({ where, mounts, rules: input }: DueTask): Promise<DueLine[]> =>
  inTree(where, mounts, (tree) => {
    const rules = new ProjectRules(input);
    const due = deliveriesOf(rules);
    const came = deliveredAs(rules, due, (folder) => listFolder(tree, folder, () => undefined));
    const lines = due.map((one): DueLine => {
      const file = came.get(one) ?? null;
      const late = file === null && input.now !== undefined && isLate(one, input.now);
      return { name: one.delivery.name, folder: one.line.path, entry: one.entry, by: one.by, file, isLate: late };
    });
    return lines.sort((a, b) => ((a.by ?? '9') < (b.by ?? '9') ? -1 : (a.by ?? '9') > (b.by ?? '9') ? 1 : 0));
  });
