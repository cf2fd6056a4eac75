/** Good and bad names kept with the convention: run on every change, and before it is put in force. */
import { type CompiledConvention, readName } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { X } from 'lucide-react';
import { Heading, Tip } from '../../ui';
import { PassSign, WeightSign } from '../../ui/signs';

interface Props {
  readonly convention: Convention;
  readonly compiled: CompiledConvention | null;
  readonly onChange: ((convention: Convention) => void) | null;
}

export const failingOf = (convention: Convention, compiled: CompiledConvention | null): number =>
  compiled === null
    ? 0
    : (convention.good ?? []).filter((n) => readName(compiled, n) === null).length +
      (convention.bad ?? []).filter((n) => readName(compiled, n) !== null).length;

export function Examples({ convention, compiled, onChange }: Props) {
  const kept = [
    ...(convention.good ?? []).map((name) => ({ name, good: true })),
    ...(convention.bad ?? []).map((name) => ({ name, good: false })),
  ];
  if (kept.length === 0) return null;
  return (
    <section aria-label="Names kept with it" className="flex flex-col gap-1">
      <Heading>Names kept with it</Heading>
      <ul className="divide-y divide-line">
        {kept.map(({ name, good }) => {
          const holds = compiled !== null && (readName(compiled, name) !== null) === good;
          return (
            <li key={`${good} ${name}`} className="flex items-center gap-2 py-1">
              {holds ? <PassSign /> : <WeightSign weight="must" />}
              <span className="min-w-0 flex-1 font-mono text-sm break-all">{name}</span>
              <span className={`shrink-0 text-xs ${holds ? 'text-ink2' : 'font-semibold text-brick'}`}>
                {good
                  ? holds
                    ? 'kept as good'
                    : 'kept as good, and breaks the rule'
                  : holds
                    ? 'kept as bad'
                    : 'kept as bad, and follows the rule'}
              </span>
              {onChange && (
                <Tip words="Keep it no longer">
                  <button
                    type="button"
                    aria-label={`Keep ${name} no longer`}
                    className="text-ink2 hover:text-ink"
                    onClick={() => onChange(without(convention, name))}
                  >
                    <X size={14} aria-hidden />
                  </button>
                </Tip>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const without = (convention: Convention, name: string): Convention => ({
  ...convention,
  good: convention.good?.filter((n) => n !== name),
  bad: convention.bad?.filter((n) => n !== name),
});

export const keptAs = (convention: Convention, name: string, good: boolean): Convention => {
  const rest = without(convention, name);
  return good ? { ...rest, good: [...(rest.good ?? []), name] } : { ...rest, bad: [...(rest.bad ?? []), name] };
};
