import type { Convention } from '@nesting/core/template';
import { useId } from 'react';
import { CopyButton } from '../../ui';
import type { RuleInput } from '../../workers/compile-rule';
import { useProof } from '../../workers/rules';
import type { Rule } from './use-rule';
import { Verdict } from './verdict';

interface JudgedProps {
  readonly input: RuleInput | null;
  readonly rule: Rule;
  readonly known: Readonly<Record<string, readonly string[]>>;
  readonly onCure: CureTaken | null;
}

export function Judged({ input, rule, known, onCure }: JudgedProps) {
  const { answer, waiting } = useProof(rule.compiled === null ? null : input, known);
  return (
    <Verdict
      compiled={rule.compiled}
      fault={rule.fault?.words ?? null}
      proof={answer}
      waiting={waiting}
      onCure={onCure}
    />
  );
}

interface PatternFieldProps {
  readonly convention: Convention;
  readonly fault: Rule['fault'];
  readonly onChange: ((pattern: string) => void) | null;
}

export function PatternField({ convention, fault, onChange }: PatternFieldProps) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-xs font-semibold text-ink2">
        The pattern
      </label>
      <div
        className={`flex items-start gap-1 rounded-tray border bg-sheet p-1 focus-within:border-bottle focus-within:ring-2 focus-within:ring-bottle/30 ${fault ? 'border-brick' : 'border-line'}`}
      >
        <textarea
          id={id}
          value={convention.pattern}
          readOnly={onChange === null}
          rows={Math.max(1, Math.ceil(convention.pattern.length / 62))}
          spellCheck={false}
          aria-invalid={fault !== null}
          onChange={(e) => onChange?.(e.target.value.replace(/\n/g, ''))}
          className="min-w-0 flex-1 resize-none bg-clear p-1 font-mono text-sm break-all outline-none"
        />
        <CopyButton text={convention.pattern} what="the pattern" />
      </div>
      {fault && (
        <p aria-hidden className="px-2 font-mono text-sm break-all">
          <span className="text-ink2">{convention.pattern.slice(0, fault.at)}</span>
          <span className="wavy font-bold text-brick">
            {convention.pattern.slice(fault.at, fault.at + Math.max(1, fault.length)) || ' '}
          </span>
          <span className="text-ink2">{convention.pattern.slice(fault.at + Math.max(1, fault.length))}</span>
        </p>
      )}
    </div>
  );
}

export type CureTaken = NonNullable<Parameters<typeof Verdict>[0]['onCure']>;
