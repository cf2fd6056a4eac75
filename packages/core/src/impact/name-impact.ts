/**
 * What another wording of a convention would do to the files that are there: who goes on following, who stops, who
 * starts.
 */

import { explainName } from '../name/mend/suggest';
import { readName } from '../name/read/read';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import type { RulesPair } from './rules-pair';

export interface NameImpact {
  readonly still: number;
  readonly starts: number;
  readonly stops: number;
  /** Break the rule before and after. */
  readonly breaks: number;
  readonly startExamples: readonly string[];
  /** With the name each would have to have, where that is known. */
  readonly stopExamples: readonly { readonly name: string; readonly meant: string | null }[];
}

const SHOWN = 5;

export class NameImpactCounter {
  private still = 0;
  private starts = 0;
  private stops = 0;
  private breaks = 0;
  private readonly startExamples: string[] = [];
  private readonly stopExamples: { name: string; meant: string | null }[] = [];

  /** They differ in the convention alone; `id` is its id in the template. */
  constructor(
    private readonly rules: RulesPair,
    private readonly id: string,
  ) {}

  /** Planned folders in which the convention holds. */
  lines(): PlannedLine[] {
    return this.rules.before.expansion.lines.filter(
      (line) => line.kind === 'folder' && line.rules.conventions?.includes(this.id) === true,
    );
  }

  /** Counts the files of one of them by their names; planned files are no concern of conventions. */
  folder(line: PlannedLine, names: readonly string[]): void {
    for (const name of names) {
      if (this.rules.before.planned(`${line.path}/${name}`)?.kind === 'file') continue;
      const was = this.follows(this.rules.before, line, name);
      const will = this.follows(this.rules.after, line, name);
      if (was === null && will === null) continue;
      if (was !== false && will !== false) this.still++;
      else if (was !== false) {
        this.stops++;
        if (this.stopExamples.length < SHOWN) this.stopExamples.push({ name, meant: this.meant(line, name) });
      } else if (will !== false) {
        this.starts++;
        if (this.startExamples.length < SHOWN) this.startExamples.push(name);
      } else this.breaks++;
    }
  }

  outcome(): NameImpact {
    return {
      still: this.still,
      starts: this.starts,
      stops: this.stops,
      breaks: this.breaks,
      startExamples: this.startExamples,
      stopExamples: this.stopExamples,
    };
  }

  /** `null` where the convention is not asked of this file. */
  private follows(rules: ProjectRules, line: PlannedLine, name: string): boolean | null {
    const mine = rules.conventionsFor(line, name);
    if (!mine.some((c) => c.convention.id === this.id)) return null;
    return mine.some((c) => readName(c.strict, name, c.bound) !== null);
  }

  private meant(line: PlannedLine, name: string): string | null {
    const rule = this.rules.after.conventionsIn(line).find((c) => c.convention.id === this.id);
    return rule === undefined ? null : (explainName(rule.strict, name, rule.context).suggestions[0]?.name ?? null);
  }
}
