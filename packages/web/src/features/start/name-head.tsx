/** The name of the new project at the head of the plan; its number is held, shown and changed where it stands in it. */
import type { StartPlan } from './use-start-plan';

export function NameHead({ plan }: { plan: StartPlan }) {
  const pieces = plan.expansion.lines[0]?.pieces ?? [];
  const at = pieces.findIndex((p) => p.field === 'number');
  const clash = plan.number !== '' && plan.clash?.startsWith('The number') ? plan.clash : null;
  const isHeld = plan.number !== '' && plan.number === plan.held;
  const said = plan.holdTrouble ?? plan.note ?? (isHeld ? 'The number is the next one, and held for you.' : '');
  return (
    <div className="flex flex-col gap-0.5 pb-3">
      <p className="flex min-w-0 items-baseline font-mono text-lg">
        <span className="shrink-0 text-ink2">{textOf(pieces.slice(0, Math.max(0, at)))}</span>
        <NumberInput value={plan.number} isRefused={clash !== null} onGive={(v) => plan.give('number', v)} />
        <span className="min-w-0 truncate" title={plan.expansion.rootName}>
          {textOf(pieces.slice(at + 1))}
        </span>
      </p>
      {clash === null ? (
        <p className="text-xs text-ink2">{said}</p>
      ) : (
        <p role="alert" className="text-xs text-brick">
          {clash}
        </p>
      )}
    </div>
  );
}

const textOf = (pieces: readonly { readonly text: string }[]): string => pieces.map((p) => p.text).join('');

interface NumberInputProps {
  readonly value: string;
  readonly isRefused: boolean;
  readonly onGive: (value: string) => void;
}

/** As wide as what stands in it, so that the name reads as one. */
function NumberInput({ value, isRefused, onGive }: NumberInputProps) {
  return (
    <input
      aria-label="Number"
      value={value}
      onChange={(e) => onGive(e.target.value)}
      aria-invalid={isRefused}
      autoComplete="off"
      spellCheck={false}
      style={{ width: `${Math.max(5, value.length) + 2}ch` }}
      className={`shrink-0 rounded-tray border bg-sheet px-[0.5ch] py-0.5 text-plum outline-none focus:border-bottle focus:ring-2 focus:ring-bottle/30 ${isRefused ? 'border-brick' : 'border-line'}`}
    />
  );
}
