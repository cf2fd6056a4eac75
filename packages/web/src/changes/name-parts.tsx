/** A name with what each part of it means, in the project it lies in. */
import type { ProjectPage } from '@nesting/contract';
import { explainName, type Registers } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { useMemo } from 'react';
import { Anatomy, partsOfBroken } from '../anatomy/anatomy';

/** A project's rules: what it goes by, and what it is. */
export type RulesOf = Pick<ProjectPage, 'body' | 'values'>;

interface Props {
  readonly rules: RulesOf;
  readonly registers: Registers;
  readonly folder: string;
  readonly name: string;
  readonly label: string;
}

export function NameParts({ rules: { body, values }, registers, folder, name, label }: Props) {
  const rules = useMemo(() => new ProjectRules({ template: body, values, registers }), [body, values, registers]);
  const line = rules.planned(folder);
  const [by] = line === undefined ? [] : rules.conventionsFor(line, name);
  const explanation = by === undefined ? null : explainName(by.strict, name, by.context);
  if (explanation === null || explanation.stretches.length === 0) return null;
  return (
    <div className="flex flex-col gap-0.5">
      <span className="text-xs font-semibold text-ink2">{label}</span>
      <span className="overflow-x-auto">
        <Anatomy parts={partsOfBroken(name, explanation.stretches, explanation.problems)} />
      </span>
    </div>
  );
}
