/**
 * Where a start is written: a volume, a folder on this computer, or a file that is taken away. Each gives exactly the
 * same tree.
 */

import type { VolumeRow } from '@nesting/contract';
import { keysOf } from '@nesting/core';
import { useId } from 'react';
import { size } from '../../app/words';
import { Menu } from '../../ui';
import { Row } from './fields';
import { canWriteFolders, type Elsewhere } from './write-elsewhere';

export type Target = { readonly kind: 'volume'; readonly volume: VolumeRow } | { readonly kind: Elsewhere };

const WORDS: Readonly<Record<Elsewhere, string>> = {
  folder: 'a folder on this computer',
  zip: 'a zip',
  sh: 'a shell script',
  powershell: 'a PowerShell script',
};
const ELSEWHERE = keysOf(WORDS);
export const isElsewhere = (text: string | null): text is Elsewhere => text !== null && text in WORDS;
export const targetWords = (target: Target): string =>
  target.kind === 'volume' ? target.volume.name : WORDS[target.kind];

const NOT_READY = {
  missing: 'cannot be reached',
  'read-only': 'read-only',
  new: 'not taken up yet',
  other: 'not that volume',
} as const;

interface TargetChoiceProps {
  readonly volumes: readonly VolumeRow[];
  readonly target: Target | null;
  readonly onVolume: (name: string) => void;
  /** Absent where it is written to a volume alone. */
  readonly onElsewhere?: (to: Elsewhere) => void;
}

export function TargetChoice({ volumes, target, onVolume, onElsewhere }: TargetChoiceProps) {
  const id = useId();
  const volume = target?.kind === 'volume' ? target.volume : null;
  const said =
    volume === null
      ? ''
      : volume.state === 'ready'
        ? volume.freeBytes === null
          ? ''
          : `${size(volume.freeBytes)} free`
        : NOT_READY[volume.state];
  return (
    <Row
      id={id}
      label="Written to"
      faults={[]}
      help={
        target?.kind === 'folder' && !canWriteFolders() ? 'This browser cannot write folders: take a zip.' : undefined
      }
    >
      <Menu
        trigger={
          <button
            id={id}
            type="button"
            aria-label={`Written to ${target === null ? 'nowhere' : targetWords(target)}, ${said}`}
            className="flex h-8 w-full items-center justify-between gap-2 rounded-tray border border-line bg-sheet px-2"
          >
            <span className={volume ? 'font-mono' : ''}>{target === null ? 'nowhere yet' : targetWords(target)}</span>
            <span className={`text-xs ${volume === null || volume.state === 'ready' ? 'text-ink2' : 'text-brick'}`}>
              {said}
            </span>
          </button>
        }
        lines={[
          ...volumes.map((v) => ({ words: v.name, run: () => onVolume(v.name), chosen: v.name === volume?.name })),
          ...(onElsewhere === undefined ? [] : ELSEWHERE).map((to) => ({
            words: WORDS[to],
            run: () => onElsewhere?.(to),
            chosen: target?.kind === to,
          })),
        ]}
      />
    </Row>
  );
}
