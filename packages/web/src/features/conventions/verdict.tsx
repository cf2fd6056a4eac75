/**
 * The proof's verdict, always in sight: no name can be misread, or the shortest one that can, with what would cure it.
 */
import type { Params } from '@nesting/core';
import { type CompiledConvention, type Cure, longestName } from '@nesting/core/name';
import { DEFAULT_PROFILES, nameFaults } from '@nesting/core/portable';
import { wordsFor } from '@nesting/core/words';
import { useMemo } from 'react';
import { Button } from '../../ui';
import { PassSign, WeightSign } from '../../ui/signs';
import type { Proof } from '../../workers/rules';

interface Props {
  readonly compiled: CompiledConvention | null;
  /** Why it cannot be used, where it cannot. */
  readonly fault: string | null;
  readonly proof: Proof | null;
  readonly waiting: boolean;
  readonly onCure: ((cure: Cure) => void) | null;
}

export function Verdict({ compiled, fault, proof, waiting, onCure }: Props) {
  return (
    <div role="status" className={`flex flex-col gap-1.5 ${waiting ? 'opacity-70' : ''}`}>
      {compiled === null ? (
        <Said sign={<WeightSign weight="must" />}>{fault ?? 'This pattern cannot be used as it stands.'}</Said>
      ) : (
        <Proved proof={proof} onCure={onCure} />
      )}
      {compiled !== null && <Longest compiled={compiled} />}
    </div>
  );
}

function Said({ sign, children }: { sign: React.ReactNode; children: React.ReactNode }) {
  return (
    <p className="flex items-start gap-2">
      <span className="pt-1">{sign}</span>
      <span>{children}</span>
    </p>
  );
}

function Proved({ proof, onCure }: Pick<Props, 'proof' | 'onCure'>) {
  if (proof === null)
    return <Said sign={<WeightSign weight="note" />}>Looking whether some name could be misread…</Said>;
  if (proof.verdict === 'one-way')
    return (
      <Said sign={<PassSign />}>
        <strong className="font-semibold">No name can be misread.</strong>{' '}
        <span className="text-ink2">Proved for every name.</span>
      </Said>
    );
  if (proof.verdict === null)
    return (
      <Said sign={<WeightSign weight="note" />}>
        It was not decided in time whether a name could be misread. Shorter texts or smaller lists would help.
      </Said>
    );
  const { name, readings } = proof.verdict;
  return (
    <>
      <Said sign={<WeightSign weight="should" />}>
        <strong className="font-semibold">Some names can be misread.</strong> <span className="font-mono">{name}</span>{' '}
        is either{' '}
        {readings.slice(0, 2).map((reading, i) => (
          <span key={JSON.stringify(reading)}>
            {i > 0 && ' or '}
            <span className="font-mono text-sm">
              {Object.entries(reading)
                .filter(([key, value]) => readings.some((other) => other[key] !== value))
                .map(([key, value]) => `${key} ${value}`)
                .join(', ') || 'without them'}
            </span>
          </span>
        ))}
        .
      </Said>
      {onCure && proof.cures.length > 0 && (
        <div className="flex flex-wrap items-center gap-2 pl-5">
          <span className="text-sm text-ink2">What would cure it:</span>
          {proof.cures.map((cure) => (
            <Button key={cure.pattern} className="h-7! px-2!" onClick={() => onCure(cure)}>
              {cureWords(cure)}
            </Button>
          ))}
        </div>
      )}
    </>
  );
}

const list = (value: Params[string] | undefined): string =>
  Array.isArray(value) ? value.join(' and ') : String(value ?? '');

function cureWords({ code, params }: Cure): string {
  switch (code) {
    case 'separator':
      return `${params.text} before ${params.field}`;
    case 'shape':
      return `${params.field} as ${params.shape}`;
    case 'values':
      return `a list of ${params.count} for ${params.field}`;
    case 'several':
      return `both ${list(params.fields)}`;
  }
}

/** The longest name the rule allows, and whether every system takes it. */
function Longest({ compiled }: { compiled: CompiledConvention }) {
  const { length, fault } = useMemo(() => {
    const longest = longestName(compiled);
    return {
      length: longest.length,
      fault: nameFaults(longest, DEFAULT_PROFILES).find((f) => f.weight === 'refused') ?? null,
    };
  }, [compiled]);
  return (
    <p className="pl-5 text-sm text-ink2">
      Longest possible: {length} characters;{' '}
      {fault === null ? (
        'legal on POSIX, Windows and macOS.'
      ) : (
        <span className="text-brick">{wordsFor(fault.code, fault.params)}</span>
      )}
    </p>
  );
}
