/** How names as people write them are put right: by half, and by sort. */
import { valueAt } from '@nesting/core';
import { explainName, readName } from '@nesting/core/name';
import { type HabitName, habitNames, habitRules } from './names';

export interface Told {
  readonly item: HabitName;
  readonly said: string | null;
  readonly isSure: boolean;
  readonly isSilent: boolean;
}

export interface HabitScore {
  readonly told: readonly Told[];
  /** Names with a right one, and how often it came first. */
  readonly named: number;
  readonly first: number;
  readonly sureWrong: readonly Told[];
  readonly fixable: number;
  readonly fixableSure: number;
  /** Names that are no convention's, for which no problem is told. */
  readonly silent: number;
}

export function scoreHabits(half: HabitName['half']): HabitScore {
  const rules = habitRules();
  const told = habitNames()
    .filter((item) => item.half === half)
    .map((item): Told => {
      const { compiled, context } = valueAt(rules, item.convention);
      const { suggestions, problems } = explainName(compiled, item.broken, context);
      const [best] = suggestions;
      return {
        item,
        said: best?.name ?? null,
        isSure: best?.confidence === 'sure',
        isSilent: problems.length === 0 && readName(compiled, item.broken) === null,
      };
    });
  const right = (t: Told) => t.item.right !== null && t.said === t.item.right;
  const fixable = told.filter((t) => t.item.fixable);
  return {
    told,
    named: told.filter((t) => t.item.right !== null).length,
    first: told.filter(right).length,
    sureWrong: told.filter((t) => t.isSure && t.said !== t.item.broken && !right(t)),
    fixable: fixable.length,
    fixableSure: fixable.filter((t) => t.isSure && right(t)).length,
    silent: told.filter((t) => t.isSilent).length,
  };
}
