/** What another edition would do to a project's plan: lines it gains, loses, and calls otherwise. */
import type { RulesPair } from './rules-pair';

export interface LineImpact {
  readonly gains: number;
  readonly loses: number;
  readonly renames: number;
  /** A few of each: `+ path`, `path → name`, `− path`. */
  readonly examples: readonly string[];
}

const SHOWN = 4;

export function lineImpact({ before, after }: RulesPair): LineImpact {
  const were = new Map(before.expansion.lines.map((line) => [line.key, line]));
  const are = new Map(after.expansion.lines.map((line) => [line.key, line]));
  const gained = [...are].flatMap(([key, line]) => (were.has(key) ? [] : [`+ ${line.path}`]));
  const lost = [...were].flatMap(([key, line]) => (are.has(key) ? [] : [`− ${line.path}`]));
  const renamed = [...are].flatMap(([key, line]) => {
    const was = were.get(key);
    return was === undefined || was.name === line.name ? [] : [`${was.path} → ${line.name}`];
  });
  return {
    gains: gained.length,
    loses: lost.length,
    renames: renamed.length,
    examples: [gained, renamed, lost].flatMap((lines) => lines.slice(0, SHOWN)),
  };
}
