/**
 * The small signs: weights of findings, and the trays that marks and states are drawn as. Shape and word, never colour
 * alone.
 */
import type { Mark, Weight } from '@nesting/core/template';
import { useMarkWords } from './meanings';

const WEIGHT_COLOUR: Readonly<Record<Weight, string>> = {
  must: 'var(--brick)',
  should: 'var(--ochre)',
  note: 'var(--slate)',
};
export const WEIGHT_WORDS: Readonly<Record<Weight, string>> = {
  must: 'must be put right',
  should: 'should be put right',
  note: 'for information',
};

/** Must: a solid square with a notch. Should: a thick bar. Note: a ring. */
export function WeightSign({ weight, size = 12 }: { weight: Weight; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 12 12" role="img" aria-label={weight} className="shrink-0">
      {weight === 'must' && <path d="M0 0h8l4 4v8H0z" fill={WEIGHT_COLOUR.must} />}
      {weight === 'should' && <rect x="0" y="4" width="12" height="5" fill={WEIGHT_COLOUR.should} />}
      {weight === 'note' && <circle cx="6" cy="6" r="4.500" fill="none" stroke={WEIGHT_COLOUR.note} strokeWidth="2" />}
    </svg>
  );
}

/** A name that follows its rule. */
export function PassSign() {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" role="img" aria-label="follows the rule" className="shrink-0">
      <path d="M0 3a3 3 0 0 1 3-3h6a3 3 0 0 1 3 3v6a3 3 0 0 1-3 3H3a3 3 0 0 1-3-3z" fill="var(--bottle)" />
      <path d="M3 6.200l2.200 2.200L9 4" stroke="var(--on-bottle)" strokeWidth="1.600" fill="none" />
    </svg>
  );
}

export const markColour = (mark: Mark | null): string => (mark === null ? 'var(--rule)' : `var(--mark-${mark})`);

/**
 * Each mark has its own corner cut; a 16 by 14 tray with corners of 3. Cuts by corner: top left, top right, bottom
 * right, bottom left.
 */
const CUTS: Readonly<Record<Mark, readonly [number, number, number, number]>> = {
  clay: [0, 5, 0, 0],
  moss: [5, 0, 0, 0],
  slate: [0, 0, 5, 0],
  plum: [0, 0, 0, 5],
  straw: [5, 5, 0, 0],
  teal: [0, 0, 5, 5],
  rose: [5, 0, 5, 0],
  ink: [0, 5, 0, 5],
};

export type TrayState = 'planned' | 'there' | 'absent' | 'unplanned';

export const STATE_WORDS: Readonly<Record<TrayState, string>> = {
  planned: 'planned',
  there: 'on the disk',
  absent: 'planned, and not there',
  unplanned: 'there, and not planned',
};

/** The outline of a tray: rounded where it is not cut. */
export function trayPath(mark: Mark | null, x: number, y: number, w: number, h: number, scale = 1): string {
  const [tl, tr, br, bl] = (mark === null ? [0, 0, 0, 0] : CUTS[mark]).map((c) => c * scale) as [
    number,
    number,
    number,
    number,
  ];
  const r = Math.min(3 * scale, w / 2, h / 2);
  const corner = (cut: number, dx: number, dy: number, turn: 'h' | 'v'): string => {
    if (cut > 0) return `l${dx * cut} ${dy * cut}`;
    return turn === 'h' ? `q${dx * r} 0 ${dx * r} ${dy * r}` : `q0 ${dy * r} ${dx * r} ${dy * r}`;
  };
  const gap = (cut: number) => (cut > 0 ? cut : r);
  return `M${x + gap(tl)} ${y}h${w - gap(tl) - gap(tr)}${corner(tr, 1, 1, 'h')}v${h - gap(tr) - gap(br)}${corner(br, -1, 1, 'v')}h${-(w - gap(br) - gap(bl))}${corner(bl, -1, -1, 'h')}v${-(h - gap(bl) - gap(tl))}${corner(tl, 1, -1, 'v')}z`;
}

/** Planned: dashed. On the disk: solid. Absent: hollow with a notch. Unplanned: hatched. */
export function TraySign({ mark, state }: { mark: Mark | null; state: TrayState }) {
  const colour = state === 'unplanned' ? 'var(--ochre)' : markColour(mark);
  const path = trayPath(mark, 1, 1, 14, 11);
  const markWords = useMarkWords();
  const words = mark === null ? STATE_WORDS[state] : `${STATE_WORDS[state]}; ${markWords(mark)}`;
  return (
    <svg width="16" height="14" viewBox="0 0 16 13" role="img" aria-label={words} className="shrink-0">
      <path
        d={path}
        fill={state === 'there' ? colour : 'none'}
        fillOpacity={state === 'there' ? 0.32 : 1}
        stroke={colour}
        strokeWidth="1.400"
        strokeDasharray={state === 'planned' ? '2.400 1.600' : undefined}
      />
      {state === 'absent' && <path d="M5 1l3 4 3-4" fill="var(--paper)" stroke={colour} strokeWidth="1.400" />}
      {state === 'unplanned' && <path d="M3 11l8-9M8 11.500l6-7" stroke={colour} strokeWidth="1.400" />}
    </svg>
  );
}

export function FileSign({ state }: { state: TrayState }) {
  return (
    <svg
      width="16"
      height="14"
      viewBox="0 0 16 13"
      role="img"
      aria-label={`file, ${STATE_WORDS[state]}`}
      className="shrink-0"
    >
      <path
        d="M4 2.500h8M4 6.500h8M4 10.500h5"
        stroke="var(--ink2)"
        strokeWidth="1.300"
        strokeDasharray={state === 'planned' ? '2 1.400' : undefined}
        fill="none"
      />
    </svg>
  );
}
